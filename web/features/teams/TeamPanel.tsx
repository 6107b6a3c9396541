import { Fragment } from 'react'
import { Link } from 'react-router'
import type { EditRequest } from '#contract/requests.ts'
import type { TeamPersonView, TeamView } from '#contract/views.ts'
import { usePeopleQuery } from '../../api/api.ts'
import { type Change, useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { Through } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { joiningWords } from './joining.ts'

/** One team: what it is for, its home, its people, and what its leads may do with them. */
export function TeamPanel({ team, onClose }: { readonly team: TeamView; readonly onClose: () => void }) {
  const { slug, workspace } = useHere()
  const change = useChange(slug)
  const join: EditRequest = {
    kind: 'member.add',
    team: team.id,
    person: workspace.me.id,
    lead: false,
    from: null,
    until: null,
  }
  return (
    <Panel title={team.name} onClose={onClose}>
      {team.note !== '' && <p className="mb-2">{team.note}</p>}
      <p className="quiet mb-3 text-sm">
        {joiningWords[team.joining].means} {team.welcomesGuests ? 'Guests may be in it.' : 'No guests in it.'}
      </p>
      <div className="mb-4 flex items-center gap-3">
        {team.home !== null && (
          <Link className="btn-plain" to={`/at/${slug}/content/${team.home.id}`}>
            Open its home
          </Link>
        )}
        {team.mayJoin && (
          <button
            type="button"
            className="btn-act"
            disabled={change.isBusy}
            onClick={() => void change.apply([join], `You are in ${team.name} now.`)}
          >
            Join the team
          </button>
        )}
      </div>
      <HomeLevels team={team} />
      <TeamPeople team={team} change={change} />
      <div className="mt-3">
        <ProblemNote problem={change.problem} />
      </div>
    </Panel>
  )
}

/** What the team's people may do in its home; shown to those who share there. */
const HomeLevels = ({ team: { home } }: { readonly team: TeamView }) =>
  home !== null &&
  home.levels.length > 0 && (
    <dl className="mb-4 grid grid-cols-[1fr_9rem] gap-y-1 border-y border-base-300 py-2">
      {home.levels.map(({ who, actions }) => (
        <Fragment key={who}>
          <dt>{who === 'leads' ? 'Leads in its home' : 'Everyone in the team'}</dt>
          <dd>
            <Level actions={actions} />
          </dd>
        </Fragment>
      ))}
    </dl>
  )

interface Part {
  readonly team: TeamView
  readonly change: Change
}

function TeamPeople({ team, change }: Part) {
  const leads = team.people.filter(person => person.lead && person.status === 'active').length
  return (
    <section aria-label="People in the team">
      <h3 className="mb-1 font-bold">
        {team.people.length === 1 ? '1 person' : `${team.people.length} people`}
      </h3>
      {leads === 1 && team.mayManage && (
        <p className="mb-2 text-sm text-warning">
          One lead alone: name a second, so that somebody can stand in.
        </p>
      )}
      {team.mayManage && <AddPerson team={team} change={change} />}
      <ul className="mt-2">
        {team.people.map(person => (
          <TeamPerson key={person.id} person={person} team={team} change={change} />
        ))}
      </ul>
    </section>
  )
}

function AddPerson({ team, change }: Part) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleQuery(slug)
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
      label={`Add somebody to ${team.name}`}
      placeholder="Add somebody by name"
      options={options}
      onChoose={({ value, name }) =>
        void change.apply(
          [{ kind: 'member.add', team: team.id, person: value, lead: false, from: null, until: null }],
          `${name} is in ${team.name} now.`,
        )
      }
    />
  )
}

function TeamPerson({ person, team, change }: Part & { readonly person: TeamPersonView }) {
  const { workspace } = useHere()
  return (
    <li className="flex items-baseline justify-between gap-3 border-t border-base-300 py-1.5">
      <span className="min-w-0">
        <span className={person.lead ? 'font-bold' : ''}>{person.name}</span>
        <span className="quiet text-sm">
          {person.lead && ' · lead'}
          {person.kind === 'guest' && ' · guest'}
          {person.status === 'invited' && ' · invited'}
          {person.until !== null && (
            <>
              {' '}
              · <Through until={person.until} timeZone={workspace.timeZone} />
            </>
          )}
        </span>
      </span>
      <span className="flex shrink-0 gap-3 text-sm">
        {team.mayManage && person.kind === 'member' && (
          <Leading person={person} team={team} change={change} />
        )}
        {team.joining !== 'everyone' && <Leaving person={person} team={team} change={change} />}
      </span>
    </li>
  )
}

function Leading({ person, team, change }: Part & { readonly person: TeamPersonView }) {
  const word = person.lead ? 'No longer lead' : 'Make lead'
  const said = `${person.name} leads ${team.name} ${person.lead ? 'no longer' : 'now'}.`
  const edit = { kind: 'member.change', team: team.id, person: person.id, lead: !person.lead } as const
  return (
    <button
      type="button"
      className="act"
      aria-label={`${word}: ${person.name}`}
      onClick={() => void change.apply([edit], said)}
    >
      {word}
    </button>
  )
}

function Leaving({ person, team, change }: Part & { readonly person: TeamPersonView }) {
  const { workspace } = useHere()
  const isMe = person.id === workspace.me.id
  if (!isMe && !team.mayManage) return null
  const edit = { kind: 'member.take', team: team.id, person: person.id } as const
  return (
    <button
      type="button"
      className="act"
      aria-label={isMe ? `Leave ${team.name}` : `Take out: ${person.name}`}
      onClick={() => void change.apply([edit], `${person.name} is out of ${team.name}.`)}
    >
      {isMe ? 'Leave' : 'Take out'}
    </button>
  )
}
