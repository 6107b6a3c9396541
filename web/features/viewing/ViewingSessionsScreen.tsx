import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { ViewingSessionView, ViewingSessionsView } from '#contract/views/viewing.ts'
import { privilegeWords } from '#core/words/privilege.ts'
import { listed } from '#core/words/english.ts'
import { useViewingSessionsQuery } from '../../api/roles.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox, type Option } from '../../ui/Combobox.tsx'
import { Day, Time } from '../../ui/dates.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { OversightHead } from '../../ui/OversightHead.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { NotYet } from '../../ui/NotYet.tsx'

/** Looking at what only a privilege shows: begun with a reason, who may, and who did. */
export function ViewingSessionsScreen() {
  const { slug, workspace } = useHere()
  const { data: view, error } = useViewingSessionsQuery(slug)
  if (view === undefined) return <NotYet error={error} />
  return (
    <main className="min-h-0 overflow-y-auto px-4 py-3">
      <OversightHead me={workspace.me} />
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-2">
        <div>
          {view.maySeeAs && <Begin view={view} isOutline={false} />}
          {view.mayOutline && <Begin view={view} isOutline />}
          <Holders view={view} />
        </div>
        <Looked viewingSessions={view.sessions} />
      </div>
    </main>
  )
}

interface Props {
  readonly view: ViewingSessionsView
}

function Begin({ view, isOutline }: Props & { readonly isOutline: boolean }) {
  const { slug } = useHere()
  const navigate = useNavigate()
  const { apply, problem, isBusy } = useChange(slug)
  const [person, setPerson] = useState<Option>()
  const [reason, setReason] = useState('')
  const options = view.people.map(({ id, name, mail }) => ({ value: id, name, note: mail }))
  const isReady = reason.trim() !== '' && (isOutline || person !== undefined)
  const begin = async () => {
    const through = isOutline ? null : (person?.value ?? null)
    const confirmation = isOutline
      ? 'You have outline access for one hour.'
      : `You see the workspace as ${person?.name ?? ''} for one hour.`
    const { applied } = await apply(
      [{ kind: 'session.begin', session: 'new:session', through, reason }],
      confirmation,
    )
    const made = applied?.made['new:session']
    if (made !== undefined) void navigate(`/at/${slug}/oversight/sessions/${made}`)
  }
  return (
    <form className="mb-5 grid max-w-lg gap-3" onSubmit={onSubmit(begin)}>
      <div>
        <h2 className="text-lg font-bold">{isOutline ? 'Outline access' : 'See as'}</h2>
        <p className="quiet text-sm">
          {isOutline
            ? 'Shows the titles and kinds of all places, but no content. Private folders stay private.'
            : 'Shows the places that this person sees, as far as you can see them too. You cannot change anything, and the person is notified.'}
        </p>
      </div>
      {!isOutline &&
        (person === undefined ? (
          <Combobox label="See as" placeholder="Name of a person" options={options} onChoose={setPerson} />
        ) : (
          <p>
            <strong>{person.name}</strong>{' '}
            <button type="button" className="btn-inline text-sm" onClick={() => setPerson(undefined)}>
              Another person
            </button>
          </p>
        ))}
      <TextField
        label="Reason"
        hint="The reason is kept in the history. A session lasts one hour."
        maxLength={500}
        value={reason}
        onValue={setReason}
      />
      <ProblemNote problem={problem} />
      <button className="btn-main justify-self-start" disabled={!isReady || isBusy}>
        {isOutline
          ? 'Start outline access'
          : person === undefined
            ? 'See as this person'
            : `See as ${person.name}`}
      </button>
    </form>
  )
}

const Holders = ({ view: { holders } }: Props) => (
  <section aria-label="Who may start sessions">
    <h2 className="mb-1 text-lg font-bold">Who may start sessions</h2>
    <ul>
      {holders.map(({ person, privileges }) => (
        <li key={person.id} className="border-t border-base-300 py-1.5">
          <strong>{person.name}</strong>{' '}
          <span className="quiet text-sm">may {listed(privileges.map(each => privilegeWords[each]))}</span>
        </li>
      ))}
    </ul>
  </section>
)

const Looked = ({ viewingSessions }: { readonly viewingSessions: readonly ViewingSessionView[] }) => (
  <section aria-label="Sessions">
    <h2 className="mb-1 text-lg font-bold">Sessions</h2>
    {viewingSessions.length === 0 && (
      <p>No sessions yet. Each session is listed here and in the history, with its reason.</p>
    )}
    <ul>
      {viewingSessions.map(session => (
        <Look key={session.id} session={session} />
      ))}
    </ul>
  </section>
)

function Look({
  session: { id, by, through, at, until, reason: reason, isOpen },
}: {
  readonly session: ViewingSessionView
}) {
  const { slug } = useHere()
  return (
    <li className="border-t border-base-300 py-1.5">
      <p>
        <strong>{by.name}</strong> {through === null ? 'outline access' : `as ${through.name}`}
        <span className="quiet">
          {' '}
          · <Day at={at} /> <Time at={at} />
        </span>
      </p>
      <p className="quiet text-sm">“{reason}”</p>
      {isOpen && (
        <Link className="link text-sm" to={`/at/${slug}/oversight/sessions/${id}`}>
          Continue (until <Time at={until} />)
        </Link>
      )}
    </li>
  )
}
