import { ChevronRight } from 'lucide-react'
import { useState } from 'react'
import type { AccessView, GrantView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day, Through } from '../../../ui/dates.tsx'
import { Level } from '../../../ui/Gauge.tsx'
import { useLevelName } from '../../../ui/own-levels.ts'
import { type Entry, groupsOf } from './entries.ts'
import { EntryEditor } from './EntryEditor.tsx'
import { TeamFold } from './TeamFold.tsx'
import type { WhyAbout } from '../why/Why.tsx'
import { WhyOf } from '../why/WhyOf.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
  readonly onWhy: (about: WhyAbout) => void
}

/** What is given at a place, one line a team or person: level, where it comes from, start and end. */
export function Entries({ access, node, onWhy }: Props) {
  const groups = groupsOf(access.grants)
  return (
    <div>
      {groups.map(group => (
        <section key={group.name} aria-label={group.name} className="mt-2">
          <h3 className={group.name === 'All members' ? 'sr-only' : 'quiet text-sm'}>{group.name}</h3>
          <ul>
            {group.entries.map(entry => (
              <Line key={entry.principal} entry={entry} access={access} node={node} onWhy={onWhy} />
            ))}
          </ul>
        </section>
      ))}
      {node.isPublic && <Web />}
      {groups.length === 0 && <p className="quiet py-2">No grants on this place, and none from above.</p>}
    </div>
  )
}

const Web = () => (
  <section aria-label="The web" className="mt-2">
    <h3 className="quiet text-sm">The web</h3>
    <p className="flex items-center justify-between border-t border-base-300 py-1.5">
      <strong>Everybody, without signing in</strong> <Level actions={1} />
    </p>
  </section>
)

function Line({ entry, access, node, onWhy }: Props & { readonly entry: Entry }) {
  const [isEdited, setEdited] = useState(false)
  const [isUnfolded, setUnfolded] = useState(false)
  const levelName = useLevelName()
  const person = entry.principal.startsWith('person:') ? entry.principal.slice('person:'.length) : undefined
  const isTeam = entry.kind === 'team' || entry.kind === 'leads'
  const level = levelName(entry.actions)
  return (
    <li className="border-t border-base-300 py-1">
      <div className="grid grid-cols-[minmax(0,1fr)_7.5rem_auto] items-start gap-2">
        <span className="flex min-w-0 items-center gap-1">
          {isTeam && (
            <button
              type="button"
              className="-ml-1 cursor-pointer p-0.5"
              aria-expanded={isUnfolded}
              aria-label={`People with access through ${entry.name}`}
              onClick={() => setUnfolded(!isUnfolded)}
            >
              <ChevronRight size={13} className={isUnfolded ? 'rotate-90' : ''} aria-hidden />
            </button>
          )}
          <span className="truncate font-semibold" title={entry.name}>
            {entry.name}
          </span>
        </span>
        <button
          type="button"
          className="cursor-pointer text-left decoration-1 underline-offset-2 hover:underline"
          aria-expanded={isEdited}
          aria-label={`Change ${level} of ${entry.name}`}
          onClick={() => setEdited(!isEdited)}
        >
          <Level actions={entry.actions} isLater={entry.isLater} />
        </button>
        <WhyOf
          name={entry.name}
          about={person === undefined ? { principal: entry.principal, name: entry.name } : { person }}
          onWhy={onWhy}
        />
      </div>
      <Sources entry={entry} />
      {isUnfolded && (
        <TeamFold principal={entry.principal} people={[...access.people, ...access.inTeams]} onWhy={onWhy} />
      )}
      {isEdited && <EntryEditor entry={entry} node={node} onDone={() => setEdited(false)} />}
    </li>
  )
}

/** One line for each place that something comes from. */
const Sources = ({ entry }: { readonly entry: Entry }) => (
  <>
    {entry.grants.map((grant, index) => (
      <span key={grant.id} className="quiet block text-sm">
        {index === 0 && entry.principal.includes(':') && !entry.principal.startsWith('person:')
          ? `${peopleWords(entry.people)} · `
          : ''}
        <Source grant={grant} isAlone={entry.grants.length === 1} />
      </span>
    ))}
  </>
)

function Source({ grant, isAlone }: { readonly grant: GrantView; readonly isAlone: boolean }) {
  const levelName = useLevelName()
  const { timeZone } = useHere().workspace
  return (
    <>
      {!isAlone && `${levelName(grant.actions)} `}
      {grant.isHere ? 'on this place' : `inherited from ${grant.at?.name ?? 'a place above'}`}
      {grant.isWaiting && grant.from !== null && (
        <span className="text-warning">
          {' · '}starts <Day at={grant.from} />
        </span>
      )}
      {grant.until !== null && (
        <>
          {' · '}
          <Through until={grant.until} timeZone={timeZone} />
        </>
      )}
    </>
  )
}
