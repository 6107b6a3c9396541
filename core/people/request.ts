import type { NodeId, PersonId, RequestId, RoleId, TeamId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { ActionSet } from '../levels/action.ts'
import type { Privilege } from '../levels/privilege.ts'

/**
 * Somebody asks for what others give: a place in a team, a role, what a privilege lets one do, or access to a place.
 * Given, a request goes; declined, it stays with its answer.
 */
export interface RequestFor<W extends Wanted = Wanted> {
  readonly id: RequestId
  readonly person: PersonId
  readonly wants: W
  readonly at: Instant
  readonly reason: string
  readonly declined: { readonly by: PersonId; readonly at: Instant; readonly comment: string } | null
}

/** A place is named by its address: one that is hidden, or not there at all, is asked for alike. */
export type Wanted =
  | { readonly of: 'team'; readonly team: TeamId }
  | { readonly of: 'role'; readonly role: RoleId }
  | { readonly of: 'privilege'; readonly privilege: Privilege }
  | { readonly of: 'access'; readonly node: NodeId; readonly actions: ActionSet }

export type WantedOf<K extends Wanted['of']> = Extract<Wanted, { readonly of: K }>
export type TeamRequest = RequestFor<WantedOf<'team'>>
export type RoleRequest = RequestFor<WantedOf<'role' | 'privilege'>>
export type AccessRequest = RequestFor<WantedOf<'access'>>

export const isFor =
  <K extends Wanted['of']>(...of: readonly K[]) =>
  (request: RequestFor): request is RequestFor<WantedOf<K>> =>
    (of as readonly string[]).includes(request.wants.of)

export const isForTeam = isFor('team')
export const isForRole = isFor('role', 'privilege')
export const isForAccess = isFor('access')

/** What is asked for, whatever of it: access to a place is one thing, however much is wanted there. */
export function wantedId(wants: Wanted): string {
  switch (wants.of) {
    case 'team':
      return wants.team
    case 'role':
      return wants.role
    case 'privilege':
      return wants.privilege
    case 'access':
      return wants.node
  }
}

/** Alike for two requests of a person for the same thing. */
export const requestKey = ({ person, wants }: Pick<RequestFor, 'person' | 'wants'>): string =>
  `${person} ${wants.of} ${wantedId(wants)}`

const day: Instant = 86_400_000
/** Unanswered for so long, those who were told of a request for access are reminded. */
export const remindAfter: Instant = 2 * day
/** And so long, it goes on to everybody who may decide it. */
export const goesOnAfter: Instant = 5 * day
/** So long after it was made, a request for access is over. */
export const accessRequestTime: Instant = 60 * day
