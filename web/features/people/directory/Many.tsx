import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { PersonName } from '#contract/views/names.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { usePeopleNamesQuery, useTeamsQuery } from '../../../api/api.ts'
import { callOf } from '../../../api/call.ts'
import { counted, listed, peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Drafted } from '../../../ui/Drafted.tsx'
import { Panel } from '../../../ui/Panel.tsx'
import { DayField } from '../../../ui/DayField.tsx'
import { Tick } from '../../../ui/Tick.tsx'
import { Deciding, type FormProps } from './ManyForm.tsx'
import { AssignRole } from './ManyRoles.tsx'
import type { Selection } from './selection.ts'
import { useFilter } from './use-filter.ts'

/** Acts on many people at once: each with what it does first. */
const acts = {
  team: 'Add to team …',
  role: 'Assign role …',
  end: 'Set end …',
  renew: 'Send again …',
  withdraw: 'Withdraw …',
  suspend: 'Suspend …',
  resume: 'Reactivate …',
  remove: 'Remove …',
} as const
export type ManyAct = keyof typeof acts

interface BarProps {
  readonly selection: Selection
  readonly act: ManyAct | undefined
  readonly onAct: (act: ManyAct | undefined) => void
}

/** What stands below the list: how many are selected, and what can be done with them. */
export function ManyBar({ selection, act, onAct }: BarProps) {
  const { slug, workspace } = useHere()
  const { filter } = useFilter()
  const { privileges } = workspace.me
  const { data: teams = [] } = useTeamsQuery(slug)
  const mayFill = teams.some(team => team.mayManage)
  const mayInvite = privileges.some(each => each === 'invite members' || each === 'invite guests')
  const offered = (Object.keys(acts) as ManyAct[]).filter(each => {
    if (each === 'renew' || each === 'withdraw') return mayInvite
    if (each === 'role') return privileges.includes('assign roles')
    if (each === 'remove') return privileges.includes('remove')
    return each === 'team' ? mayFill : privileges.includes('suspend')
  })
  return (
    <div
      role="toolbar"
      aria-label="With the selected people"
      className="-mx-4 flex min-h-10 flex-wrap items-center gap-x-4 gap-y-1 border-t border-base-300 bg-base-200 px-4 py-1.5 text-sm"
    >
      {selection.ids.size === 0 ? (
        <span className="quiet">Select people to change several at once. Hold Shift to select a range.</span>
      ) : (
        <>
          <strong className="tabular-nums">{selection.ids.size} selected</strong>
          {offered.map(each => (
            <button
              key={each}
              type="button"
              className={`btn-inline ${each === act ? 'font-bold' : ''}`}
              aria-expanded={each === act}
              onClick={() => onAct(each === act ? undefined : each)}
            >
              {acts[each]}
            </button>
          ))}
          <button type="button" className="btn-inline" onClick={selection.clear}>
            Clear selection
          </button>
        </>
      )}
      <a className="link ml-auto" href={`/api${callOf('peopleCsv', { slug, ...filter }).path}`} download>
        Export CSV
      </a>
    </div>
  )
}

interface Props {
  readonly act: ManyAct
  readonly ids: ReadonlySet<string>
  readonly onClose: () => void
  readonly onDone: () => void
}

export function Many({ act, ids, onClose, onDone }: Props) {
  const { slug } = useHere()
  const { data: names = [] } = usePeopleNamesQuery(slug)
  const people = names.filter(({ id }) => ids.has(id))
  const meant = people.filter(fits[act])
  const passed = people.length - meant.length
  const Form = forms[act]
  return (
    <Panel title={acts[act].replace(' …', '')} onClose={onClose}>
      <p className="mb-2">
        {peopleWords(meant.length)}: <span className="quiet">{namesOf(meant)}</span>
      </p>
      {passed > 0 && (
        <p className="mb-2 text-sm text-warning">
          {counted(passed, 'selected person is', 'selected people are')} skipped: {passedWords[act]}.
        </p>
      )}
      {meant.length > 0 && <Form people={meant} onLeave={onClose} onDone={onDone} />}
    </Panel>
  )
}

const isHere = ({ status }: PersonName) => status === 'active'
const isInvited = ({ status }: PersonName) => status === 'invited'
const isSuspended = ({ status }: PersonName) => status === 'suspended'

const fits: Readonly<Record<ManyAct, (person: PersonName) => boolean>> = {
  team: () => true,
  role: ({ kind }) => kind === 'member',
  end: () => true,
  renew: isInvited,
  withdraw: isInvited,
  suspend: isHere,
  resume: isSuspended,
  remove: person => !isInvited(person),
}

const passedWords: Readonly<Record<ManyAct, string>> = {
  team: '',
  role: 'guests can hold no other role than Guest',
  end: '',
  renew: 'they have no open invitation',
  withdraw: 'they have no open invitation',
  suspend: 'they are not active',
  resume: 'they are not suspended',
  remove: 'they are only invited, withdraw their invitation',
}

