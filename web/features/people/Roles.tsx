import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { HoldingView, KeepingView, PersonView } from '#contract/people-views.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'

/** The roles that somebody holds; given and taken by those who assign roles, each as far as they may. */
interface Props {
  readonly person: PersonView
  readonly keeping: KeepingView
}

export function Roles({ person, keeping }: Props) {
  const [taken, setTaken] = useState<HoldingView>()
  const [isGiving, setGiving] = useState(false)
  const mayAssign = keeping.may.includes('assign')
  return (
    <>
      <ul>
        {keeping.roles.map(holding => (
          <li key={holding.id} className="flex items-baseline justify-between gap-2 py-0.5">
            <span>
              {holding.name}
              {holding.over !== null && <span className="quiet"> over {holding.over}</span>}
            </span>
            {mayAssign && keeping.roles.length > 1 && (
              <button
                type="button"
                className="act text-sm"
                aria-label={`Take: ${holding.name}`}
                onClick={() => setTaken(taken === holding ? undefined : holding)}
              >
                Take
              </button>
            )}
          </li>
        ))}
      </ul>
      {taken !== undefined && (
        <Taking key={taken.id} person={person} holding={taken} onDone={() => setTaken(undefined)} />
      )}
      {mayAssign && person.kind === 'member' && person.status !== 'invited' && !isGiving && (
        <button type="button" className="act text-sm" onClick={() => setGiving(true)}>
          Give another role
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
  const edit: EditRequest = { kind: 'role.take', holding: holding.id }
  const decision = useDecision([edit], `${person.name} is no longer ${holding.name}.`, onDone)
  return <Decision act={`Take the role ${holding.name}`} onLeave={onDone} {...decision} />
}

function Giving({ person, onDone }: Part) {
  const { workspace } = useHere()
  const held = new Set(
    (person.keeping?.roles ?? []).filter(each => each.over === null).map(each => each.role),
  )
  const offered = workspace.roles.filter(role => !held.has(role.id))
  const [chosen, setChosen] = useState(offered[0]?.id)
  const role = offered.find(each => each.id === chosen)
  if (role === undefined) return <p className="quiet text-sm">There is no other role that you may give.</p>
  return (
    <div className="mt-1">
      <select
        className="choice"
        aria-label="Role to give"
        value={role.id}
        onChange={event => setChosen(event.target.value)}
      >
        {offered.map(each => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </select>
      <GivingRole key={role.id} person={person} role={role} onDone={onDone} />
    </div>
  )
}

function GivingRole({
  person,
  role,
  onDone,
}: Part & { readonly role: { readonly id: string; readonly name: string; readonly note: string } }) {
  const scope = { over: 'workspace' } as const
  const edit: EditRequest = {
    kind: 'role.give',
    person: person.id,
    role: role.id,
    scope,
    from: null,
    until: null,
  }
  const decision = useDecision([edit], `${person.name} is ${role.name} now.`, onDone)
  return (
    <Decision act={`Give the role ${role.name}`} onLeave={onDone} {...decision}>
      <p className="text-sm">{role.note}</p>
    </Decision>
  )
}
