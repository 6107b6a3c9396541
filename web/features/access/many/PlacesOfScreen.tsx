import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { PlacedGrantView } from '#contract/views/access.ts'
import type { PlaceHit } from '#contract/views/content.ts'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { levelActions } from '#core/levels/level.ts'
import { useGrantsQuery } from '../../../api/access.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { usePersonQuery, usePlacesQuery } from '../../../api/people.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox } from '../../../ui/Combobox.tsx'
import { useDates } from '../../../ui/dates.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { type Given, LevelChoice, nameOfGiven } from '../../../ui/LevelChoice.tsx'
import { DayField } from '../../../ui/DayField.tsx'
import { NotYet } from '../../../ui/NotYet.tsx'
import { atMostFor } from '../at-most.ts'
import type { Row } from './many.ts'
import { ManyGrants } from './ManyGrants.tsx'

/** Every place of a person or a team where one gives access: level, source and end; added, changed and ended in one go. */
export function PlacesOfPersonScreen() {
  const { slug } = useHere()
  const { id = '' } = useParams()
  const { data: person, error } = usePersonQuery({ slug, id })
  if (person === undefined) return <NotYet error={error} />
  return (
    <PlacesOf
      principal={`person:${id}`}
      name={person.name}
      isGuest={person.kind === 'guest'}
      back={`/at/${slug}/people/${id}`}
    />
  )
}

export function PlacesOfTeamScreen() {
  const { slug } = useHere()
  const { id = '' } = useParams()
  const { data: teams, error } = useTeamsQuery(slug)
  const team = teams?.find(each => each.id === id)
  if (team === undefined) return <NotYet error={error} isAbsent={teams !== undefined} />
  return (
    <PlacesOf principal={`team:${id}`} name={team.name} isGuest={false} back={`/at/${slug}/teams/${id}`} />
  )
}

interface Props {
  readonly principal: `person:${string}` | `team:${string}`
  readonly name: string
  readonly isGuest: boolean
  readonly back: string
}

function PlacesOf({ principal, name, isGuest, back }: Props) {
  const { slug } = useHere()
  const { currentData: given } = useGrantsQuery({ slug, principal })
  const rowOf = useRowOf()
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <div className="max-w-3xl">
        <p className="text-sm">
          <Link className="link" to={back}>
            {name}
          </Link>
        </p>
        <h1 className="mb-1 text-xl font-bold">Places of {name}</h1>
        <p className="quiet mb-3">
          Grants on places that you share. Grants of a team are changed on the team’s page.
        </p>
        <AddPlace principal={principal} name={name} isGuest={isGuest} />
        <div className="mt-4">
          {given === undefined ? (
            <p className="quiet">Loading …</p>
          ) : given.grants.length === 0 ? (
            <p>{name} has no grants on places that you share.</p>
          ) : (
            <ManyGrants label={`Places of ${name}`} rows={given.grants.map(rowOf)} />
          )}
        </div>
      </div>
    </main>
  )
}

/** A grant as a row: its place and the way to it, where it comes from, and when it begins and ends. */
function useRowOf(): (grant: PlacedGrantView) => Row {
  const { timeZone } = useHere().workspace
  const inWords = useDates()
  return grant => {
    const { place, isThrough, name, from, until, isWaiting } = grant
    const parts = [
      place.path,
      isThrough ? `from ${name}` : '',
      isWaiting && from !== null ? `starts ${inWords(from, 'day of a year', timeZone)}` : '',
      until === null ? '' : `until ${inWords(until - 1, 'day of a year', timeZone)}`,
    ]
    return {
      key: grant.id,
      title: place.name,
      note: parts.filter(Boolean).join(' · '),
      grants: [grant],
      isFixed: isThrough,
    }
  }
}

function AddPlace({ principal, name, isGuest }: Omit<Props, 'back'>) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const [place, setPlace] = useState<PlaceHit>()
  const { data: places = [] } = usePlacesQuery({ slug, find: typed }, { skip: typed.trim() === '' })
  if (place !== undefined)
    return (
      <Adding
        principal={principal}
        name={name}
        isGuest={isGuest}
        place={place}
        onDone={() => setPlace(undefined)}
      />
    )
  return (
    <Combobox
      label={`Share a place with ${name}`}
      placeholder={`Share a place with ${name}`}
      nobody="No place found that you share"
      options={places.map(({ id, name: called, path }) => ({ value: id, name: called, note: path }))}
      onTyped={setTyped}
      onChoose={({ value }) => setPlace(places.find(each => each.id === value))}
    />
  )
}

interface AddingProps extends Omit<Props, 'back'> {
  readonly place: PlaceHit
  readonly onDone: () => void
}

function Adding({ principal, name, isGuest, place, onDone }: AddingProps) {
  const { timeZone, ownLevels } = useHere().workspace
  const [gives, setGives] = useState<Given>(levelActions('Reader'))
  const [through, setThrough] = useState('')
  const level = nameOfGiven(gives, ownLevels)
  const edit: EditRequest = {
    kind: 'grant.add',
    node: place.id,
    principal,
    gives,
    from: null,
    until: through === '' ? null : endOfDay(through, timeZone),
  }
  const decision = useDecision([edit], `${name} now has ${level} on ${place.name}.`, onDone)
  return (
    <Decision label={`Give ${level} on ${place.name}`} onLeave={onDone} {...decision}>
      <LevelChoice
        label="Level"
        value={gives}
        own={ownLevels}
        atMost={atMostFor(isGuest ? 'guest' : 'member', place.actions)}
        onChange={setGives}
      />
      <DayField label="Ends after" value={through} onValue={setThrough} />
    </Decision>
  )
}
