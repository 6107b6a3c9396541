import { useState } from 'react'
import type { WelcomeSetView } from '#contract/views/onboarding.ts'
import { levelActions } from '#core/levels/level.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { usePlacesQuery, useOnboardingQuery } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Combobox } from '../../../ui/Combobox.tsx'
import { LevelChoice } from '../../../ui/LevelChoice.tsx'
import { DayField } from '../../../ui/DayField.tsx'
import { Tick } from '../../../ui/Tick.tsx'
import { draftOf, emptyOfferOf, type OfferDraft, type OfferedPlace } from './offer.ts'

interface Props {
  readonly offer: OfferDraft
  readonly onOffer: (offer: OfferDraft) => void
}

/** What whoever comes in gets: as whom, with which role, into which teams and places, from when until when. */
export const OfferForm = ({ offer, onOffer, hasSets = true }: Props & { readonly hasSets?: boolean }) => (
  <div className="grid grid-cols-1 gap-4">
    {hasSets && <FromSet offer={offer} onOffer={onOffer} />}
    <As offer={offer} onOffer={onOffer} />
    <Teams offer={offer} onOffer={onOffer} />
    <Places offer={offer} onOffer={onOffer} />
    <div className="grid grid-cols-2 gap-3">
      <DayField
        label="Starts"
        hint="Empty: now."
        value={offer.from}
        onValue={from => onOffer({ ...offer, from })}
      />
      <DayField
        label="Ends after"
        hint="Empty: no end."
        value={offer.through}
        onValue={through => onOffer({ ...offer, through })}
      />
    </div>
  </div>
)

function FromSet({ offer, onOffer }: Props) {
  const { slug, workspace } = useHere()
  const { data } = useOnboardingQuery(slug)
  const sets = data?.welcomeSets ?? []
  if (sets.length === 0) return null
  const take = (id: string) => {
    const set = sets.find(each => each.id === id)
    onOffer(set === undefined ? emptyOfferOf(workspace.me.privileges) : draftFrom(set, workspace.timeZone))
  }
  return (
    <Choice
      label="Welcome set"
      value={offer.welcome}
      options={[{ value: '', name: 'none' }, ...sets.map(({ id, name }) => ({ value: id, name }))]}
      onValue={take}
    />
  )
}

export const draftFrom = ({ id, offer, placeNames }: WelcomeSetView, timeZone: string): OfferDraft =>
  draftOf(offer, { timeZone, names: placeNames, welcome: id })

const kinds = [
  { as: 'member', word: 'Members', needs: 'invite members' },
  { as: 'guest', word: 'Guests', needs: 'invite guests' },
] as const

function As({ offer, onOffer }: Props) {
  const { workspace } = useHere()
  const { roles, me, defaultRole } = workspace
  const usual = roles.find(role => role.id === defaultRole)?.name ?? 'Member'
  return (
    <fieldset>
      <legend className="label-line">Invite as</legend>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        {kinds.map(({ as, word, needs }) => (
          <label key={as} className="flex items-center gap-2">
            <input
              type="radio"
              className="radio radio-sm border-base-content/60"
              name="as"
              checked={offer.as === as}
              disabled={!me.privileges.includes(needs)}
              onChange={() => onOffer({ ...offer, as, teams: [], role: '', welcome: '' })}
            />
            {word}
          </label>
        ))}
        {offer.as === 'member' && roles.length > 0 && (
          <select
            className="choice ml-auto w-40"
            aria-label="Role"
            value={offer.role}
            onChange={event => onOffer({ ...offer, role: event.target.value, welcome: '' })}
          >
            <option value="">{usual}</option>
            {roles
              .filter(role => role.id !== defaultRole)
              .map(role => (
                <option key={role.id} value={role.id}>
                  {role.name}
                </option>
              ))}
          </select>
        )}
      </div>
      {offer.role !== '' && offer.as === 'member' && (
        <p className="quiet mt-1 text-sm">{roles.find(role => role.id === offer.role)?.note}</p>
      )}
    </fieldset>
  )
}

function Teams({ offer, onOffer }: Props) {
  const { slug } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const offered = teams.filter(
    team =>
      team.mayManage &&
      team.joining !== 'everyone' &&
      !team.keptByDirectory &&
      !team.isArchived &&
      (offer.as === 'member' || team.welcomesGuests),
  )
  if (offered.length === 0) return null
  const tick = (team: string, isOn: boolean) =>
    onOffer({
      ...offer,
      welcome: '',
      teams: isOn ? [...offer.teams, team] : offer.teams.filter(each => each !== team),
    })
  return (
    <fieldset>
      <legend className="label-line">Teams</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        {offered.map(team => (
          <Tick key={team.id} isOn={offer.teams.includes(team.id)} onTick={isOn => tick(team.id, isOn)}>
            {team.name}
          </Tick>
        ))}
      </div>
    </fieldset>
  )
}

function Places({ offer, onOffer }: Props) {
  const { slug, workspace } = useHere()
  const [typed, setTyped] = useState('')
  const { data: found = [] } = usePlacesQuery({ slug, find: typed }, { skip: typed.trim() === '' })
  const set = (places: readonly OfferedPlace[]) => onOffer({ ...offer, places, welcome: '' })
  const add = (id: string) => {
    const place = found.find(each => each.id === id)
    if (place === undefined || offer.places.some(each => each.node === id)) return
    const gives = levelActions('Reader') & place.actions
    set([...offer.places, { node: id, gives, name: place.name, path: place.path, atMost: place.actions }])
  }
  const mostFor = (place: OfferedPlace) =>
    offer.as === 'guest' ? place.atMost & workspace.guestCeiling : place.atMost
  return (
    <fieldset>
      <legend className="label-line">Places</legend>
      <ul>
        {offer.places.map(place => (
          <li key={place.node} className="mb-1 grid grid-cols-[minmax(0,1fr)_8.5rem_auto] items-center gap-2">
            <span className="truncate" title={place.path}>
              {place.name}
            </span>
            <LevelChoice
              label={`Level at ${place.name}`}
              value={place.gives}
              own={workspace.ownLevels}
              atMost={mostFor(place)}
              onChange={gives =>
                set(offer.places.map(each => (each.node === place.node ? { ...each, gives } : each)))
              }
            />
            <button
              type="button"
              className="btn-inline text-sm"
              aria-label={`Remove: ${place.name}`}
              onClick={() => set(offer.places.filter(each => each.node !== place.node))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <Combobox
        label="Share a place"
        placeholder="Name of a place to share"
        nobody="No place found that you share"
        options={found.map(({ id, name, path }) => ({ value: id, name, note: path }))}
        onTyped={setTyped}
        onChoose={({ value }) => add(value)}
      />
    </fieldset>
  )
}
