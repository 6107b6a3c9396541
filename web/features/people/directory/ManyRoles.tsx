import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { HolderView } from '#contract/views/roles.ts'
import { isAsleep } from '#core/levels/privilege.ts'
import { privilegesListed } from '#core/words/privilege.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { useHoldersQuery, useRolesQuery } from '../../../api/roles.ts'
import { nounFor, peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Drafted } from '../../../ui/Drafted.tsx'
import { Deciding, type FormProps } from './ManyForm.tsx'

/** One role for many people, over one scope, besides what they hold or instead of another role. */
export function AssignRole({ people, ...props }: FormProps) {
  const { slug, workspace } = useHere()
  const [chosen, setChosen] = useState(workspace.roles[0]?.id ?? '')
  const [over, setOver] = useState('')
  const [instead, setInstead] = useState('')
  const { data: holders = [] } = useHoldersQuery({ slug, id: chosen }, { skip: chosen === '' })
  const { data: leaving = [] } = useHoldersQuery({ slug, id: instead }, { skip: instead === '' })
  const role = workspace.roles.find(each => each.id === chosen)
  if (role === undefined) return <p>There is no role that you can assign.</p>
  const scope = over === '' ? ({ over: 'workspace' } as const) : ({ over: 'team', team: over } as const)
  const ids = new Set(people.map(each => each.id))
  const holding = holdersOver(holders, scope)
  const coming = people.filter(each => !holding.has(each.id))
  const edits: EditRequest[] = [
    ...leaving
      .filter(each => ids.has(each.person.id) && each.mayTake)
      .map(({ holding: id }) => ({ kind: 'role.unassign', holding: id }) as const),
    ...coming.map(
      ({ id }) =>
        ({ kind: 'role.assign', person: id, role: role.id, scope, from: null, until: null }) as const,
    ),
  ]
  const label =
    instead === ''
      ? `Assign ${role.name} to ${peopleWords(coming.length)}`
      : `Change the role of ${peopleWords(people.length)}`
  const confirmation = `${role.name} is assigned to ${peopleWords(people.length)}.`
  return (
    <Drafted
      decision={
        edits.length === 0 ? null : (
          <Deciding {...props} people={people} edits={edits} label={label} confirmation={confirmation} />
        )
      }
    >
      <Choices {...{ chosen, setChosen, over, setOver, instead, setInstead }} />
      <p className="text-sm">{role.note}</p>
      {coming.length < people.length && (
        <p className="text-sm text-warning">
          {peopleWords(people.length - coming.length)} already{' '}
          {nounFor(people.length - coming.length, 'holds', 'hold')} it.
        </p>
      )}
      <Asleep role={chosen} isNarrow={over !== ''} />
    </Drafted>
  )
}

const holdersOver = (holders: readonly HolderView[], scope: HolderView['scope']): ReadonlySet<string> =>
  new Set(
    holders.filter(each => JSON.stringify(each.scope) === JSON.stringify(scope)).map(each => each.person.id),
  )

interface ChoicesProps {
  readonly chosen: string
  readonly setChosen: (role: string) => void
  readonly over: string
  readonly setOver: (team: string) => void
  readonly instead: string
  readonly setInstead: (role: string) => void
}

function Choices({ chosen, setChosen, over, setOver, instead, setInstead }: ChoicesProps) {
  const { slug, workspace } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const roles = workspace.roles.map(({ id, name }) => ({ value: id, name }))
  return (
    <>
      <Choice label="Role to assign" value={chosen} options={roles} onValue={setChosen} />
      <Choice
        label="Scope"
        value={over}
        options={[
          { value: '', name: 'the whole workspace' },
          ...teams
            .filter(each => !each.isArchived)
            .map(({ id, name }) => ({ value: id, name: `the people of ${name}` })),
        ]}
        onValue={setOver}
      />
      <Choice
        label="Instead of"
        value={instead}
        options={[
          { value: '', name: 'none: in addition to their roles' },
          ...roles.filter(each => each.value !== chosen),
        ]}
        onValue={setInstead}
      />
    </>
  )
}

/** What of a role has no effect over the people of a team. */
function Asleep({ role, isNarrow }: { readonly role: string; readonly isNarrow: boolean }) {
  const { slug, workspace } = useHere()
  const { data } = useRolesQuery(slug, { skip: !workspace.me.privileges.includes('view roles') })
  const held = data?.roles.find(each => each.id === role)?.privileges ?? []
  const asleep = isNarrow ? held.filter(each => isAsleep(each, 'team')) : []
  return asleep.length === 0 ? null : (
    <p className="border-l-4 border-warning pl-3 text-sm">
      No effect in this scope: {privilegesListed(asleep, 40)}.
    </p>
  )
}
