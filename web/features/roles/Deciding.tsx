import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { RequestView, RoleWantedView } from '#contract/views/requests.ts'
import type { RoleToAssignView } from '#contract/views/roles.ts'
import { isAsleep } from '#core/levels/privilege.ts'
import { useRolesToAssignQuery } from '../../api/roles.ts'
import { useChange } from '../../api/use-change.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { ActOrLeave } from '../../ui/ActOrLeave.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { Sentences } from '../../ui/Sentences.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { DayField } from '../../ui/DayField.tsx'

interface Props {
  readonly request: RequestView<RoleWantedView>
  readonly onDone: () => void
}

/** A request decided in one act: given by a role over a scope, with what it does, or declined with a word. */
export function Deciding({ request, onDone }: Props) {
  const { slug } = useHere()
  const { data: roles } = useRolesToAssignQuery({ slug, id: request.person.id })
  const [way, setWay] = useState<'Accept' | 'Decline'>('Accept')
  if (roles === undefined) return null
  const options = optionsFor(request, roles)
  return (
    <div className="mt-1">
      <FilterWords label="Decision" words={['Accept', 'Decline']} chosen={way} onChoose={setWay} />
      {way === 'Decline' && <Declining request={request} onDone={onDone} />}
      {way === 'Accept' && options.length === 0 && (
        <p className="mt-2 bg-base-200 p-3">
          No role that you can assign gives exactly this. Create a role, or decline the request.
        </p>
      )}
      {way === 'Accept' && options.length > 0 && (
        <Choosing request={request} options={options} onDone={onDone} />
      )}
    </div>
  )
}

interface Option {
  readonly value: string
  readonly name: string
  readonly role: RoleToAssignView
  readonly scope: RoleToAssignView['scopes'][number]
}

/** Roles that answer the request where they have effect, the smallest first. */
const optionsFor = ({ wants }: RequestView<RoleWantedView>, roles: readonly RoleToAssignView[]): Option[] =>
  roles
    .filter(role =>
      wants.of === 'role' ? role.id === wants.role.id : role.privileges.includes(wants.privilege),
    )
    .toSorted((a, b) => a.privileges.length - b.privileges.length)
    .flatMap(role =>
      role.scopes
        .filter(({ scope }) => wants.of === 'role' || !isAsleep(wants.privilege, scope.over))
        .map(scope => ({
          value: `${role.id} ${JSON.stringify(scope.scope)}`,
          name: `${role.name} over ${scope.name}`,
          role,
          scope,
        })),
    )

function Choosing({ request, options, onDone }: Props & { readonly options: readonly Option[] }) {
  const { timeZone } = useHere().workspace
  const [chosen, setChosen] = useState(options[0]?.value ?? '')
  const [through, setThrough] = useState('')
  const option = options.find(each => each.value === chosen)
  if (option === undefined) return null
  const until = through === '' ? null : endOfDay(through, timeZone)
  return (
    <Giving request={request} option={option} until={until} onDone={onDone}>
      <Choice label="Role and scope" value={chosen} options={options} onValue={setChosen} />
      <DayField label="Ends after (empty: no end)" value={through} onValue={setThrough} />
      <Sentences privileges={option.role.privileges} asleep={option.scope.asleep} />
    </Giving>
  )
}

interface GivingProps extends Props {
  readonly option: Option
  readonly until: number | null
  readonly children: React.ReactNode
}

function Giving({ request, option: { role, scope }, until, onDone, children }: GivingProps) {
  const gives = { of: 'role', role: role.id, scope: scope.scope, until } as const
  const decision = useDecision(
    [{ kind: 'request.accept', request: request.id, gives, comment: '' }],
    `The role ${role.name} is assigned to ${request.person.name}.`,
    onDone,
  )
  return (
    <Decision label={`Assign ${role.name} to ${request.person.name}`} onLeave={onDone} {...decision}>
      {children}
    </Decision>
  )
}

function Declining({ request, onDone }: Props) {
  const { slug } = useHere()
  const [comment, setComment] = useState('')
  const { apply, problem, isBusy } = useChange(slug)
  const decline = async () => {
    const { applied } = await apply(
      [{ kind: 'request.decline', request: request.id, comment }],
      `The request of ${request.person.name} is declined.`,
    )
    if (applied !== undefined) onDone()
  }
  return (
    <form className="mt-2 grid gap-3 bg-base-200 p-3" onSubmit={onSubmit(decline)}>
      <TextField
        label={`Message to ${request.person.name}`}
        maxLength={1000}
        value={comment}
        onValue={setComment}
      />
      <ProblemNote problem={problem} />
      <ActOrLeave label="Decline" isDisabled={isBusy} onLeave={onDone} />
    </form>
  )
}
