import type { NoticeKind } from './kind.ts'
import { alone, recovered } from './kinds/alone.ts'
import { changed } from './kinds/changed.ts'
import { contact } from './kinds/contact.ts'
import { ending } from './kinds/ending.ts'
import { opened } from './kinds/opened.ts'
import {
  accessAnswered,
  accessAsked,
  roleAnswered,
  roleAsked,
  teamAnswered,
  teamAsked,
} from './kinds/requests.ts'
import { handoverAnswered, handoverOffered, lookedThrough, roleHeld } from './kinds/roles.ts'
import { handed, handedApplied } from './kinds/handed.ts'
import { undone } from './kinds/undone.ts'
import { watched } from './kinds/watched.ts'

/** Every kind of notice, in the order in which people choose. A new kind is a file and a line here. */
export const noticeKinds = [
  opened,
  changed,
  ending,
  undone,
  alone,
  recovered,
  accessAsked,
  accessAnswered,
  watched,
  handed,
  handedApplied,
  teamAsked,
  teamAnswered,
  contact,
  roleAsked,
  roleAnswered,
  roleHeld,
  handoverOffered,
  handoverAnswered,
  lookedThrough,
] as unknown as readonly NoticeKind[]

export const kindOf = (name: string): NoticeKind | undefined => noticeKinds.find(each => each.kind === name)
