import type { Sequelize } from 'sequelize'
import { first } from './001-first.ts'
import { historyAndNotices } from './002-history-notices.ts'
import { placesAndPeople } from './003-places-people.ts'
import { people } from './004-people.ts'
import { roles } from './005-roles.ts'
import { accessRequests } from './006-access-requests.ts'
import { largeWorkspaces } from './007-large-workspaces.ts'
import { setAndLevel } from './008-set-and-level.ts'
import { usesAndEnds } from './009-uses-and-ends.ts'
import { privateFolders } from './010-private-folders.ts'
import { latestAndFormer } from './011-latest-and-former.ts'
import { requests } from './012-requests.ts'
import { names } from './013-names.ts'
import { log } from './014-log.ts'
import { lazy } from './015-lazy.ts'
import { files } from './016-files.ts'
import { boards } from './017-boards.ts'

export interface Migration {
  readonly name: string
  readonly up: (database: Sequelize) => Promise<void>
}

/** In the order in which they run. What has landed is never edited: a change of the tables is a new one. */
export const migrations: readonly Migration[] = [
  first,
  historyAndNotices,
  placesAndPeople,
  people,
  roles,
  accessRequests,
  largeWorkspaces,
  setAndLevel,
  usesAndEnds,
  privateFolders,
  latestAndFormer,
  requests,
  names,
  log,
  lazy,
  files,
  boards,
]
