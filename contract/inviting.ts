import type { EditRequest, OfferRequest, ScopeRequest } from './edit-requests.ts'

/** Whom an offer is made. */
export interface Invited {
  /** The id, or `new:x`. */
  readonly person: string
  readonly mail: string
  readonly name: string
  readonly message?: string
  /** The welcome set that the offer is from. */
  readonly welcome?: string | null
  /** False where the link is passed on by hand. */
  readonly mailed?: boolean
  /** Over whom the offered role is held; the whole workspace if nothing is said. */
  readonly scope?: ScopeRequest
}

/** The edits that invite somebody with all that is offered. Judged like any others: an offer gives no rights. */
export const invitingEdits = (
  { as, role, teams, places, from, until }: OfferRequest,
  { person, mail, name, message = '', welcome = null, mailed = true, scope = { over: 'workspace' } }: Invited,
): EditRequest[] => [
  {
    kind: 'person.invite',
    person,
    mail,
    name,
    as,
    role: as === 'guest' ? null : role,
    scope,
    from,
    until,
    message,
    welcome,
    mailed,
  },
  ...teams.map(team => ({ kind: 'member.add', team, person, lead: false, from: null, until: null }) as const),
  ...places.map(
    ({ node, gives }) =>
      ({
        kind: 'grant.add',
        node,
        principal: `person:${person}`,
        gives,
        from: null,
        until: null,
      }) as const,
  ),
]
