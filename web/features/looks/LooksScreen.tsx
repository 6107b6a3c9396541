import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { LooksView, LookView } from '#contract/role-views.ts'
import { privilegeWords } from '#core/words/privilege.ts'
import { listed } from '#core/words/english.ts'
import { useLooksQuery } from '../../api/roles.ts'
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
export function LooksScreen() {
  const { slug, workspace } = useHere()
  const { data: view, error } = useLooksQuery(slug)
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
        <Looked looks={view.looks} />
      </div>
    </main>
  )
}

interface Props {
  readonly view: LooksView
}

function Begin({ view, isOutline }: Props & { readonly isOutline: boolean }) {
  const { slug } = useHere()
  const navigate = useNavigate()
  const { apply, problem, isBusy } = useChange(slug)
  const [person, setPerson] = useState<Option>()
  const [word, setWord] = useState('')
  const options = view.people.map(({ id, name, mail }) => ({ value: id, name, note: mail }))
  const isReady = word.trim() !== '' && (isOutline || person !== undefined)
  const begin = async () => {
    const through = isOutline ? null : (person?.value ?? null)
    const said = isOutline
      ? 'You have outline access for one hour.'
      : `You see the workspace as ${person?.name ?? ''} for one hour.`
    const { applied } = await apply([{ kind: 'look.begin', look: 'new:look', through, word }], said)
    const made = applied?.made['new:look']
    if (made !== undefined) void navigate(`/at/${slug}/oversight/looks/${made}`)
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
            <button type="button" className="act text-sm" onClick={() => setPerson(undefined)}>
              Another person
            </button>
          </p>
        ))}
      <TextField
        label="Reason"
        hint="The reason is kept in the history. A session lasts one hour."
        maxLength={500}
        value={word}
        onValue={setWord}
      />
      <ProblemNote problem={problem} />
      <button className="btn-act justify-self-start" disabled={!isReady || isBusy}>
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

const Looked = ({ looks }: { readonly looks: readonly LookView[] }) => (
  <section aria-label="Sessions">
    <h2 className="mb-1 text-lg font-bold">Sessions</h2>
    {looks.length === 0 && (
      <p>No sessions yet. Each session is listed here and in the history, with its reason.</p>
    )}
    <ul>
      {looks.map(look => (
        <Look key={look.id} look={look} />
      ))}
    </ul>
  </section>
)

function Look({ look: { id, by, through, at, until, word, isOpen } }: { readonly look: LookView }) {
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
      <p className="quiet text-sm">“{word}”</p>
      {isOpen && (
        <Link className="link text-sm" to={`/at/${slug}/oversight/looks/${id}`}>
          Continue (until <Time at={until} />)
        </Link>
      )}
    </li>
  )
}
