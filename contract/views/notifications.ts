import { Type } from '@sinclair/typebox'
import { PlaceName } from './names.ts'
import { editRequest } from '../edit-requests.ts'
import { instant } from '../terms.ts'
import { type View, oneOf, orNull, strict, titled, view } from '../pieces.ts'

/** What was done, what one was told, and what the questions of the access model are answered with. */
export const NotificationChoice = titled(
  'NotificationChoice',
  oneOf('by mail too', 'here only', 'not at all'),
)
export type NotificationChoice = View<typeof NotificationChoice>

export const NotificationView = view('NotificationView', {
  id: Type.String(),
  kind: Type.String(),
  at: instant,
  isRead: Type.Boolean(),
  text: Type.String(),
  place: orNull(PlaceName),
  team: orNull(PlaceName),
  /** A page of the workspace where something can be done about it. */
  to: orNull(Type.Object({ name: Type.String(), path: Type.String() }, strict)),
  /** What the reader can do about it at once, ready to be previewed. */
  offer: orNull(
    Type.Object(
      { label: Type.String(), confirmation: Type.String(), edits: Type.Array(editRequest) },
      strict,
    ),
  ),
  /** The entry of the history that it is about. */
  revision: orNull(Type.Number()),
})
export type NotificationView = View<typeof NotificationView>

/** What one was told, and how one wants to be told. */
export const NotificationsView = view('NotificationsView', {
  unread: Type.Number(),
  /** Newest first. */
  notifications: Type.Array(NotificationView),
  choices: Type.Array(
    Type.Object({ kind: Type.String(), when: Type.String(), choice: NotificationChoice }, strict),
  ),
})
export type NotificationsView = View<typeof NotificationsView>
