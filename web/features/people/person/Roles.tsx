import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import { endOfDay, startOfDay } from '#contract/dates.ts'
import type {
  HoldingView,
  ManagedView,
  PersonDetailView,
  PersonView,
  PowerView,
} from '#contract/views/people.ts'
import type { RoleToAssignView } from '#contract/views/roles.ts'
import { counted } from '#core/words/english.ts'
import { privilegesListed, privilegeWords } from '#core/words/privilege.ts'
import { useRolesToAssignQuery } from '../../../api/roles.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { Span } from '../../../ui/Span.tsx'
import { When } from '../../../ui/When.tsx'

/** The roles that somebody holds; given and taken by those who assign roles, each as far as they may. */
interface Props {
  readonly person: PersonDetailView
  readonly managed: ManagedView
}

export function Roles({ person, managed }: Props) {
  const { timeZone } = useHere().workspace
  const [taken, setTaken] = useState<HoldingView>()
  const [isGiving, setGiving] = useState(false)
  const mayAssign = managed.may.includes('assign')
  return (
    <>
      <ul className="mb-1">
        {managed.roles.map(holding => (
          <li
            key={holding.id}
            className="flex items-baseline justify-between gap-2 border-t border-base-300 py-1"
          >
            <span>
              {holding.name}
              {holding.over !== null && <span className="quiet"> over {holding.over}</span>}
              <When from={holding.from} until={holding.until} timeZone={timeZone} />
            </span>
            {person.takeable.includes(holding.id) && managed.roles.length > 1 && (
              <button
                type="button"
                className="btn-inline text-sm"
                aria-label={`Remove: ${holding.name}`}
                onClick={() => setTaken(taken === holding ? undefined : holding)}
              >
                Remove
              </button>
            )}
          </li>
        ))}
      </ul>
      {taken !== undefined && (
        <Taking key={taken.id} person={person} holding={taken} onDone={() => setTaken(undefined)} />
      )}
      {mayAssign && person.kind === 'member' && person.status !== 'invited' && !isGiving && (
        <button type="button" className="btn-inline mr-4 text-sm" onClick={() => setGiving(true)}>
          Assign role …
        </button>
      )}
      {isGiving && <Giving person={person} onDone={() => setGiving(false)} />}
    </>
  )
}

interface Part {
  readonly person: PersonView
  readonly onDone: () => void
}

function Taking({ person, holding, onDone }: Part & { readonly holding: HoldingView }) {
  const edit: EditRequest = { kind: 'role.unassign', holding: holding.id }
  const decision = useDecision([edit], `The role ${holding.name} is removed from ${person.name}.`, onDone)
  return <Decision label={`Remove the role ${holding.name}`} isDrastic onLeave={onDone} {...decision} />
}

/** A role over a scope, each pair among what may be given to this person. */
function Giving({ person, onDone }: Part) {
  const { slug } = useHere()
  const { data: roles } = useRolesToAssignQuery({ slug, id: person.id })
  const [chosen, setChosen] = useState<string>()
  const [over, setOver] = useState('')
  const held = new Set(
    (person.managed?.roles ?? []).filter(each => each.over === null).map(each => each.role),
  )
  const offered = (roles ?? []).filter(role => !held.has(role.id)).toReversed()
  const role = offered.find(each => each.id === chosen) ?? offered[0]
  if (roles === undefined) return null
  if (role === undefined) return <p className="quiet text-sm">There is no other role that you can assign.</p>
  const scope = role.scopes.find(each => each.name === over) ?? role.scopes[0]
  if (scope === undefined) return null
  return (
    <GivingRole person={person} role={role} scope={scope} onDone={onDone}>
      <Choice
        label="Role to assign"
        value={role.id}
        options={offered.map(({ id, name }) => ({ value: id, name }))}
        onValue={setChosen}
      />
      <Choice
        label="Scope"
        value={scope.name}
        options={role.scopes.map(({ name }) => ({ value: name, name: overNamed(name) }))}
        onValue={setOver}
      />
    </GivingRole>
  )
}

const overNamed = (name: string) =>
  name === 'the whole workspace' || name === 'guests' ? name : `the people of ${name}`

interface GivingRoleProps extends Part {
  readonly role: RoleToAssignView
  readonly scope: RoleToAssignView['scopes'][number]
  readonly children: React.ReactNode
}

function GivingRole({ person, role, scope, onDone, children }: GivingRoleProps) {
  const { timeZone } = useHere().workspace
  const [from, setFrom] = useState('')
  const [through, setThrough] = useState('')
  const edit: EditRequest = {
    kind: 'role.assign',
    person: person.id,
    role: role.id,
    scope: scope.scope,
    from: from === '' ? null : startOfDay(from, timeZone),
    until: through === '' ? null : endOfDay(through, timeZone),
  }
  const decision = useDecision([edit], `The role ${role.name} is assigned to ${person.name}.`, onDone)
  return (
    <Decision label={`Assign the role ${role.name}`} onLeave={onDone} {...decision}>
      {children}
      <Span from={from} through={through} onFrom={setFrom} onThrough={setThrough} />
      {role.note !== '' && <p className="text-sm">{role.note}</p>}
      {scope.asleep.length > 0 && (
        <p className="border-l-4 border-warning pl-3 text-sm">
          No effect in this scope: {privilegesListed(scope.asleep, 40)}. These privileges need the whole
          workspace as scope.
        </p>
      )}
    </Decision>
  )
}

/** The sum of what somebody’s roles let them do, each with where it comes from. */
export function Powers({ powers }: { readonly powers: readonly PowerView[] }) {
  const [isOpen, setOpen] = useState(false)
  const awake = powers.filter(({ from }) => from.some(each => !each.isAsleep))
  if (powers.length === 0) return <p className="quiet text-sm">Their roles have no privileges.</p>
  return (
    <>
      <button
        type="button"
        className="btn-inline text-sm"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? 'Hide privileges' : `Show ${counted(awake.length, 'privilege', 'privileges')}`}
      </button>
      {isOpen && (
        <ul className="mt-1 text-sm" aria-label="Privileges">
          {powers.map(({ privilege, from }) => (
            <li key={privilege} className="border-t border-base-300 py-1">
              <span className="block first-letter:uppercase">{privilegeWords[privilege]}</span>
              <span className="quiet">{from.map(sourceWords).join(' · ')}</span>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

const sourceWords = ({ role, over, isAsleep }: PowerView['from'][number]) =>
  `${role}${over === null ? '' : ` over ${over}`}${isAsleep ? ' (no effect there)' : ''}`
