import { Fragment, useState } from 'react'
import { Link } from 'react-router'
import type { TeamView } from '#contract/views/teams.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { Channels } from './Channels.tsx'
import { joiningWords } from './joining.ts'
import { Asking, Requests } from './Requests.tsx'
import { TeamSettings } from './TeamSettings.tsx'
import { Deciding, joining, TeamPeople } from './TeamPeople.tsx'

/** One team: what it is for, its home, its people, and what its leads may do with them. */
export function TeamPanel({ team, onClose }: { readonly team: TeamView; readonly onClose: () => void }) {
  const { slug } = useHere()
  const [isJoining, setJoining] = useState(false)
  return (
    <Panel title={team.name} onClose={onClose}>
      {team.isArchived && (
        <p className="mb-2 text-warning">Archived: everything stays readable, nothing can be changed.</p>
      )}
      {team.note !== '' && <p className="mb-2">{team.note}</p>}
      <p className="quiet mb-3 text-sm">
        {joiningWords[team.joining].means}{' '}
        {team.welcomesGuests ? 'Guests are allowed.' : 'Guests are not allowed.'}
      </p>
      <div className="mb-4 flex items-center gap-3 empty:hidden">
        {team.home !== null && (
          <Link className="btn-plain" to={`/at/${slug}/content/${team.home.id}`}>
            Open team home
          </Link>
        )}
        {team.mayJoin && !isJoining && (
          <button type="button" className="btn-main" onClick={() => setJoining(true)}>
            Join …
          </button>
        )}
      </div>
      <Asking team={team} />
      <Requests team={team} />
      {isJoining && team.mayJoin && <Join team={team} onDone={() => setJoining(false)} />}
      <HomeLevels team={team} />
      <p className="mb-4">
        <Link className="link text-sm" to={`/at/${slug}/teams/${team.id}/places`}>
          Grants of {team.name}
        </Link>
      </p>
      <Channels team={team} />
      <TeamPeople team={team} />
      {team.mayManage && <Managing team={team} />}
    </Panel>
  )
}

function Join({ team, onDone }: { readonly team: TeamView; readonly onDone: () => void }) {
  const { workspace } = useHere()
  const person = workspace.me.id
  const confirmation = `You joined ${team.name}.`
  return (
    <Deciding
      act={{ person, edit: joining(team, person), label: 'Join team', confirmation }}
      onDone={onDone}
    />
  )
}

type Managed = 'settings' | 'archive' | 'delete'

/** What its leads do with the team itself. */
function Managing({ team }: { readonly team: TeamView }) {
  const [open, setOpen] = useState<Managed>()
  const [openedAt] = useState(Date.now)
  const close = () => setOpen(undefined)
  return (
    <section className="mt-5 border-t border-base-content pt-3">
      {open === undefined && (
        <div className="flex gap-2">
          <button type="button" className="btn-plain" onClick={() => setOpen('settings')}>
            Edit team …
          </button>
          <button type="button" className="btn-plain" onClick={() => setOpen('archive')}>
            {team.isArchived ? 'Restore …' : 'Archive …'}
          </button>
          {team.deletableFrom !== null && team.deletableFrom <= openedAt && (
            <button type="button" className="btn-plain text-error" onClick={() => setOpen('delete')}>
              Delete …
            </button>
          )}
        </div>
      )}
      {open === undefined && team.deletableFrom !== null && team.deletableFrom > openedAt && (
        <p className="quiet mt-2 text-sm">
          It can be deleted for good from <Day at={team.deletableFrom} /> on.
        </p>
      )}
      {open === 'delete' && <Deleting team={team} onDone={close} />}
      {open === 'settings' && <TeamSettings team={team} onDone={close} />}
      {open === 'archive' && <Archiving team={team} onDone={close} />}
    </section>
  )
}

function Archiving({ team, onDone }: { readonly team: TeamView; readonly onDone: () => void }) {
  const { id, name, isArchived } = team
  const act = {
    person: '',
    edit: { kind: 'team.archive', team: id, archived: !isArchived },
    label: isArchived ? `Restore ${name}` : `Archive ${name}`,
    confirmation: isArchived ? `${name} is restored.` : `${name} is archived.`,
  } as const
  return <Deciding act={act} onDone={onDone} />
}

/** With its home and all in it: it is never undone, and says what everybody loses first. */
function Deleting({ team: { id, name }, onDone }: { readonly team: TeamView; readonly onDone: () => void }) {
  const act = {
    person: '',
    edit: { kind: 'team.delete', team: id },
    label: `Delete ${name} and its home for good`,
    confirmation: `${name} is deleted.`,
  } as const
  return <Deciding act={act} onDone={onDone} />
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
