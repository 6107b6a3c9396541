import { Type } from '@sinclair/typebox'
import { PathView } from './names.ts'
import { fileForm, instant, nodeKind } from '../terms.ts'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'

export const TreeItem = view('TreeItem', {
  id: Type.String(),
  name: Type.String(),
  kind: nodeKind,
  actions: Type.Number(),
  hasChildren: Type.Boolean(),
  isBroken: Type.Boolean(),
  isDraft: Type.Boolean(),
  /** In the archive by itself, not by what it stands in. */
  isArchived: Type.Boolean(),
  /** Set here: published with what is in it, or excluded from what is published above. */
  web: orNull(oneOf('published', 'excluded')),
  home: orNull(oneOf('team', 'person', 'shared')),
  /** Its place among its siblings: equal ones stand by name. */
  order: Type.Number(),
})
export type TreeItem = View<typeof TreeItem>

/** The tree as its reader finds it: each part in the order in which it is shown. */
export const TreeView = view('TreeView', {
  kept: orNull(TreeItem),
  opened: Type.Array(TreeItem),
  homes: Type.Array(TreeItem),
})
export type TreeView = View<typeof TreeView>

export const NodeView = view('NodeView', {
  ...TreeItem.properties,
  note: Type.String(),
  /** From the topmost ancestor that the reader sees without a gap, down to the parent. */
  path: Type.Array(Type.Object({ id: Type.String(), name: Type.String() }, strict)),
  children: Type.Array(TreeItem),
  /** At which of them limits stand, as far as the reader shares there: others are not told of limits. */
  limited: Type.Array(Type.String()),
  madeBy: orNull(Type.String()),
  madeAt: instant,
  /** Whether its reader may archive, bin, move it and bring it back. */
  mayRemove: Type.Boolean(),
  /** For an archived shared home: when it can be deleted for good, to whoever may. */
  deletableFrom: orNull(instant),
  /** Whether a visitor without an account can read it. */
  isPublic: Type.Boolean(),
  /** What was given here to the reader by name: theirs to give up. */
  mine: Type.Array(Type.String()),
})
export type NodeView = View<typeof NodeView>

/** Who last changed a place that stands in another one; of a file, what it is. */
export const PlaceChangeView = view('PlaceChangeView', {
  id: Type.String(),
  at: instant,
  /** `null` for somebody whom the reader does not know, or what happened by itself. */
  by: orNull(Type.String()),
  /** `null` where nothing was ever put there, and for what is no file. */
  file: orNull(Type.Object({ size: Type.Number(), version: Type.Number(), form: fileForm }, strict)),
})
export type PlaceChangeView = View<typeof PlaceChangeView>

/** A place in the bin, with what its reader may do about it. */
export const BinnedView = view('BinnedView', {
  ...PathView.properties,
  by: Type.String(),
  at: instant,
  /** When it is deleted for good by itself. */
  until: instant,
  mayDelete: Type.Boolean(),
})
export type BinnedView = View<typeof BinnedView>

export const TextView = view('TextView', {
  text: Type.String(),
  version: Type.Number(),
  changedAt: orNull(instant),
  changedBy: orNull(Type.String()),
})
export type TextView = View<typeof TextView>

/** One of the versions of a page; who wrote it is `null` for somebody whom the reader does not know. */
export const TextVersionView = view('TextVersionView', {
  version: Type.Number(),
  changedAt: instant,
  changedBy: orNull(Type.String()),
})
export type TextVersionView = View<typeof TextVersionView>

/** A place that can be offered: where the asker gives access. */
export const PlaceHit = view('PlaceHit', { ...PathView.properties, actions: Type.Number() })
export type PlaceHit = View<typeof PlaceHit>
