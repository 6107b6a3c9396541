import { Type } from '@sinclair/typebox'
import { PathView, PersonName, PlaceName } from './names.ts'
import { instant, nodeKind, privilege } from '../terms.ts'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'

export const ViewingSessionView = view('ViewingSessionView', {
  id: Type.String(),
  by: PlaceName,
  through: orNull(PlaceName),
  at: instant,
  until: instant,
  reason: Type.String(),
  /** The reader's own, and not over. */
  isOpen: Type.Boolean(),
})
export type ViewingSessionView = View<typeof ViewingSessionView>

/** Looking by privilege: who may, who did, and what runs now. */
export const ViewingSessionsView = view('ViewingSessionsView', {
  maySeeAs: Type.Boolean(),
  mayOutline: Type.Boolean(),
  people: Type.Array(PersonName),
  holders: Type.Array(Type.Object({ person: PlaceName, privileges: Type.Array(privilege) }, strict)),
  /** The newest first, as far as the reader may know of them. */
  sessions: Type.Array(ViewingSessionView),
})
export type ViewingSessionsView = View<typeof ViewingSessionsView>

/** A place as a look shows it. */
export const ViewedPlaceView = view('ViewedPlaceView', {
  ...PathView.properties,
  kind: nodeKind,
  home: orNull(oneOf('team', 'person', 'shared')),
  hasChildren: Type.Boolean(),
  isBroken: Type.Boolean(),
  /** What the one who is looked through has there; `null` in the outline. */
  actions: orNull(Type.Number()),
})
export type ViewedPlaceView = View<typeof ViewedPlaceView>

export const ViewedView = view('ViewedView', {
  session: ViewingSessionView,
  /** The place that is open; `null` at the top. */
  place: orNull(
    Type.Object(
      { ...ViewedPlaceView.properties, through: Type.Array(Type.String()), text: orNull(Type.String()) },
      strict,
    ),
  ),
  children: Type.Array(ViewedPlaceView),
  /** At the top of the outline: whose private folders there are besides, the first of them by name. */
  kept: Type.Object({ of: Type.Array(Type.String()), count: Type.Number() }, strict),
})
export type ViewedView = View<typeof ViewedView>
