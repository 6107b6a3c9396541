import { useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { Lock } from 'lucide-react'
import type { RoleDetailView } from '#contract/views/roles.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { useRolesQuery } from '../../api/roles.ts'
import { useHere } from '../../api/use-here.ts'
import { ChoiceRow } from '../../ui/ChoiceRow.tsx'
import { Day } from '../../ui/dates.tsx'
import { SortHead } from '../../ui/SortHead.tsx'
import { AbsentPanel } from '../../ui/AbsentPanel.tsx'
import { NotYet } from '../../ui/NotYet.tsx'
import { NewRole } from './NewRole.tsx'
import { RolePanel } from './RolePanel.tsx'
import { RolesHead } from './RolesHead.tsx'

const FindRoles = ({ find, onFind }: { readonly find: string; readonly onFind: (find: string) => void }) => (
  <input
    className="field max-w-56"
    data-find
    aria-label="Find roles"
    placeholder="f  Name or description"
    value={find}
    onChange={event => onFind(event.target.value)}
  />
)

const isFound = ({ name, note }: RoleDetailView, find: string): boolean =>
  `${name} ${note}`.toLowerCase().includes(find.trim().toLowerCase())

/** The roles of the workspace, with the chosen one or a new one at the right. */
export function RolesScreen() {
  const { slug } = useHere()
  const { id } = useParams()
  const [params] = useSearchParams()
  const navigate = useNavigate()
  const { data: view, error } = useRolesQuery(slug)
  const [find, setFind] = useState('')
  const open = (target: string) => void navigate(`/at/${slug}/roles${target}`)
  if (view === undefined) return <NotYet error={error} />
  const chosen = view.roles.find(role => role.id === id)
  const isMaking = id === 'new' && view.below !== null
  const original = view.roles.find(role => role.id === params.get('from'))
  const shown = view.roles.filter(role => isFound(role, find))
  return (
    <div className="beside [--panel:29rem]">
      <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
        <RolesHead>
          <FindRoles find={find} onFind={setFind} />
          {view.below !== null && (
            <button type="button" className="btn-main ml-auto" onClick={() => open('/new')}>
              Create role …
            </button>
          )}
        </RolesHead>
        <RolesTable
          roles={shown}
          isNarrow={id !== undefined}
          chosen={id}
          onChoose={role => open(`/${role}`)}
        />
      </main>
      {isMaking && (
        <NewRole
          key={original?.id ?? ''}
          view={view}
          original={original}
          onClose={() => open('')}
          onMade={role => open(`/${role}`)}
        />
      )}
      {id !== undefined && !isMaking && chosen === undefined && (
        <AbsentPanel what="Role" onClose={() => open('')} />
      )}
      {chosen !== undefined && (
        <RolePanel
          key={chosen.id}
          view={view}
          role={chosen}
          onClose={() => open('')}
          onCopy={() => open(`/new?from=${chosen.id}`)}
        />
      )}
    </div>
  )
}

interface TableProps {
  readonly roles: readonly RoleDetailView[]
  readonly isNarrow: boolean
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
}

const sorts = {
  name: (a: RoleDetailView, b: RoleDetailView) => compareWords(a.name, b.name),
  rank: (a: RoleDetailView, b: RoleDetailView) => b.rank - a.rank || compareWords(a.name, b.name),
  privileges: (a: RoleDetailView, b: RoleDetailView) => b.privileges.length - a.privileges.length,
  people: (a: RoleDetailView, b: RoleDetailView) => b.people - a.people,
  made: (a: RoleDetailView, b: RoleDetailView) => (b.madeAt ?? 0) - (a.madeAt ?? 0),
}
type Sort = keyof typeof sorts

function RolesTable({ roles, isNarrow, chosen, onChoose }: TableProps) {
  const [{ by, isTurned }, setSort] = useState<{ by: Sort; isTurned: boolean }>({
    by: 'rank',
    isTurned: false,
  })
  const sorted = roles.toSorted(sorts[by])
  const onSort = (next: Sort) => setSort({ by: next, isTurned: next === by && !isTurned })
  const head = { chosen: by, isTurned, onSort }
  if (roles.length === 0) return <p className="py-6">No role found.</p>
  return (
    <table className="sheet">
      <thead>
        <tr>
          <SortHead word="Role" sort="name" {...head} />
          <th scope="col" className="max-md:hidden">
            Description
          </th>
          <SortHead word="Rank" sort="rank" isNumber {...head} />
          <SortHead word="Privileges" sort="privileges" isNumber {...head} />
          <SortHead word="People" sort="people" isNumber {...head} />
          {!isNarrow && <SortHead word="Created" sort="made" isDownFirst {...head} />}
        </tr>
      </thead>
      <tbody>
        {(isTurned ? sorted.toReversed() : sorted).map(role => (
          <ChoiceRow
            key={role.id}
            name={role.name}
            isChosen={role.id === chosen}
            onChoose={() => onChoose(role.id)}
          >
            <td className="max-md:hidden">{role.note}</td>
            <td className="text-right">{role.rank}</td>
            <td className="text-right">{role.privileges.length}</td>
            <td className="text-right">{role.people}</td>
            {!isNarrow && <Created role={role} />}
          </ChoiceRow>
        ))}
      </tbody>
    </table>
  )
}

const Created = ({ role: { builtIn, madeAt, madeBy } }: { readonly role: RoleDetailView }) => (
  <td className="whitespace-nowrap">
    {builtIn ? (
      <span className="quiet flex items-center gap-1.5">
        <Lock size={13} aria-hidden /> built in, cannot be changed
      </span>
    ) : (
      <>
        {madeAt !== null && <Day at={madeAt} />}
        {madeBy !== null && ` by ${madeBy}`}
      </>
    )}
  </td>
)
