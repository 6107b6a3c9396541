import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { KeptPlaceView, OffboardingView, PersonView, TakenOverView } from '#contract/views/people.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { levelActions } from '#core/levels/level.ts'
import { usePeopleNamesQuery, useTeamsQuery } from '../../../api/api.ts'
import { useOffboardingQuery } from '../../../api/people.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { counted, listed } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Decision } from '../../../ui/Decision.tsx'

interface Props {
  readonly person: PersonView
  readonly onDone: () => void
  /** Where leaving it undone is something else than being done. */
  readonly onLeave?: () => void
}

/** Removing somebody, or leaving oneself: all that they alone keep is shown, and who takes it over goes in the same act. */
export function Offboarding({ person, onDone, onLeave = onDone }: Props) {
  const { slug } = useHere()
  const { data: leaving } = useOffboardingQuery({ slug, id: person.id })
  return leaving === undefined ? (
    <p className="quiet mt-2 text-sm">Loading …</p>
  ) : (
    <Removing person={person} leaving={leaving} onDone={onDone} onLeave={onLeave} />
  )
}

function Removing({
  person,
  leaving,
  onDone,
  onLeave,
}: Required<Props> & { readonly leaving: OffboardingView }) {
  const { slug, workspace } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const [taker, setTaker] = useState('')
  const [others, setOthers] = useState<Readonly<Record<string, string>>>({})
  const takerOf = (id: string) => others[id] ?? taker
  const edits = removal(person, { leaving, teams, takerOf })
  const isMe = person.id === workspace.me.id
  const confirmation = isMe ? `You have left ${workspace.name}.` : `${person.name} is removed.`
  const decision = useDecision(edits, confirmation, onDone)
  const places = leaving.places.filter(place => !goesWithTeam(place, takerOf))
  const alone = [...leaving.teams, ...places]
  const open = alone.filter(each => takerOf(each.id) === '' || each.may === null).length
  return (
    <Decision
      label={isMe ? `Leave ${workspace.name}` : `Remove ${person.name}`}
      isDrastic
      {...decision}
      onLeave={onLeave}
    >
      <p className="text-sm">
        {isMe
          ? 'Your roles, teams and access end now, for good. What you created stays. To come back, you need a new invitation.'
          : `The roles, teams and access of ${person.name} end now, for good. What they created stays. To come back, they need a new invitation.`}
      </p>
      {alone.length + leaving.guests.length > 0 && (
        <>
          <Taker
            label={'Who takes over teams, places and guests'}
            person={person}
            value={taker}
            onValue={setTaker}
          />
          <AllKept
            person={person}
            leaving={leaving}
            takerOf={takerOf}
            onTaker={(id, next) => setOthers({ ...others, [id]: next })}
          />
        </>
      )}
      <Warnings leaving={leaving} open={open} />
    </Decision>
  )
}

/** The next lead of a team gives access there as the leaver did. */
const goesWithTeam = ({ withTeam }: KeptPlaceView, takerOf: (id: string) => string): boolean =>
  withTeam !== null && takerOf(withTeam) !== ''

function Warnings({ leaving, open }: { readonly leaving: OffboardingView; readonly open: number }) {
  const words = [
    ...(leaving.links.length > 0
      ? [`These join links stop working: ${listed(leaving.links.map(link => link.name))}.`]
      : []),
    ...(leaving.hasMore
      ? [
          'They are the only steward or lead of more places or teams that you cannot see. All owners are notified.',
        ]
      : []),
    ...(open > 0
      ? [
          `${counted(open, 'team or place has', 'teams or places have')} nobody to take over. All owners are notified.`,
        ]
      : []),
  ]
  return words.map(each => (
    <p key={each} className="text-sm text-warning">
      {each}
    </p>
  ))
}

interface AllKeptProps {
  readonly person: PersonView
  readonly leaving: OffboardingView
  readonly takerOf: (id: string) => string
  readonly onTaker: (id: string, taker: string) => void
}

