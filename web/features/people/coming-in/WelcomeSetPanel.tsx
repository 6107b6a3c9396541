import { useState } from 'react'
import { Link } from 'react-router'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import type { WelcomeSetView } from '#contract/views/onboarding.ts'
import { nameOfActions } from '#core/levels/level.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { useChange } from '../../../api/use-change.ts'
import { listed } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { onSubmit } from '../../../ui/on-submit.ts'
import { Panel } from '../../../ui/Panel.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextField } from '../../../ui/TextField.tsx'
import { Tick } from '../../../ui/Tick.tsx'
import { OfferPreview, useOfferView } from './OfferPreview.tsx'
import { emptyOfferOf, offerOf } from './offer.ts'
import { draftFrom, OfferForm } from './OfferForm.tsx'

interface PanelProps {
  readonly set: WelcomeSetView
  readonly onClose: () => void
}

/** A welcome set: what it gives, and what a change of it does, to those to come and to those still invited with it. */
export function WelcomeSetPanel({ set, onClose }: PanelProps) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [name, setName] = useState(set.name)
  const [note, setNote] = useState(set.note)
  const [before] = useState(() => draftFrom(set, workspace.timeZone))
  const [draft, setDraft] = useState({ ...before, welcome: '' })
  const [alsoInvited, setAlso] = useState(false)
  const offer = offerOf(draft, workspace.timeZone)
  const isOfferChanged = JSON.stringify(draft) !== JSON.stringify({ ...before, welcome: '' })
  const run = async (edits: readonly EditRequest[], confirmation: string) => {
    const { applied } = await apply(edits, confirmation)
    if (applied !== undefined) onClose()
  }
  const submit = () => {
    const described = { kind: 'welcome.change', welcome: set.id, name: name.trim(), note } as const
    const change: EditRequest = isOfferChanged ? { ...described, offer } : described
    const others = alsoInvited ? changesForInvited(set, offer) : []
    return run([change, ...others], `The welcome set ${name} is changed.`)
  }
  const remove = () =>
    run(
      [{ kind: 'welcome.delete', welcome: set.id }],
      `The welcome set ${set.name} is deleted. Invitations sent with it stay valid.`,
    )
  return (
    <Panel title={set.name} onClose={onClose}>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <TextField label="Name" required value={name} onValue={setName} />
        <TextField label="Description" value={note} onValue={setNote} />
        {set.isGivenByAnother ? (
          <Given offer={set.offer} />
        ) : (
          <OfferForm hasSets={false} offer={draft} onOffer={setDraft} />
        )}
        {isOfferChanged && <Effect set={set} offer={offer} alsoInvited={alsoInvited} onAlso={setAlso} />}
        <ProblemNote problem={problem} />
        <SetActs set={set} isBusy={isBusy} isNamed={name.trim() !== ''} onDelete={() => void remove()} />
      </form>
      <p className="mt-4 border-t border-base-300 pt-3">
        <Link className="link" to={`/at/${slug}/people/invite`}>
          Invite people with this set
        </Link>
      </p>
    </Panel>
  )
}

interface ActsProps {
  readonly set: WelcomeSetView
  readonly isBusy: boolean
  readonly isNamed: boolean
  readonly onDelete: () => void
}

function SetActs({ set, isBusy, isNamed, onDelete }: ActsProps) {
  if (!set.mayChange)
    return <p className="quiet text-sm">It gives more than you may see or give, so you cannot change it.</p>
  return (
    <div className="flex justify-between">
      <button className="btn-main" disabled={isBusy || !isNamed}>
        Save changes
      </button>
      <button type="button" className="btn-plain text-error" disabled={isBusy} onClick={onDelete}>
        Delete welcome set
      </button>
    </div>
  )
}

function Given({ offer }: Pick<WelcomeSetView, 'offer'>) {
  return (
    <section aria-label="What it gives">
      <p className="mb-2">Somebody else’s join link uses this set, so only they can change what it gives.</p>
      <OfferPreview view={useOfferView({ offer })} count={1} />
    </section>
  )
}

interface EffectProps {
  readonly set: WelcomeSetView
  readonly offer: WelcomeSetView['offer']
  readonly alsoInvited: boolean
  readonly onAlso: (also: boolean) => void
}

