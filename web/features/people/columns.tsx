import { type ReactNode, useState } from 'react'
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
  head: 'Status',
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
    head: 'Organisation',
    isSpare: true,
    width: '15%',
    cell: ({ department, mail }) => department || mail.split('@')[1],
  },
  {
    head: 'Places',
    cell: ({ keeping }) => {
      const words = (keeping?.reaches ?? []).map(place => place.name).join(', ')
      return words === '' ? (
        <span className="quiet">no places of yours</span>
      ) : (
        <span title={words}>{words}</span>
      )
    },
  },
  {
    head: 'Contact',
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
    head: 'Gets',
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
    head: 'Link',
    width: '9rem',
    cell: ({ keeping }, timeZone) =>
      keeping?.invitation == null ? null : <LinkEnd until={keeping.invitation.until} timeZone={timeZone} />,
  },
  { head: 'Invitation', width: '18rem', cell: person => <InvitedActs person={person} /> },
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

/** Whether somebody is let in, since when, or from when, or until when. */
export function Presence({ person, timeZone }: { readonly person: PersonView; readonly timeZone: string }) {
  const [openedAt] = useState(Date.now)
  const { keeping, status, joinedAt } = person
  const { from = null, until = null, invitation = null } = keeping ?? {}
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
