import type { NotificationKind } from './kind.ts'
import { alone, recovered } from './kinds/alone.ts'
import { changed } from './kinds/changed.ts'
import { contact } from './kinds/contact.ts'
import { mentioned, replied } from './kinds/comments.ts'
import { ending } from './kinds/ending.ts'
import { opened } from './kinds/opened.ts'
import {
  accessAnswered,
  accessRequested,
  roleAnswered,
  roleRequested,
  teamAnswered,
  teamRequested,
} from './kinds/requests.ts'
import { handoverAnswered, handoverOffered, seenAs, roleHeld } from './kinds/roles.ts'
import { handed, handedApplied } from './kinds/handed.ts'
import { undone } from './kinds/undone.ts'
import { watched } from './kinds/watched.ts'

/** Every kind of notification, in the order in which people choose. A new kind is a file and a line here. */
export const notificationKinds = [
  opened,
  changed,
  ending,
  undone,
  alone,
  recovered,
  accessRequested,
  accessAnswered,
  watched,
  handed,
  handedApplied,
  teamRequested,
  teamAnswered,
  mentioned,
  replied,
  contact,
  roleRequested,
  roleAnswered,
  roleHeld,
  handoverOffered,
  handoverAnswered,
  seenAs,
] as unknown as readonly NotificationKind[]

export const kindOf = (name: string): NotificationKind | undefined =>
  notificationKinds.find(each => each.kind === name)