/** What a changed offer does: nothing to who is here, something to who comes, and to the invited if one wants. */
function Effect({ set, offer, alsoInvited, onAlso }: EffectProps) {
  const before = useOfferView({ offer: set.offer })
  const after = useOfferView({ offer })
  const { invited, links } = set
  return (
    <section aria-label="Before and after" className="border-t border-base-content pt-2 text-sm">
      <p className="mb-1">
        People who have joined keep what they have. People who join with this set from now on
        {links > 0 && ', also by a join link'}:
      </p>
      <Compared before={before?.places} after={after?.places} />
      <ProblemNote problem={after?.problem ?? undefined} />
      {invited.length > 0 && (
        <Tick isOn={alsoInvited} onTick={onAlso}>
          Also change the open invitations of {listed(invited.map(each => each.name))}: role, end, new teams
          and places
        </Tick>
      )}
    </section>
  )
}

interface ComparedProps {
  readonly before: readonly AccessiblePlaceView[] | undefined
  readonly after: readonly AccessiblePlaceView[] | undefined
}

/** What somebody who comes would see otherwise than before. */
function Compared({ before, after }: ComparedProps) {
  if (before === undefined || after === undefined) return <p className="quiet">Loading …</p>
  const levels = new Map(before.map(place => [place.id, place]))
  const gained = after.filter(place => levels.get(place.id)?.actions !== place.actions)
  const kept = new Set(after.map(place => place.id))
  const lost = before.filter(place => !kept.has(place.id))
  if (gained.length + lost.length === 0) return <p>They get the same as before.</p>
  const level = (place: AccessiblePlaceView | undefined) =>
    place === undefined ? 'No access' : nameOfActions(place.actions as ActionSet).name
  return (
    <ul className="mb-2">
      {gained.map(place => (
        <li key={place.id} className="border-t border-base-300 py-1">
          <strong>{place.name}</strong>: {level(levels.get(place.id))} → {level(place)}
        </li>
      ))}
      {lost.map(place => (
        <li key={place.id} className="border-t border-base-300 py-1">
          <strong>{place.name}</strong>: {level(place)} → no own access
        </li>
      ))}
    </ul>
  )
}

/** For those still invited with it: the new end and role, and what is new among teams and places. */
function changesForInvited(set: WelcomeSetView, offer: WelcomeSetView['offer']): EditRequest[] {
  const teams = offer.teams.filter(team => !set.offer.teams.includes(team))
  const had = new Set(set.offer.places.map(place => place.node))
  const places = offer.places.filter(place => !had.has(place.node))
  return set.invited.flatMap(({ id: person }): EditRequest[] => [
    {
      kind: 'invitation.change',
      person,
      from: offer.from,
      until: offer.until,
      ...(offer.role === null || offer.role === set.offer.role ? {} : { role: offer.role }),
    },
    ...teams.map(
      team => ({ kind: 'member.add', team, person, lead: false, from: null, until: null }) as const,
    ),
    ...places.map(
      ({ node, gives }) =>
        ({ kind: 'grant.add', node, principal: `person:${person}`, gives, from: null, until: null }) as const,
    ),
  ])
}

interface NewProps {
  readonly onClose: () => void
  readonly onMade: (id: string) => void
}

export function NewWelcomeSet({ onClose, onMade }: NewProps) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [name, setName] = useState('')
  const [note, setNote] = useState('')
  const [draft, setDraft] = useState(() => emptyOfferOf(workspace.me.privileges))
  const offer = offerOf(draft, workspace.timeZone)
  const view = useOfferView({ offer })
  const submit = async () => {
    const { applied } = await apply(
      [{ kind: 'welcome.create', welcome: 'new:set', name: name.trim(), note, offer }],
      `The welcome set ${name.trim()} is created.`,
    )
    const made = applied?.made['new:set']
    if (made !== undefined) onMade(made)
  }
  return (
    <Panel title="Create welcome set" onClose={onClose}>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <TextField label="Name" required value={name} onValue={setName} />
        <TextField label="Description" value={note} onValue={setNote} />
        <OfferForm hasSets={false} offer={draft} onOffer={setDraft} />
        <section aria-label="What people get" className="border-t border-base-content pt-2">
          <OfferPreview view={view} count={1} />
        </section>
        <ProblemNote problem={problem} />
        <button
          className="btn-main justify-self-start"
          disabled={isBusy || name.trim() === '' || view?.problem !== null}
        >
          Create welcome set
        </button>
      </form>
    </Panel>
  )
}
