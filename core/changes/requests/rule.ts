import type { GrantId, HoldingId, MembershipId, PersonId, RoleId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { Scope } from '../../people/person.ts'
import type { RequestFor, Wanted } from '../../people/request.ts'
import type { Gives } from '../../rules/access-entry.ts'
import type { Snapshot } from '../../state/state.ts'
import type { Context, Outcome } from '../context.ts'
import type { Refusal } from '../refusal.ts'

/** What one kind of thing that people ask for has of its own. */
export interface WantRule<W extends Wanted = Wanted> {
  /** What asking needs. Rights are read in the state before the change set. */
  readonly lacksAsking: (context: Context, wants: W) => Refusal | undefined
  /** Why there is nothing to ask for. */
  readonly whyPointless: (snapshot: Snapshot, person: PersonId, wants: W) => Refusal | undefined
  /** Whether it can be answered still. */
  readonly isOpen: (request: RequestFor<W>, now: Instant) => boolean
  /** Whether whoever asks is to take it that it waits, and so may not ask again. */
  readonly waits: (snapshot: Snapshot, request: RequestFor<W>) => boolean
  /** Said where one asks again. */
  readonly alreadyAsked: 'request' | 'role request' | 'access request'
  /** What deciding needs; the same for a request that is hidden as for none. */
  readonly lacksDeciding: (context: Context, request: RequestFor<W>) => Refusal | undefined
  /** What giving this in answer needs besides. */
  readonly lacksGiving: (
    context: Context,
    request: RequestFor<W>,
    given: RequestAnswer,
  ) => Refusal | undefined
  readonly give: (context: Context, request: RequestFor<W>, given: RequestAnswer) => Outcome
}

/** What a request is answered with; it need not be all that was asked for, but of its kind. */
export type RequestAnswer =
  | { readonly of: 'team'; readonly membership: MembershipId }
  | {
      readonly of: 'role'
      readonly holding: HoldingId
      readonly role: RoleId
      readonly scope: Scope
      readonly until: Instant | null
    }
  | { readonly of: 'access'; readonly grant: GrantId; readonly gives: Gives; readonly until: Instant | null }

export const unknownRequest: Refusal = { code: 'unknown', what: 'request' }
