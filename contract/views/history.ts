import { Type } from '@sinclair/typebox'
import { CountedView, DifferenceView } from './impact.ts'
import { PlaceName } from './names.ts'
import { auditCategory, instant } from '../terms.ts'
import { type View, orNull, view } from '../pieces.ts'

export const AuditEventView = view('AuditEventView', {
  category: auditCategory,
  /** Told after the author's name: "gave Pilar Onsund Editor on Harrow Creek". */
  text: Type.String(),
  place: orNull(PlaceName),
  person: orNull(PlaceName),
})
export type AuditEventView = View<typeof AuditEventView>

export const CountView = view('CountView', { people: Type.Number(), places: Type.Number() })
export type CountView = View<typeof CountView>

export const AuditEntryView = view('AuditEntryView', {
  revision: Type.Number(),
  at: instant,
  /** `null` for the workspace itself: a start or an end that passed. */
  author: orNull(PlaceName),
  isMine: Type.Boolean(),
  reason: Type.String(),
  /** The first of them. */
  events: Type.Array(AuditEventView),
  eventCount: Type.Number(),
  gains: CountView,
  losses: CountView,
  undoes: orNull(Type.Number()),
  undoneBy: orNull(Type.Number()),
  mayUndo: Type.Boolean(),
})
export type AuditEntryView = View<typeof AuditEntryView>

/** A part of the history, newest first, as far as its reader may know it. */
export const HistoryView = view('HistoryView', {
  entries: Type.Array(AuditEntryView),
  /** Where the next part begins: the revision to ask before; `null` at the first day. */
  next: orNull(Type.Number()),
})
export type HistoryView = View<typeof HistoryView>

/** One entry with everybody and every place whose access it changed. */
export const AuditEntryDetailView = view('AuditEntryDetailView', {
  ...AuditEntryView.properties,
  differences: Type.Array(DifferenceView),
  /** What all comes to, where it is too much to be told one by one. */
  counted: orNull(CountedView),
})
export type AuditEntryDetailView = View<typeof AuditEntryDetailView>

export const ChangedView = view('ChangedView', {
  ...DifferenceView.properties /** The entries of the history that made it, oldest first. */,
  by: Type.Array(Type.Number()),
})
export type ChangedView = View<typeof ChangedView>

export const DiffView = view('DiffView', {
  revision: Type.Number(),
  changed: Type.Array(ChangedView),
  /** Entries that did so much that it was counted: of them only where they begin is told here. */
  counted: Type.Array(Type.Number()),
})
export type DiffView = View<typeof DiffView>
