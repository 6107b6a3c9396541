import { type ReactNode, useState } from 'react'
import type { PersonView } from '#contract/views/people.ts'
import type { PeopleQuery } from '#contract/requests.ts'
import { Day, Through } from '../../../ui/dates.tsx'
import { InvitedActs, LinkEnd } from './InvitedActs.tsx'

export interface PeopleColumn {
  readonly head: string
  /** In rem: at least so wide; what room is left is shared by these. */
  readonly width: number
  /** Left out where there is little room. */
  readonly isSpare?: boolean
  /** Shown only to who asks for it. */
  readonly isExtra?: boolean
  readonly sort?: NonNullable<PeopleQuery['sort']>
  readonly cell: (person: PersonView, timeZone: string) => ReactNode
}

const name: PeopleColumn = {
  head: 'Name',
  sort: 'name',
  width: 11,
  cell: ({ name }) => (
    <span className="font-semibold" title={name}>
      {name}
    </span>
  ),
}

const mail: PeopleColumn = {
  head: 'Address',
  sort: 'mail',
  width: 14,
  cell: ({ mail }) => <span title={mail}>{mail}</span>,
}

const active: PeopleColumn = {
  head: 'Last active',
  isSpare: true,
  sort: 'active',
  width: 6,
  cell: ({ managed }) => (managed?.lastActive == null ? null : <Day at={managed.lastActive} />),
}

const presence: PeopleColumn = {
  head: 'Status',
  sort: 'ends',
  width: 9.5,
  cell: (person, timeZone) => <Presence person={person} timeZone={timeZone} />,
}

const handle: PeopleColumn = {
  head: 'Handle',
  isExtra: true,
  isSpare: true,
  sort: 'handle',
  width: 9,
  cell: ({ handle }) => (handle === null ? null : `@${handle}`),
}

const seat: PeopleColumn = {
  head: 'Seat',
  isExtra: true,
  isSpare: true,
  sort: 'seat',
  width: 4.5,
  cell: ({ managed }) => (managed?.takesSeat === true ? 'Used' : <span className="quiet">None</span>),
}

const inviter: PeopleColumn = {
  head: 'Invited by',
  isSpare: true,
  sort: 'inviter',
  width: 7.75,
  cell: ({ managed }) => managed?.invitedBy,
}

const joined: PeopleColumn = {
  head: 'Joined',
  isExtra: true,
  isSpare: true,
  sort: 'joined',
  width: 6.5,
  cell: ({ joinedAt }) => (joinedAt === null ? null : <Day at={joinedAt} />),
}

const everybody: readonly PeopleColumn[] = [
  name,
  handle,
  mail,
  {
    head: 'Role',
    isSpare: true,
    sort: 'role',
    width: 8.5,
    cell: ({ managed }) => {
      const words = (managed?.roles ?? [])
        .map(role => (role.over === null ? role.name : `${role.name} over ${role.over}`))
        .join(', ')
      return <span title={words}>{words}</span>
    },
  },
  {
    head: 'Teams',
    sort: 'teams',
    width: 10,
    cell: person => <span title={teamWords(person)}>{teamWords(person)}</span>,
  },
  { ...inviter, isExtra: true },
  joined,
  active,
  seat,
  presence,
]

/** Of guests one asks other things: what they reach, and who answers for them. */
const guests: readonly PeopleColumn[] = [
  name,
  {
    head: 'Organisation',
    isSpare: true,
    sort: 'department',
    width: 8.5,
    cell: ({ department, mail }) => department || mail.split('@')[1],
  },
  {
    head: 'Places',
    width: 9,
    cell: ({ managed }) => {
      const words = (managed?.reaches ?? []).map(place => place.name).join(', ')
      return words === '' ? (
        <span className="quiet">no places of yours</span>
      ) : (
        <span title={words}>{words}</span>
      )
    },
  },
  {
    head: 'Contact',
    sort: 'contact',
    width: 7.75,
    cell: ({ contact }) => contact?.name ?? <span className="text-warning">nobody</span>,
  },
  inviter,
  handle,
  joined,
  active,
  presence,
]

/** Of the invited: what they were offered, by whom, until when, and what can be done about it. */
const invited: readonly PeopleColumn[] = [
  name,
  mail,
  {
    head: 'Gets',
    isSpare: true,
    sort: 'role',
    width: 10,
    cell: person => {
      const roles = (person.managed?.roles ?? []).map(role => role.name)
      const words = [...roles, teamWords(person)].filter(Boolean).join(', ')
      return <span title={words}>{words}</span>
    },
  },
  inviter,
  {
    head: 'Link',
    sort: 'link',
    width: 9,
    cell: ({ managed }, timeZone) =>
      managed?.invitation == null ? null : <LinkEnd until={managed.invitation.until} timeZone={timeZone} />,
  },
  { head: 'Invitation', width: 18, cell: person => <InvitedActs person={person} /> },
]

const listOf = ({ as, status }: PeopleQuery): readonly PeopleColumn[] =>
  status === 'invited' ? invited : as === 'guest' ? guests : everybody

/** The heads of those columns that one may add to what is listed now. */
export const extraColumnsOf = (query: PeopleQuery): string[] =>
  listOf(query).flatMap(({ head, isExtra }) => (isExtra === true ? [head] : []))

/** Beside a panel there is room for what tells people apart. */
export const columnsFor = (
  query: PeopleQuery,
  { isNarrow, added }: { readonly isNarrow: boolean; readonly added: readonly string[] },
): readonly PeopleColumn[] =>
  listOf(query).filter(
    ({ head, isSpare, isExtra }) =>
      !(isNarrow && isSpare === true) && (isExtra !== true || added.includes(head)),
  )

/** A team that all members are in says nothing about one of them, unless they lead it. */
const teamWords = ({ teams }: PersonView): string =>
  teams
    .filter(team => team.lead || !team.isForAll)
    .map(team => (team.lead ? `${team.name} (lead)` : team.name))
    .join(', ')

/** Whether somebody is let in, since when, or from when, or until when. */
export function Presence({ person, timeZone }: { readonly person: PersonView; readonly timeZone: string }) {
  const [openedAt] = useState(Date.now)
  const { managed, status, joinedAt } = person
  const { from = null, until = null, invitation = null } = managed ?? {}
  if (invitation !== null)
    return (
      <span className="text-warning">
        Invited <Day at={invitation.at} />
      </span>
    )
  if (status === 'suspended') return <span className="text-error">Suspended</span>
  if (from !== null && from > openedAt)
    return (
      <span className="text-warning">
        Starts <Day at={from} timeZone={timeZone} />
      </span>
    )
  if (until !== null && until <= openedAt)
    return (
      <span className="text-error">
        Ended <Day at={until - 1} timeZone={timeZone} />
      </span>
    )
  if (until !== null) return <Through until={until} timeZone={timeZone} isFirst />
  return <Active since={joinedAt} />
}

const Active = ({ since }: { readonly since: number | null }) => (
  <span className="quiet">
    Active
    {since !== null && (
      <>
        {' '}
        since <Day at={since} />
      </>
    )}
  </span>
)
