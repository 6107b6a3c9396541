import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { HolderView, RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { counted, listed, peopleWords } from '#core/words/english.ts'
import { useHoldersQuery } from '../../api/roles.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Decision } from '../../ui/Decision.tsx'

interface Props {
  readonly view: RolesView
  readonly role: RoleDetailView
  readonly onLeave: () => void
  readonly onDone: () => void
}

/** Deletes a role that nobody holds; its people are moved to another one first, in the same act. */
export function DeleteRole({ view, role, onLeave, onDone }: Props) {
  const { slug, workspace } = useHere()
  const { data: holders } = useHoldersQuery({ slug, id: role.id })
  const offered = view.roles.filter(
    each => each.id !== role.id && workspace.roles.some(mine => mine.id === each.id),
  )
  const [to, setTo] = useState(workspace.defaultRole)
  if (holders === undefined) return null
  const stands = [
    ...(role.isDefault ? ['new members get it (Settings, General)'] : []),
    ...(role.asksTwoStep ? ['two-step sign-in is required for it (Settings, Sign-in security)'] : []),
    ...(role.offeredBy.length > 0
      ? [`it is used by ${listed(role.offeredBy)} (People, Join links and welcome sets)`]
      : []),
  ]
  if (stands.length > 0)
    return (
      <div className="mb-4 bg-base-200 p-3">
        <p>This role cannot be deleted yet: {listed(stands)}. Change this first.</p>
        <button type="button" className="btn-plain mt-2" onClick={onLeave}>
          Close
        </button>
      </div>
    )
  return (
    <Deciding
      role={role}
      to={holders.length === 0 ? undefined : to}
      holders={holders}
      onLeave={onLeave}
      onDone={onDone}
    >
      {holders.length > 0 && (
        <Choice
          label={`${counted(role.people, 'holder gets', 'holders get')} instead`}
          value={to}
          options={offered.map(({ id, name }) => ({ value: id, name }))}
          onValue={setTo}
        />
      )}
    </Deciding>
  )
}

interface DecidingProps extends Omit<Props, 'view'> {
  readonly to: string | undefined
  readonly holders: readonly HolderView[]
  readonly children: React.ReactNode
}

function Deciding({ role, to, holders, onLeave, onDone, children }: DecidingProps) {
  const { slug } = useHere()
  // Who holds the other role over the same already only loses this one.
  const { data: others = [] } = useHoldersQuery({ slug, id: to ?? role.id })
  const edits: EditRequest[] = [
    ...holders.map(({ holding }) => ({ kind: 'role.unassign', holding }) as const),
    ...(to === undefined ? [] : movedTo(to, holders, others)),
    { kind: 'role.delete', role: role.id },
  ]
  const decision = useDecision(edits, `The role ${role.name} is deleted.`, onDone)
  const label = holders.length === 0 ? 'Delete role' : `Move ${peopleWords(role.people)} and delete role`
  return (
    <div className="mb-4">
      <Decision label={label} isDrastic onLeave={onLeave} {...decision}>
        {children}
      </Decision>
    </div>
  )
}

const keyOf = ({ person, scope }: HolderView) => `${person.id} ${JSON.stringify(scope)}`

function movedTo(role: string, holders: readonly HolderView[], others: readonly HolderView[]): EditRequest[] {
  const held = new Set(others.map(keyOf))
  return holders
    .filter(holder => !held.has(keyOf(holder)))
    .map(({ person, scope, until }) => ({
      kind: 'role.assign',
      person: person.id,
      role,
      scope,
      from: null,
      until,
    }))
}
