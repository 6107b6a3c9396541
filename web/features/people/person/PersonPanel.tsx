import { useState } from 'react'
import { Link } from 'react-router'
import type { ManagedView, PersonDetailView } from '#contract/views/people.ts'
import type { Problem } from '#contract/views/problem.ts'
import { usePersonQuery } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { Panel } from '../../../ui/Panel.tsx'
import { Picture, pictureAddress } from '../../../ui/Picture.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { Presence } from '../directory/columns.tsx'
import { Contact } from './Contact.tsx'
import { OpenInvitation } from './OpenInvitation.tsx'
import { PersonPlaces } from './PersonPlaces.tsx'
import { PersonTeams } from './PersonTeams.tsx'
import { Profile } from './Profile.tsx'
import { Powers, Roles } from './Roles.tsx'
import { SigningIn } from './SigningIn.tsx'
import { PersonStatus } from './PersonStatus.tsx'

/** One person with everything: who they are, what they hold, where they have what and why, and what can be done. */
export function PersonPanel({ id, onClose }: { readonly id: string; readonly onClose: () => void }) {
  const { slug } = useHere()
  const { data: person, error } = usePersonQuery({ slug, id })
  if (error !== undefined)
    return (
      <Panel title="Person not found" onClose={onClose}>
        <ProblemNote problem={error as Problem} />
      </Panel>
    )
  return person === undefined ? (
    <Panel title="…" onClose={onClose}>
      <p className="quiet">Loading …</p>
    </Panel>
  ) : (
    <Everything key={person.id} person={person} onClose={onClose} />
  )
}

interface Props {
  readonly person: PersonDetailView
  readonly onClose: () => void
}

function Everything({ person, onClose }: Props) {
  const { slug } = useHere()
  return (
    <Panel title={person.name} onClose={onClose}>
      <About person={person} />
      {person.managed?.invitation != null && (
        <OpenInvitation
          person={person}
          managed={person.managed}
          invitation={person.managed.invitation}
          onClose={onClose}
        />
      )}
      {person.managed !== null && person.kind === 'member' && (
        <section aria-label="Roles" className="mt-5 border-t border-base-content pt-3">
          <h3 className="mb-1 font-bold">Roles</h3>
          <Roles person={person} managed={person.managed} />
          {person.powers !== null && <Powers powers={person.powers} />}
        </section>
      )}
      <PersonTeams person={person} />
      <PersonPlaces person={person} />
      <SigningIn person={person} />
      {person.status !== 'invited' && <PersonStatus person={person} />}
      <p className="mt-5 border-t border-base-300 pt-3">
        <Link className="link" to={`/at/${slug}/oversight/history?person=${person.id}`}>
          History of {person.name}
        </Link>
      </p>
    </Panel>
  )
}

function About({ person }: { readonly person: PersonDetailView }) {
  const { slug, workspace } = useHere()
  const [isEditing, setEditing] = useState(false)
  const mayDescribe = person.managed?.may.includes('describe') === true || person.id === workspace.me.id
  if (isEditing) return <Profile person={person} onDone={() => setEditing(false)} />
  return (
    <div className="flex gap-4">
      <Picture name={person.name} src={pictureAddress(slug, person.picture)} size={52} />
      <dl className="grid min-w-0 grow grid-cols-[5.5rem_minmax(0,1fr)] gap-x-2 gap-y-1.5">
        <Told person={person} />
        {person.managed !== null && <Kept person={person} managed={person.managed} />}
        {person.kind === 'guest' && (
          <Line term="Contact">
            <Contact person={person} />
          </Line>
        )}
        {mayDescribe && (
          <dd className="col-start-2">
            <button type="button" className="btn-inline text-sm" onClick={() => setEditing(true)}>
              Edit profile
            </button>
          </dd>
        )}
      </dl>
    </div>
  )
}

/** What people tell of themselves. */
function Told({ person }: { readonly person: PersonDetailView }) {
  const { kind, mail, handle, formerHandles, title, department, country, managed } = person
  const details = [
    ['Title', title],
    [kind === 'guest' ? 'Organisation' : 'Department', department],
    ['Country', country],
  ] as const
  return (
    <>
      <Line term="Address">
        <span className="break-words">{mail}</span>
        {managed?.isConfirmed === false && <span className="block text-sm text-warning">not confirmed</span>}
      </Line>
      {handle !== null && (
        <Line term="Handle">
          @{handle}
          {formerHandles.length > 0 && (
            <span className="quiet text-sm"> before: {formerHandles.map(each => `@${each}`).join(', ')}</span>
          )}
        </Line>
      )}
      {details.map(
        ([term, text]) =>
          text !== '' && (
            <Line key={term} term={term}>
              {text}
            </Line>
          ),
      )}
    </>
  )
}

/** What who looks after people knows of them. */
function Kept({ person, managed }: { readonly person: PersonDetailView; readonly managed: ManagedView }) {
  const { timeZone } = useHere().workspace
  return (
    <>
      <Line term="Kind">
        {person.kind}
        {!managed.takesSeat && person.kind === 'member' && <span className="quiet"> · uses no seat</span>}
      </Line>
      <Line term="Status">
        <Presence person={person} timeZone={timeZone} />
        {managed.lastActive !== null && (
          <span className="quiet">
            {' '}
            · last active <Day at={managed.lastActive} />
          </span>
        )}
      </Line>
    </>
  )
}

const Line = ({ term, children }: { readonly term: string; readonly children: React.ReactNode }) => (
  <>
    <dt className="quiet">{term}</dt>
    <dd className="min-w-0">{children}</dd>
  </>
)
