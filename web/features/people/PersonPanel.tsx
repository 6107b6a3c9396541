import { useState } from 'react'
import { Link } from 'react-router'
import type { PersonView } from '#contract/views.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Day, Through } from '../../ui/dates.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { Presence } from './PeopleTable.tsx'
import { Roles } from './Roles.tsx'
import { Standing } from './Standing.tsx'

/** One person: who they are here, in which teams, and what became of their invitation. */
export function PersonPanel({
  person,
  onClose,
}: {
  readonly person: PersonView
  readonly onClose: () => void
}) {
  const { slug, workspace } = useHere()
  return (
    <Panel title={person.name} onClose={onClose}>
      <dl className="grid grid-cols-[6rem_1fr] gap-y-2">
        <dt className="quiet">Address</dt>
        <dd className="break-words">{person.mail}</dd>
        <dt className="quiet">Is here as</dt>
        <dd>{person.kind}</dd>
        {person.title !== '' && (
          <>
            <dt className="quiet">Does</dt>
            <dd>{person.title}</dd>
          </>
        )}
        <dt className="quiet">Roles</dt>
        <dd>
          <Roles person={person} />
        </dd>
        <dt className="quiet">Time here</dt>
        <dd>
          <Presence person={person} timeZone={workspace.timeZone} />
        </dd>
        <dt className="quiet">Teams</dt>
        <dd>
          {person.teams.length === 0 && <span className="quiet">none</span>}
          {person.teams.map(team => (
            <Link key={team.id} className="act block py-0.5" to={`/at/${slug}/teams/${team.id}`}>
              {team.name}
              {team.lead && ' (lead)'}
            </Link>
          ))}
        </dd>
      </dl>
      {person.invitation !== null && (
        <OpenInvitation person={person} invitation={person.invitation} onClose={onClose} />
      )}
      <Standing person={person} />
      <p className="mt-5 border-t border-base-300 pt-3">
        <Link className="act" to={`/at/${slug}/oversight/history?person=${person.id}`}>
          What {person.name} did, and what was done about them
        </Link>
      </p>
    </Panel>
  )
}

interface Open {
  readonly person: PersonView
  readonly invitation: NonNullable<PersonView['invitation']>
  readonly onClose: () => void
}

function OpenInvitation({ person, invitation, onClose }: Open) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [openedAt] = useState(Date.now)
  const isDead = invitation.until <= openedAt
  const mayInvite = workspace.me.privileges.includes(
    person.kind === 'guest' ? 'invite guests' : 'invite members',
  )
  const withdraw = async () => {
    const { applied } = await apply(
      [{ kind: 'invitation.withdraw', person: person.id }],
      `The invitation of ${person.name} is withdrawn.`,
    )
    if (applied !== undefined) onClose()
  }
  return (
    <section className="mt-5 border-t border-base-content pt-3">
      <h3 className="mb-1 font-bold">Invitation</h3>
      <p className="mb-3">
        Invited by {invitation.by}, <Day at={invitation.at} />. The link{' '}
        {isDead ? (
          'has ended.'
        ) : (
          <>
            works <Through until={invitation.until} timeZone={workspace.timeZone} />.
          </>
        )}
      </p>
      {mayInvite && (
        <div className="flex gap-2">
          <button
            type="button"
            className="btn-plain"
            disabled={isBusy}
            onClick={() =>
              void apply(
                [{ kind: 'invitation.renew', person: person.id }],
                `A new invitation is on its way to ${person.mail}.`,
              )
            }
          >
            Send it anew
          </button>
          <button type="button" className="btn-plain" disabled={isBusy} onClick={() => void withdraw()}>
            Withdraw it
          </button>
        </div>
      )}
      <ProblemNote problem={problem} />
    </section>
  )
}
