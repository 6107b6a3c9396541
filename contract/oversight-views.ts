import type { Instant } from '#core/base/instant.ts'
import type { ColumnAccess } from '#core/access/columns.ts'
import type { AuditCategory } from '#core/changes/audit-event.ts'
import type { EditRequest } from './edit-requests.ts'
import type { CountedView, DifferenceView } from './impact-views.ts'
import type { PathView, PlaceName } from './views.ts'

/** What was done, what one was told, and what the questions of the access model are answered with. */

export type NotificationChoice = 'by mail too' | 'here only' | 'not at all'

/** What one was told, and how one wants to be told. */
export interface NotificationsView {
  readonly unread: number
  /** Newest first. */
  readonly notifications: readonly NotificationView[]
  readonly choices: readonly {
    readonly kind: string
    readonly when: string
    readonly choice: NotificationChoice
  }[]
}

export interface NotificationView {
  readonly id: string
  readonly kind: string
  readonly at: Instant
  readonly isRead: boolean
  readonly text: string
  readonly place: PlaceName | null
  readonly team: PlaceName | null
  /** A page of the workspace where something can be done about it. */
  readonly to: { readonly name: string; readonly path: string } | null
  /** What the reader can do about it at once, ready to be previewed. */
  readonly offer: {
    readonly act: string
    readonly said: string
    readonly edits: readonly EditRequest[]
  } | null
  /** The entry of the history that it is about. */
  readonly revision: number | null
}

/** A part of the history, newest first, as far as its reader may know it. */
export interface HistoryView {
  readonly entries: readonly AuditEntryView[]
  /** Where the next part begins: the revision to ask before; `null` at the first day. */
  readonly next: number | null
}

export interface AuditEntryView {
  readonly revision: number
  readonly at: Instant
  /** `null` for the workspace itself: a start or an end that passed. */
  readonly author: PlaceName | null
  readonly isMine: boolean
  readonly reason: string
  /** The first of them. */
  readonly events: readonly AuditEventView[]
  readonly eventCount: number
  readonly gains: CountView
  readonly losses: CountView
  readonly undoes: number | null
  readonly undoneBy: number | null
  readonly mayUndo: boolean
}

export interface AuditEventView {
  readonly category: AuditCategory
  /** Told after the author's name: "gave Pilar Onsund Editor on Harrow Creek". */
  readonly text: string
  readonly place: PlaceName | null
  readonly person: PlaceName | null
}

export interface CountView {
  readonly people: number
  readonly places: number
}

/** One entry with everybody and every place whose access it changed. */
export interface AuditEntryDetailView extends AuditEntryView {
  readonly differences: readonly DifferenceView[]
  /** What all comes to, where it is too much to be told one by one. */
  readonly counted: CountedView | null
}

/** One part of a long answer, with the revision that it speaks of. */
export interface PageView<Item> {
  readonly revision: number
  readonly total: number
  readonly items: readonly Item[]
  /** Where the next part begins; `null` at the end. */
  readonly next: number | null
}

export interface PlaceAccessView extends PathView {
  readonly actions: number
}

/** For each question, in its order: the actions, or `null` for what may not be asked or is not there. */
export interface CheckedView {
  readonly revision: number
  readonly answers: readonly ({ readonly actions: number; readonly column?: ColumnAccess } | null)[]
}

/** The smallest sets of edits by which somebody could do what they may not. */
export interface WhyNotView {
  readonly revision: number
  /** They may already. */
  readonly may: boolean
  /** False where the search was stopped before all was tried. */
  readonly isComplete: boolean
  readonly remedies: readonly RemedyView[]
}

export interface RemedyView {
  /** Ready to be previewed and applied. */
  readonly edits: readonly EditRequest[]
  /** One sentence an edit, as said to whoever does it. */
  readonly words: readonly string[]
  /** How many actions at how many places it gives to anybody beyond what was asked. */
  readonly beyond: number
  readonly mayI: boolean
  /** Others who have the rights for it, as far as the asker knows them. */
  readonly others: readonly PlaceName[]
}

export interface DiffView {
  readonly revision: number
  readonly changed: readonly ChangedView[]
  /** Entries that did so much that it was counted: of them only where they begin is told here. */
  readonly counted: readonly number[]
}

export interface ChangedView extends DifferenceView {
  /** The entries of the history that made it, oldest first. */
  readonly by: readonly number[]
}
