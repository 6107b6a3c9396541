import { actions } from '#core/levels/action.ts'
import { idOf, personId, placeId, principalOf, teamId } from './ids.ts'
import { edit, type Plan } from './plan.ts'
import { founder } from './scenario/people.ts'
import { requests, type DemoRole, looked, ownLevel, roles, seats } from './scenario/roles.ts'

/** The workspace's own roles and level, and how many seats it has bought. */
export const planRoles = (): Plan[] => [
  { day: seats.day, author: seats.by, edits: [edit('seats.change', { seats: seats.bought, from: null })] },
  ...roles.flatMap(planRole),
  ...requests.flatMap(planAsked),
  ...looked.map(({ by, through, reason, day }) => ({
    day,
    author: by,
    edits: [
      edit('session.begin', {
        session: idOf('session', by, String(day)),
        through: through === null ? null : personId(through),
        reason,
      }),
    ],
  })),
  {
    day: ownLevel.day,
    author: ownLevel.by,
    edits: [
      edit('level.create', {
        level: idOf('level', ownLevel.key),
        name: ownLevel.name,
        note: ownLevel.note,
        actions: actions(...ownLevel.actions),
      }),
    ],
  },
  {
    day: ownLevel.given.day,
    author: ownLevel.given.by,
    edits: [
      edit('grant.add', {
        grant: idOf('grant', ownLevel.given.place, ownLevel.given.to),
        node: placeId(ownLevel.given.place),
        principal: principalOf(ownLevel.given.to),
        gives: idOf('level', ownLevel.key),
        from: null,
        until: null,
      }),
    ],
  },
]

function planRole({ key, name, note, rank, privileges, addressable = false, day, held }: DemoRole): Plan[] {
  const role = idOf('role', key)
  const making = edit('role.create', { role, name, note, rank, privileges, addressable, seatExempt: false })
  return [
    { day, author: founder.key, edits: [making] },
    ...held.map(({ by, overTeam, day: since }) => ({
      day: since,
      author: founder.key,
      edits: [
        edit('role.assign', {
          holding: idOf('holding', key, by),
          person: personId(by),
          role,
          scope: overTeam === undefined ? { over: 'workspace' } : { over: 'team', team: teamId(overTeam) },
          from: null,
          until: null,
        }),
      ],
    })),
  ]
}

function planAsked({ by, privilege, reason, day, declined }: (typeof requests)[number]): Plan[] {
  const request = idOf('role-request', by, privilege)
  const answer =
    declined === undefined
      ? []
      : [
          {
            day: declined.day,
            author: declined.by,
            edits: [edit('request.decline', { request, comment: declined.reason })],
          },
        ]
  const wants = { of: 'privilege', privilege }
  return [{ day, author: by, edits: [edit('request.make', { request, wants, reason: reason })] }, ...answer]
}
