import { useState } from 'react'
import { Link } from 'react-router'
import { endOfDay, startOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { TeamPersonView, TeamView } from '#contract/views/teams.ts'
import { peopleWords } from '#core/words/english.ts'
import { usePeopleNamesQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { Through } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { Span } from '../../ui/Span.tsx'
import { AddMany } from './AddMany.tsx'

/** An act that is about to be decided: whom it is about, and what it is. */
interface Act {
  readonly person: string
  readonly edit: EditRequest
  readonly label: string
  readonly confirmation: string
}

interface Part {
  readonly team: TeamView
  readonly onAct: (act: Act | undefined) => void
}

/** Who is in a team, and what its leads may do about it: each act with what it opens and closes first. */
export function TeamPeople({ team }: { readonly team: TeamView }) {
  const [act, onAct] = useState<Act>()
  const [isMany, setMany] = useState(false)
  const mayFill = team.mayManage && !team.keptByDirectory && team.joining !== 'everyone'
  const leads = team.people.filter(person => person.lead && person.status === 'active').length
  const isNew = act !== undefined && !team.people.some(person => person.id === act.person)
  return (
    <section aria-label="People in the team">
      <h3 className="mb-1 font-bold">{peopleWords(team.people.length)}</h3>
      {leads === 1 && team.mayManage && (
        <p className="mb-2 text-sm text-warning">Only one lead. Make somebody else a lead too.</p>
      )}
      {mayFill && <AddPerson team={team} onAct={onAct} />}
      {mayFill && !isMany && (
        <button type="button" className="btn-inline mt-1 text-sm" onClick={() => setMany(true)}>
          Add several people …
        </button>
      )}
      {isMany && <AddMany team={team} onDone={() => setMany(false)} />}
      {isNew && <Deciding key={act.label} act={act} onDone={() => onAct(undefined)} />}
      <ul className="mt-2">
        {team.people.map(person => (
          <li key={person.id} className="border-t border-base-300 py-1.5">
            <TeamPerson person={person} team={team} onAct={onAct} />
            {act?.person === person.id && (
              <Deciding key={act.label} act={act} onDone={() => onAct(undefined)} />
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Acts on a team or its people that take access away. */
const takesAway: ReadonlySet<string> = new Set(['member.remove', 'team.delete'])

/** What an act on a membership does, and the act. */
export function Deciding({ act, onDone }: { readonly act: Act; readonly onDone: () => void }) {
  const { timeZone } = useHere().workspace
  const [from, setFrom] = useState('')
  const [through, setThrough] = useState('')
  const isAdding = act.edit.kind === 'member.add'
  const span = {
    from: from === '' ? null : startOfDay(from, timeZone),
    until: through === '' ? null : endOfDay(through, timeZone),
  }
  const edit = act.edit.kind === 'member.add' ? { ...act.edit, ...span } : act.edit
  const decision = useDecision([edit], act.confirmation, onDone)
  return (
    <Decision label={act.label} isDrastic={takesAway.has(act.edit.kind)} onLeave={onDone} {...decision}>
      {isAdding && <Span from={from} through={through} onFrom={setFrom} onThrough={setThrough} />}
    </Decision>
  )
}

export const joining = (team: TeamView, person: string): EditRequest => ({
  kind: 'member.add',
  team: team.id,
  person,
  lead: false,
  from: null,
  until: null,
})

function AddPerson({ team, onAct }: Part) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const inTeam = new Set(team.people.map(person => person.id))
  const options = people
    .filter(person => !inTeam.has(person.id) && (person.kind === 'member' || team.welcomesGuests))
    .map(person => ({
      value: person.id,
      name: person.name,
      note: person.status === 'invited' ? 'invited' : person.kind,
    }))
  return (
    <Combobox
      label={`Add a person to ${team.name}`}
      placeholder="Add a person"
      options={options}
      onChoose={({ value, name }) =>
        onAct({
          person: value,
          edit: joining(team, value),
          label: `Add ${name} to ${team.name}`,
          confirmation: `${name} is added to ${team.name}.`,
        })
      }
    />
  )
}

function TeamPerson({ person, team, onAct }: Part & { readonly person: TeamPersonView }) {
  const { slug, workspace } = useHere()
  return (
    <div className="flex items-baseline justify-between gap-3">
      <span className="min-w-0">
        <Link
          className={`hover:underline ${person.lead ? 'font-bold' : ''}`}
          to={`/at/${slug}/people/${person.id}`}
        >
          {person.name}
        </Link>
        <span className="quiet text-sm">
          {person.lead && ' · lead'}
          {person.kind === 'guest' && ' · guest'}
          {person.status !== 'active' && ` · ${person.status}`}
          {person.until !== null && (
            <>
              {' '}
              · <Through until={person.until} timeZone={workspace.timeZone} />
            </>
          )}
        </span>
      </span>
      <span className="flex shrink-0 gap-3 text-sm">
        {team.mayManage && person.kind === 'member' && <Leading person={person} team={team} onAct={onAct} />}
        {team.joining !== 'everyone' && <Offboarding person={person} team={team} onAct={onAct} />}
      </span>
    </div>
  )
}

function Leading({ person, team, onAct }: Part & { readonly person: TeamPersonView }) {
  const word = person.lead ? 'Remove as lead' : 'Make lead'
  return (
    <button
      type="button"
      className="btn-inline"
      aria-label={`${word}: ${person.name}`}
      onClick={() =>
        onAct({
          person: person.id,
          edit: { kind: 'member.change', team: team.id, person: person.id, lead: !person.lead },
          label: person.lead ? `Remove ${person.name} as lead` : `Make ${person.name} a lead`,
          confirmation: `${person.name} is ${person.lead ? 'no longer a' : 'now a'} lead of ${team.name}.`,
        })
      }
    >
      {word}
    </button>
  )
}

function Offboarding({ person, team, onAct }: Part & { readonly person: TeamPersonView }) {
  const { workspace } = useHere()
  const isMe = person.id === workspace.me.id
  if (!isMe && !team.mayManage) return null
  return (
    <button
      type="button"
      className="btn-inline"
      aria-label={isMe ? `Leave ${team.name}` : `Remove: ${person.name}`}
      onClick={() =>
        onAct({
          person: person.id,
          edit: { kind: 'member.remove', team: team.id, person: person.id },
          label: isMe ? 'Leave team' : `Remove ${person.name}`,
          confirmation: `${person.name} is removed from ${team.name}.`,
        })
      }
    >
      {isMe ? 'Leave' : 'Remove'}
    </button>
  )
}
