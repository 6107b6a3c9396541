import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { Action } from '../levels/action.ts'
import type { Privilege } from '../levels/privilege.ts'
import type { NodeKind } from '../tree/node.ts'

/**
 * Why a change set was refused, as data. Codes are permanent. Places and people named here may be
 * ones that the asker must not know: whoever puts a refusal into words leaves those out.
 */
export type Refusal =
  | {
      readonly code: 'unknown'
      readonly what: Unknown
    }
  | { readonly code: 'action-missing'; readonly action: Action; readonly node: NodeId }
  | { readonly code: 'privilege-missing'; readonly privilege: Privilege }
  | { readonly code: 'lead-missing'; readonly team: TeamId }
  | { readonly code: 'gives-more'; readonly node: NodeId; readonly lacks: readonly Action[] }
  | { readonly code: 'own-raise'; readonly nodes: readonly NodeId[] }
  | {
      readonly code: 'no-steward-left'
      readonly nodes: readonly NodeId[]
      readonly when: 'now' | 'after ends'
    }
  | { readonly code: 'no-owner-left' }
  | { readonly code: 'own-limit' }
  | { readonly code: 'fixed-place'; readonly kind: 'home' | 'own subtree' }
  | { readonly code: 'outranked'; readonly person: PersonId | null }
  | { readonly code: 'guest-rule'; readonly rule: GuestRule; readonly person: PersonId | null }
  | { readonly code: 'end-in-past' }
  | { readonly code: 'start-after-end' }
  | { readonly code: 'wrong-place'; readonly within: NodeKind; readonly kind: NodeKind }
  | { readonly code: 'limits-only' }
  /** A sentence of the kind of column, or of views. */
  | { readonly code: 'wrong-settings'; readonly why: string }
  | {
      readonly code: 'already-there'
      readonly what:
        | 'person'
        | 'membership'
        | 'break'
        | 'role'
        | 'role request'
        | 'handover'
        | 'kind'
        | 'handle'
        | 'request'
        | 'access'
        | 'access request'
        | 'watch'
        | 'id'
    }
  | { readonly code: 'invitation-over' }
  | { readonly code: 'link-over' }
  | { readonly code: 'house-rules' }
  | { readonly code: 'wrong-handle' }
  | {
      readonly code: 'domain-not-welcome'
      readonly as: 'member' | 'guest'
      readonly domains: readonly string[]
    }
  | { readonly code: 'not-by-request' }
  | { readonly code: 'not-its-maker'; readonly what: 'link' | 'welcome set' | 'invitation' }
  | { readonly code: 'publishing-off' }
  | { readonly code: 'in-use'; readonly what: 'level' | 'role' | 'welcome set' | 'team' }
  | { readonly code: 'locked'; readonly what: 'role' | 'ownership' }
  | { readonly code: 'no-seat'; readonly free: number; readonly needed: number }
  | { readonly code: 'kept-by-directory'; readonly team: TeamId }
  | { readonly code: 'has-steward'; readonly node: NodeId }
  | { readonly code: 'private' }
  | { readonly code: 'not-asked-for' }
  | { readonly code: 'handover-over' }
  | { readonly code: 'reason-missing' }
  | { readonly code: 'asked-too-much' }
  | { readonly code: 'too-early'; readonly what: 'team' | 'home' }
  | { readonly code: 'not-active' }
  | { readonly code: 'too-much'; readonly what: 'depth' | 'copies' | 'copy of a copy' | 'changes' }
  | { readonly code: 'nothing-to-undo' }
  | { readonly code: 'never-undone' }

export type GuestRule = 'leads no team' | 'not welcome' | 'no stewardship' | 'no role' | 'no private folder'
export type RefusalCode = Refusal['code']
export type Unknown =
  | 'place'
  | 'person'
  | 'team'
  | 'grant'
  | 'limit'
  | 'break'
  | 'role'
  | 'invitation'
  | 'level'
  | 'column'
  | 'section'
  | 'view'
  | 'channel'
  | 'request'
  | 'welcome set'
  | 'link'
  | 'handover'
  | 'watch'