const AllKept = ({ person, leaving: { teams, places, guests }, takerOf, onTaker }: AllKeptProps) => (
  <ul aria-label="Teams, places and guests to take over" className="text-sm">
    {teams.map(team => (
      <Kept
        key={team.id}
        person={person}
        kept={team}
        what={`only lead of ${team.name}`}
        taker={takerOf(team.id)}
        onTaker={taker => onTaker(team.id, taker)}
      />
    ))}
    {places.map(place =>
      goesWithTeam(place, takerOf) ? (
        <li key={place.id} className="border-t border-base-300 py-1.5">
          steward of {place.name}: the next lead of the team takes over
        </li>
      ) : (
        <Kept
          key={place.id}
          person={person}
          kept={place}
          what={`only steward of ${place.name}`}
          note={place.path}
          taker={takerOf(place.id)}
          onTaker={taker => onTaker(place.id, taker)}
        />
      ),
    )}
    {guests.length > 0 && (
      <li className="border-t border-base-300 py-1.5">
        contact of {listed(guests.map(guest => guest.name))}: the person who takes over, or you, becomes the
        contact
      </li>
    )}
  </ul>
)

interface Handing {
  readonly leaving: OffboardingView
  readonly teams: readonly TeamView[]
  readonly takerOf: (id: string) => string
}

/** Who takes over comes first where the author gives it; what is recovered, only once nobody is left. */
function removal(person: PersonView, { leaving, teams, takerOf }: Handing): EditRequest[] {
  const places = leaving.places.filter(place => !goesWithTeam(place, takerOf))
  const given = (kept: readonly TakenOverView[], may: TakenOverView['may']) =>
    kept.filter(each => each.may === may && takerOf(each.id) !== '')
  const contact = leaving.guests.length > 0 ? takerOf('guests') : ''
  return [
    ...given(leaving.teams, 'give').map(({ id: team }): EditRequest => {
      const taker = takerOf(team)
      const isIn = teams.find(each => each.id === team)?.people.some(each => each.id === taker) === true
      return isIn
        ? { kind: 'member.change', team, person: taker, lead: true }
        : { kind: 'member.add', team, person: taker, lead: true, from: null, until: null }
    }),
    ...given(places, 'give').map(({ id: node }): EditRequest => ({
      kind: 'grant.add',
      node,
      principal: `person:${takerOf(node)}`,
      gives: levelActions('Steward'),
      from: null,
      until: null,
    })),
    { kind: 'person.remove', person: person.id, contact: contact === '' ? null : contact },
    ...given(places, 'recover').map(({ id: node }): EditRequest => ({
      kind: 'access.recover',
      node,
      taker: takerOf(node),
      limits: [],
    })),
  ]
}

interface KeptProps {
  readonly person: PersonView
  readonly kept: TakenOverView
  readonly what: string
  readonly note?: string
  readonly taker: string
  readonly onTaker: (taker: string) => void
}

const Kept = ({ person, kept, what, note = '', taker, onTaker }: KeptProps) => (
  <li className="grid grid-cols-[minmax(0,1fr)_9.5rem] items-center gap-2 border-t border-base-300 py-1.5">
    <span>
      {what}
      {note !== '' && <span className="quiet block truncate">{note}</span>}
    </span>
    {kept.may === null ? (
      <span className="text-warning">you cannot decide this</span>
    ) : (
      <Taker isQuiet label={`Who takes over ${kept.name}`} person={person} value={taker} onValue={onTaker} />
    )}
  </li>
)

interface TakerProps {
  readonly label: string
  readonly person: PersonView
  readonly value: string
  readonly onValue: (taker: string) => void
  readonly isQuiet?: boolean
}

function Taker({ label, person, value, onValue, isQuiet = false }: TakerProps) {
  const { slug } = useHere()
  const { data: names = [] } = usePeopleNamesQuery(slug)
  const takers = names.filter(
    each => each.kind === 'member' && each.status === 'active' && each.id !== person.id,
  )
  return (
    <Choice
      isQuiet={isQuiet}
      label={label}
      value={value}
      options={[{ value: '', name: 'nobody yet' }, ...takers.map(({ id, name }) => ({ value: id, name }))]}
      onValue={onValue}
    />
  )
}
