import type { ReactNode } from 'react'
import type { PersonView } from '#contract/people-views.ts'
import type { PeopleQuery } from '#contract/requests.ts'
import { Day, Through } from '../../ui/dates.tsx'
import { InvitedActs, LinkEnd } from './InvitedActs.tsx'

export interface PeopleColumn {
  readonly head: string
  readonly width?: string
  /** Left out where there is little room. */
  readonly isSpare?: boolean
  readonly sort?: NonNullable<PeopleQuery['sort']>
  readonly cell: (person: PersonView, timeZone: string) => ReactNode
}

const name: PeopleColumn = {
  head: 'Name',
  sort: 'name',
  width: '21%',
  cell: ({ name }) => (
    <span className="font-semibold" title={name}>
      {name}
    </span>
  ),
}

const mail: PeopleColumn = {
  head: 'Address',
  sort: 'mail',
  cell: ({ mail }) => <span title={mail}>{mail}</span>,
}

const active: PeopleColumn = {
  head: 'Last active',
  isSpare: true,
  sort: 'active',
  width: '6.5rem',
  cell: ({ keeping }) => (keeping?.lastActive == null ? null : <Day at={keeping.lastActive} />),
}

const presence: PeopleColumn = {
  head: 'Here',
  sort: 'ends',
  width: '11rem',
  cell: (person, timeZone) => <Presence person={person} timeZone={timeZone} />,
}

const everybody: readonly PeopleColumn[] = [
  name,
  mail,
  {
    head: 'Role',
    isSpare: true,
    width: '17%',
    cell: ({ keeping }) => {
      const words = (keeping?.roles ?? [])
        .map(role => (role.over === null ? role.name : `${role.name} over ${role.over}`))
        .join(', ')
      return <span title={words}>{words}</span>
    },
  },
  {
    head: 'Teams',
    width: '20%',
    cell: person => <span title={teamWords(person)}>{teamWords(person)}</span>,
  },
  active,
  presence,
]

/** Of guests one asks other things: what they reach, and who answers for them. */
const guests: readonly PeopleColumn[] = [
  name,
  {
    head: 'From',
    isSpare: true,
    width: '15%',
    cell: ({ department, mail }) => department || mail.split('@')[1],
  },
  {
    head: 'Reaches',
    cell: ({ keeping }) => {
      const words = (keeping?.reaches ?? []).map(place => place.name).join(', ')
      return words === '' ? (
        <span className="quiet">nothing of yours</span>
      ) : (
        <span title={words}>{words}</span>
      )
    },
  },
  {
    head: 'Turns to',
    width: '15%',
    cell: ({ contact }) => contact?.name ?? <span className="text-warning">nobody</span>,
  },
  active,
  presence,
]

/** Of the invited: what they were offered, by whom, until when, and what can be done about it. */
const invited: readonly PeopleColumn[] = [
  name,
  mail,
  {
    head: 'Offered',
    isSpare: true,
    width: '15%',
    cell: person => {
      const roles = (person.keeping?.roles ?? []).map(role => role.name)
      const words = [...roles, teamWords(person)].filter(Boolean).join(', ')
      return <span title={words}>{words}</span>
    },
  },
  {
    head: 'Invited by',
    isSpare: true,
    width: '13%',
    cell: ({ keeping }) => keeping?.invitation?.by,
  },
  {
    head: 'Link works',
    width: '9rem',
    cell: ({ keeping }, timeZone) =>
      keeping?.invitation == null ? null : <LinkEnd until={keeping.invitation.until} timeZone={timeZone} />,
  },
  { head: 'With it', width: '18rem', cell: person => <InvitedActs person={person} /> },
]

/** Beside a panel there is room for what tells people apart. */
export function columnsFor({ as, status }: PeopleQuery, isNarrow: boolean): readonly PeopleColumn[] {
  const columns = status === 'invited' ? invited : as === 'guest' ? guests : everybody
  return isNarrow ? columns.filter(({ isSpare }) => isSpare !== true) : columns
}

/** A team that all members are in says nothing about one of them, unless they lead it. */
const teamWords = ({ teams }: PersonView): string =>
  teams
    .filter(team => team.lead || !team.isForAll)
    .map(team => (team.lead ? `${team.name} (lead)` : team.name))
    .join(', ')

/** Since when, until when, or that they were only invited. */
export function Presence({ person, timeZone }: { readonly person: PersonView; readonly timeZone: string }) {
  const { keeping, status, joinedAt } = person
  if (keeping?.invitation != null)
    return (
      <span className="text-warning">
        invited <Day at={keeping.invitation.at} />
      </span>
    )
  if (status === 'suspended') return <span className="text-error">suspended</span>
  if (keeping?.until != null) return <Through until={keeping.until} timeZone={timeZone} />
  return (
    <span className="quiet">
      {joinedAt === null ? (
        status
      ) : (
        <>
          since <Day at={joinedAt} />
        </>
      )}
    </span>
  )
}
