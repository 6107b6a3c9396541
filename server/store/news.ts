import type { AccountId, ColumnId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { AuditSubject } from '#core/changes/audit-event.ts'

/**
 * What a write means for those who keep something beside the database: each kind tells one of them enough to follow.
 * It is data alone, and small: it lies in the log, and other processes read it there.
 */
export type News =
  /** A workspace is at this revision: what was done stands in its history. */
  | { readonly of: 'revision'; readonly workspace: WorkspaceId; readonly revision: number }
  /** What began and ended by itself up to the entry stands in the history. */
  | { readonly of: 'passed'; readonly workspace: WorkspaceId }
  /** Its state says the same, and was read anew: what had changed since it was read before is no longer kept apart. */
  | { readonly of: 'read-anew'; readonly workspace: WorkspaceId }
  | AccountNews
  | {
      readonly of: 'choice'
      readonly workspace: WorkspaceId
      readonly person: PersonId
      readonly kind: string
      readonly choice: string
    }
  /** Somebody was told something, or has read it. */
  | { readonly of: 'notifications'; readonly workspace: WorkspaceId; readonly people: readonly PersonId[] }
  | { readonly of: 'mails' }
  /** Something else is written in some places; what a revision changes of them is told by that alone. */
  | { readonly of: 'content'; readonly workspace: WorkspaceId; readonly nodes: readonly NodeId[] }
  /** Rows of a board are others than before, or hold something else; `null` where it is very many. */
  | {
      readonly of: 'rows'
      readonly workspace: WorkspaceId
      readonly board: NodeId
      readonly rows: readonly NodeId[] | null
    }
  /** Versions of files are gone: of some bytes nobody may have any. */
  | { readonly of: 'files' }
  | EventNews
  /** Sign-ins that began, changed or ended. */
  | { readonly of: 'sign-ins'; readonly sids: readonly string[] }
  /** Since then it is written who was here. */
  | { readonly of: 'seen'; readonly since: Instant }

/** What of an account changed that each request is asked about. */
export interface AccountNews {
  readonly of: 'account'
  readonly account: AccountId
  readonly hasTwoStep?: boolean
  readonly isConfirmed?: boolean
}

/** What open pages hear of. */
export interface EventNews {
  readonly of: 'event'
  readonly workspace: WorkspaceId
  readonly revision: number
  readonly concerns: readonly Concern[]
}

/** Some topics, and whom they concern: data alone, since an event is kept long after the states that it came from. */
export interface Concern {
  readonly topics: readonly string[]
  /** So much changed that nobody is left out. */
  readonly isAll?: boolean
  readonly people?: readonly PersonId[]
  /** All who know of one of these. */
  readonly subjects?: readonly AuditSubject[]
  /** All who are not guests. */
  readonly isOfMembers?: boolean
  /** All who see this place; with columns, only those who see one of them there. */
  readonly node?: NodeId
  readonly columns?: readonly ColumnId[]
  /** All who see something below this place, and do not know it: how they come to it is told to them without it. */
  readonly above?: NodeId
}