const namesOf = (people: readonly PersonName[]): string =>
  listed(
    people.map(person => person.name),
    8,
  )

interface SimpleAct {
  readonly label: (who: string) => string
  readonly confirmation: (who: string) => string
  readonly edit: (person: string) => EditRequest
  readonly isDrastic?: boolean
}

const simple = ({ label, confirmation, edit, isDrastic = false }: SimpleAct) =>
  function Simple(props: FormProps) {
    const who = peopleWords(props.people.length)
    return (
      <Deciding
        {...props}
        edits={props.people.map(({ id }) => edit(id))}
        label={label(who)}
        confirmation={confirmation(who)}
        isDrastic={isDrastic}
      />
    )
  }

function IntoTeam({ people, ...props }: FormProps) {
  const { slug } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const offered = teams.filter(team => team.mayManage && team.joining !== 'everyone' && !team.keptByDirectory)
  const [to, setTo] = useState('')
  const [from, setFrom] = useState('')
  const team = offered.find(each => each.id === to)
  const left = offered.find(each => each.id === from)
  const edits = team === undefined ? [] : movesInto(people, team, left)
  const options = offered.map(({ id, name }) => ({ value: id, name }))
  const coming = peopleWords(edits.filter(edit => edit.kind === 'member.add').length)
  const name = team?.name ?? ''
  const label = left === undefined ? `Add ${coming} to ${name}` : `Move them to ${name}`
  const confirmation = `${coming} added to ${name}.`
  return (
    <Drafted
      decision={
        edits.length === 0 ? null : (
          <Deciding {...props} people={people} edits={edits} label={label} confirmation={confirmation} />
        )
      }
    >
      <Choice
        label="Add to team"
        value={to}
        options={[{ value: '', name: 'Choose a team' }, ...options]}
        onValue={setTo}
      />
      <Choice
        label="Remove from team"
        value={from}
        options={[{ value: '', name: 'none' }, ...options.filter(each => each.value !== to)]}
        onValue={setFrom}
      />
      {team !== undefined && edits.length === 0 && <p>All of them are already in {name}.</p>}
    </Drafted>
  )
}

function movesInto(people: readonly PersonName[], to: TeamView, from: TeamView | undefined): EditRequest[] {
  const isIn = (team: TeamView, { id }: PersonName) => team.people.some(each => each.id === id)
  return [
    ...people
      .filter(person => !isIn(to, person))
      .map(
        ({ id: person }) =>
          ({ kind: 'member.add', team: to.id, person, lead: false, from: null, until: null }) as const,
      ),
    ...(from === undefined ? [] : people.filter(person => isIn(from, person))).map(
      ({ id: person }) => ({ kind: 'member.remove', team: from?.id ?? '', person }) as const,
    ),
  ]
}

function SetEnd({ people, ...props }: FormProps) {
  const { timeZone } = useHere().workspace
  const [through, setThrough] = useState('')
  const [isOpen, setOpen] = useState(false)
  const until = isOpen || through === '' ? null : endOfDay(through, timeZone)
  const who = peopleWords(people.length)
  const isChosen = isOpen || through !== ''
  const edits = people.map(({ id: person }) => ({ kind: 'person.end', person, until }) as const)
  const label = until === null ? `Remove the end for ${who}` : `Set the end for ${who}`
  const confirmation = `The end is ${until === null ? 'removed' : 'set'} for ${who}.`
  return (
    <Drafted
      decision={
        isChosen ? (
          <Deciding {...props} people={people} edits={edits} label={label} confirmation={confirmation} />
        ) : null
      }
    >
      <DayField label="Ends after" disabled={isOpen} value={through} onValue={setThrough} />
      <Tick isOn={isOpen} onTick={setOpen}>
        No end
      </Tick>
    </Drafted>
  )
}

const forms: Readonly<Record<ManyAct, (props: FormProps) => React.ReactNode>> = {
  team: IntoTeam,
  role: AssignRole,
  end: SetEnd,
  renew: simple({
    label: who => `Send the invitation to ${who} again`,
    confirmation: who => `The invitation was sent again to ${who}.`,
    edit: person => ({ kind: 'invitation.renew', person }),
  }),
  withdraw: simple({
    label: who => `Withdraw the invitation of ${who}`,
    confirmation: who => `The invitation of ${who} is withdrawn.`,
    edit: person => ({ kind: 'invitation.withdraw', person }),
    isDrastic: true,
  }),
  suspend: simple({
    label: who => `Suspend ${who}`,
    confirmation: who => `Suspended: ${who}.`,
    edit: person => ({ kind: 'person.suspend', person }),
    isDrastic: true,
  }),
  resume: simple({
    label: who => `Reactivate ${who}`,
    confirmation: who => `Reactivated: ${who}.`,
    edit: person => ({ kind: 'person.reactivate', person }),
  }),
  remove: simple({
    label: who => `Remove ${who}`,
    confirmation: who => `Removed: ${who}.`,
    edit: person => ({ kind: 'person.remove', person }),
    isDrastic: true,
  }),
}
