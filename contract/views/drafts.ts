import { Type } from '@sinclair/typebox'
import { PlaceName } from './names.ts'
import { Problem } from './problem.ts'
import { editRequest } from '../edit-requests.ts'
import { instant } from '../terms.ts'
import { type View, orNull, view } from '../pieces.ts'

export const DraftHead = view('DraftHead', {
  id: Type.String(),
  name: Type.String(),
  from: orNull(PlaceName),
  comment: Type.String(),
  changedAt: instant,
  /** How many acts it has. */
  count: Type.Number(),
})
export type DraftHead = View<typeof DraftHead>

/** One's change sets that are not applied yet. */
export const DraftsView = view('DraftsView', {
  /** The one that is the draft; `null` if nothing is. */
  draft: orNull(DraftHead),
  /** Kept for later, or handed over by somebody; the newest first. */
  kept: Type.Array(DraftHead),
})
export type DraftsView = View<typeof DraftsView>

/** One of them, with all its edits, ready to be previewed and applied. */
export const DraftView = view('DraftView', { ...DraftHead.properties, edits: Type.Array(editRequest) })
export type DraftView = View<typeof DraftView>

/** One act of it: what the history would tell of it, or why it does not fit any more. */
export const DraftItemView = view('DraftItemView', {
  lines: Type.Array(Type.String()),
  /** How many lines more it would have. */
  more: Type.Number(),
  problem: orNull(Problem),
})
export type DraftItemView = View<typeof DraftItemView>

/** The draft, act by act: worked out when it is looked at. */
export const DraftItemsView = view('DraftItemsView', { items: Type.Array(DraftItemView) })
export type DraftItemsView = View<typeof DraftItemsView>

/** People who may apply a change set, as far as the asker may know. */
export const RecipientsView = view('RecipientsView', {
  recipients: Type.Array(PlaceName),
  mayI: Type.Boolean(),
})
export type RecipientsView = View<typeof RecipientsView>
