import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { PersonName } from '#contract/views/names.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { listed, peopleWords } from '#core/words/english.ts'
import { usePeopleNamesQuery, useTeamsQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { TextArea } from '../../ui/TextArea.tsx'
import { DayField } from '../../ui/DayField.tsx'
import { Tick } from '../../ui/Tick.tsx'

const ways = ['tick', 'paste', 'from a team'] as const

/** Several people into a team in one act: ticked, pasted, or those of another team. */
export function AddMany({ team, onDone }: { readonly team: TeamView; readonly onDone: () => void }) {
  const { slug, workspace } = useHere()
  const { data: names = [] } = usePeopleNamesQuery(slug)
  const [way, setWay] = useState<(typeof ways)[number]>('tick')
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [through, setThrough] = useState('')
  const inTeam = new Set(team.people.map(person => person.id))
  const open = names.filter(
    person => !inTeam.has(person.id) && (person.kind === 'member' || team.welcomesGuests),
  )
  const meant = open.filter(person => chosen.has(person.id))
  const until = through === '' ? null : endOfDay(through, workspace.timeZone)
  return (
    <div className="mt-2 grid gap-3 bg-base-200 p-3">
      <FilterWords label="How" words={ways} chosen={way} onChoose={setWay} />
      {way === 'tick' && <TickList people={open} chosen={chosen} onChosen={setChosen} />}
      {way === 'paste' && <Pasted people={names} inTeam={inTeam} onChosen={setChosen} />}
      {way === 'from a team' && <FromTeam team={team} onChosen={setChosen} />}
      <DayField label="Ends after" hint="Empty: no end." value={through} onValue={setThrough} />
      {meant.length === 0 ? (
        <button type="button" className="btn-plain justify-self-end" onClick={onDone}>
          Cancel
        </button>
      ) : (
        <Deciding team={team} people={meant} until={until} onDone={onDone} />
      )}
    </div>
  )
}

interface DecidingProps {
  readonly team: TeamView
  readonly people: readonly PersonName[]
  readonly until: number | null
  readonly onDone: () => void
}

function Deciding({ team, people, until, onDone }: DecidingProps) {
  const edits = people.map(({ id: person }): EditRequest => ({
    kind: 'member.add',
    team: team.id,
    person,
    lead: false,
    from: null,
    until,
  }))
  const count = peopleWords(people.length)
  const decision = useDecision(edits, `${count} added to ${team.name}.`, onDone)
  return <Decision label={`Add ${count} to ${team.name}`} onLeave={onDone} {...decision} />
}

interface Choosing {
  readonly onChosen: (ids: ReadonlySet<string>) => void
}

function TickList({
  people,
  chosen,
  onChosen,
}: Choosing & { readonly people: readonly PersonName[]; readonly chosen: ReadonlySet<string> }) {
  const [find, setFind] = useState('')
  const shown = people.filter(person =>
    `${person.name} ${person.mail}`.toLowerCase().includes(find.toLowerCase()),
  )
  const tick = (id: string, isOn: boolean) =>
    onChosen(isOn ? new Set([...chosen, id]) : new Set([...chosen].filter(each => each !== id)))
  return (
    <>
      <input
        className="field"
        aria-label="Find people who are not in the team"
        placeholder="Name or address"
        value={find}
        onChange={event => setFind(event.target.value)}
      />
      <ul aria-label="Not in the team" tabIndex={0} className="grid max-h-56 gap-1 overflow-y-auto">
        {shown.slice(0, 300).map(person => (
          <li key={person.id}>
            <Tick isOn={chosen.has(person.id)} onTick={isOn => tick(person.id, isOn)}>
              {person.name}
              {person.status === 'invited' && <span className="quiet"> · invited</span>}
              {person.kind === 'guest' && <span className="quiet"> · guest</span>}
            </Tick>
          </li>
        ))}
      </ul>
    </>
  )
}

/** Names, addresses or both, in any shape; each found or told. */
function Pasted({
  people,
  inTeam,
  onChosen,
}: Choosing & { readonly people: readonly PersonName[]; readonly inTeam: ReadonlySet<string> }) {
  const [text, setText] = useState('')
  const parts = partsOf(text)
  const found = parts.map(part => ({ part, person: personFor(part, people) }))
  const missing = found.filter(each => each.person === undefined)
  const there = found.filter(({ person }) => person !== undefined && inTeam.has(person.id))
  const change = (next: string) => {
    setText(next)
    onChosen(new Set(partsOf(next).flatMap(part => personFor(part, people)?.id ?? [])))
  }
  return (
    <>
      <TextArea label="Names or addresses" rows={4} value={text} onValue={change} />
      {there.length > 0 && <p className="quiet text-sm">{there.length} already in the team.</p>}
      {missing.length > 0 && (
        <p className="text-sm text-warning">
          Unknown addresses: {listed(missing.map(each => each.part))}. Invite them under People.
        </p>
      )}
    </>
  )
}

const partsOf = (text: string): string[] =>
  text
    .split(/[,;\n\t]+/)
    .map(part => part.trim())
    .filter(Boolean)

function personFor(part: string, people: readonly PersonName[]): PersonName | undefined {
  const wanted = (/<([^<>]+)>/.exec(part)?.[1] ?? part).toLowerCase()
  return people.find(({ mail, name }) => mail.toLowerCase() === wanted || name.toLowerCase() === wanted)
}

function FromTeam({ team, onChosen }: Choosing & { readonly team: TeamView }) {
  const { slug } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const [from, setFrom] = useState('')
  const others = teams.filter(each => each.id !== team.id && each.people.length > 0)
  const take = (id: string) => {
    setFrom(id)
    onChosen(new Set(others.find(each => each.id === id)?.people.map(person => person.id)))
  }
  return (
    <Choice
      label="Everybody in"
      value={from}
      options={[{ value: '', name: 'Choose a team' }, ...others.map(({ id, name }) => ({ value: id, name }))]}
      onValue={take}
    />
  )
}
