import type { Instant } from '#core/base/instant.ts'
import type { EditRequest } from './edit-requests.ts'
import type { PlaceHit } from './people-views.ts'
import type { Problem } from './problem.ts'
import type { GrantView, PathView, PlaceName } from './views.ts'

/** Access that is asked for, drafted, taken over, and looked at over many places. */

/** What is given at some places, or to some person or team, as far as the reader gives access there. */
export interface GrantsOverviewView {
  readonly revision: number
  readonly grants: readonly PlacedGrantView[]
  /** Of the places asked about those where the reader gives access, and how many others there are. */
  readonly places: readonly PlaceHit[]
  readonly others: number
}

export interface PlacedGrantView extends GrantView {
  readonly place: PathView
  /** What the reader has there: at most that is theirs to give. */
  readonly held: number
  /** Through a team that the person asked about is in; else it is theirs by name, or what was asked about. */
  readonly isThrough: boolean
}

/** Edits that give here what is given elsewhere, and what they leave out. */
export interface TakenOverView {
  readonly from: PathView
  readonly edits: readonly EditRequest[]
  readonly leftOut: readonly string[]
}

/** One's change sets that are not applied yet. */
export interface DraftsView {
  /** The one that is the draft; `null` if nothing is. */
  readonly draft: DraftHead | null
  /** Kept for later, or handed over by somebody; the newest first. */
  readonly kept: readonly DraftHead[]
}

export interface DraftHead {
  readonly id: string
  readonly name: string
  readonly from: PlaceName | null
  readonly comment: string
  readonly changedAt: Instant
  /** How many acts it has. */
  readonly count: number
}

/** One of them, with all its edits, ready to be previewed and applied. */
export interface DraftView extends DraftHead {
  readonly edits: readonly EditRequest[]
}

/** The draft, act by act: worked out when it is looked at. */
export interface DraftItemsView {
  readonly items: readonly DraftItemView[]
}

/** One act of it: what the history would tell of it, or why it does not fit any more. */
export interface DraftItemView {
  readonly lines: readonly string[]
  /** How many lines more it would have. */
  readonly more: number
  readonly problem: Problem | null
}

/** People who may apply a change set, as far as the asker may know. */
export interface RecipientsView {
  readonly recipients: readonly PlaceName[]
  readonly mayI: boolean
}
