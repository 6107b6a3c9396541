import { Fragment, useState } from 'react'
import { Link } from 'react-router'
import type { TeamView } from '#contract/views.ts'
import { useHere } from '../../api/use-here.ts'
import { Level } from '../../ui/Gauge.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { joiningWords } from './joining.ts'
import { Deciding, joining, TeamPeople } from './TeamPeople.tsx'

/** One team: what it is for, its home, its people, and what its leads may do with them. */
export function TeamPanel({ team, onClose }: { readonly team: TeamView; readonly onClose: () => void }) {
  const { slug } = useHere()
  const [isJoining, setJoining] = useState(false)
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
        {team.mayJoin && !isJoining && (
          <button type="button" className="btn-act" onClick={() => setJoining(true)}>
            Join the team …
          </button>
        )}
      </div>
      {isJoining && team.mayJoin && <Join team={team} onDone={() => setJoining(false)} />}
      <HomeLevels team={team} />
      <TeamPeople team={team} />
    </Panel>
  )
}

function Join({ team, onDone }: { readonly team: TeamView; readonly onDone: () => void }) {
  const { workspace } = useHere()
  const person = workspace.me.id
  const said = `You are in ${team.name} now.`
  return (
    <Deciding act={{ person, edit: joining(team, person), act: 'Join the team', said }} onDone={onDone} />
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
