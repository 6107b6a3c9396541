import { useState } from 'react'
import { Link } from 'react-router'
import type { OwnersView } from '#contract/views/roles.ts'
import { usePeopleNamesQuery } from '../../api/api.ts'
import { useOwnersQuery } from '../../api/roles.ts'
import { useChange } from '../../api/use-change.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { ActOrLeave } from '../../ui/ActOrLeave.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { Combobox, type Option } from '../../ui/Combobox.tsx'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { OpenedForm } from '../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'

/** The owners: a second one named, the workspace handed over. The last one cannot go, by any way. */
export function Owners() {
  const { slug, workspace } = useHere()
  const { data: view } = useOwnersQuery(slug)
  if (view === undefined) return null
  const mine = view.handovers.find(each => each.from.id === workspace.me.id)
  return (
    <>
      {view.owners.filter(each => each.status === 'active').length < 2 && (
        <p className="mb-4 border-l-4 border-warning pl-3">
          There is only one owner. If this person cannot sign in any more, nobody can manage the workspace.
          Add another owner.
        </p>
      )}
      <ul className="mb-4">
        {view.owners.map(({ id, name, mail, status }) => (
          <li key={id} className="flex items-baseline gap-3 border-t border-base-300 py-2">
            <Link className="link font-semibold" to={`/at/${slug}/people/${id}`}>
              {name}
            </Link>
            <span className="quiet text-sm">
              {mail}
              {status !== 'active' && ` · ${status}`}
              {id === workspace.me.id && ' · you'}
            </span>
          </li>
        ))}
      </ul>
      <NameAnother view={view} />
      {mine === undefined ? <HandOver view={view} /> : <Offered view={view} />}
    </>
  )
}

interface Props {
  readonly view: OwnersView
}

/** Members who are here and no owners. */
function useOthers({ owners }: OwnersView): Option[] {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const held = new Set(owners.map(each => each.id))
  return people
    .filter(each => each.kind === 'member' && each.status === 'active' && !held.has(each.id))
    .map(each => ({ value: each.id, name: each.name, note: each.mail }))
}

function NameAnother({ view }: Props) {
  const [chosen, setChosen] = useState<Option>()
  const options = useOthers(view)
  return (
    <section aria-label="Another owner" className="border-t border-base-content py-4">
      <h3 className="font-bold">Add another owner</h3>
      <p className="quiet mb-2 text-sm">
        The new owner can do everything that you can. You stay an owner too.
      </p>
      <Combobox label="Another owner" placeholder="Name of a member" options={options} onChoose={setChosen} />
      {chosen !== undefined && (
        <Naming key={chosen.value} person={chosen} onDone={() => setChosen(undefined)} />
      )}
    </section>
  )
}

function Naming({ person, onDone }: { readonly person: Option; readonly onDone: () => void }) {
  const edit = {
    kind: 'role.assign',
    person: person.value,
    role: 'role-owner',
    scope: { over: 'workspace' },
    from: null,
    until: null,
  } as const
  const decision = useDecision([edit], `${person.name} is now an owner.`, onDone)
  return <Decision label={`Make ${person.name} an owner`} onLeave={onDone} {...decision} />
}

function HandOver({ view }: Props) {
  const [chosen, setChosen] = useState<Option>()
  const options = useOthers(view)
  return (
    <section aria-label="Hand over the workspace" className="border-t border-base-content py-4">
      <h3 className="font-bold">Hand over the workspace</h3>
      <p className="quiet mb-2 text-sm">
        You make an offer. When the other person accepts, they become owner instead of you. Until then nothing
        changes, and you can withdraw the offer.
      </p>
      <Combobox label="Hand over to" placeholder="Name of a member" options={options} onChoose={setChosen} />
      {chosen !== undefined && (
        <Offering key={chosen.value} view={view} person={chosen} onDone={() => setChosen(undefined)} />
      )}
    </section>
  )
}

function Offering({
  view,
  person,
  onDone,
}: Props & { readonly person: Option; readonly onDone: () => void }) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [keeps, setKeeps] = useState(view.roles[0]?.id ?? '')
  const [reason, setReason] = useState('')
  const offer = async () => {
    const edit = { kind: 'handover.offer', to: person.value, keeps, reason } as const
    const { applied } = await apply([edit], `The offer was sent to ${person.name}.`)
    if (applied !== undefined) onDone()
  }
  return (
    <OpenedForm label={`Hand the workspace to ${person.name}`} onAct={offer} onLeave={onDone}>
      <Choice
        label="Your role afterwards"
        value={keeps}
        options={view.roles.map(({ id, name }) => ({ value: id, name }))}
        onValue={setKeeps}
      />
      <TextField label={`Message to ${person.name}`} maxLength={1000} value={reason} onValue={setReason} />
      <ProblemNote problem={problem} />
      <ActOrLeave label={`Send offer to ${person.name}`} isDisabled={isBusy} onLeave={onDone} />
    </OpenedForm>
  )
}

/** What waits for the other's assent. */
function Offered({ view }: Props) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const mine = view.handovers.filter(each => each.from.id === workspace.me.id)
  return (
    <section aria-label="Hand over the workspace" className="border-t border-base-content py-4">
      <h3 className="font-bold">Hand over the workspace</h3>
      {mine.map(({ id, to, at, keeps }) => (
        <p key={id}>
          Offered to {to.name} on <Day at={at} />. You would become {keeps}. Waiting for an answer.{' '}
          <button
            type="button"
            className="btn-inline"
            disabled={isBusy}
            onClick={() =>
              void apply([{ kind: 'handover.withdraw', handover: id }], 'Your offer is withdrawn.')
            }
          >
            Withdraw offer
          </button>
        </p>
      ))}
      <ProblemNote problem={problem} />
    </section>
  )
}
