import type { Migration } from '../list.ts'
import { first } from './001-first.ts'
import { logAndMisses } from './002-log-and-misses.ts'

/** Of the sessions' own database, in the order in which they run. */
export const sessionMigrations: readonly Migration[] = [first, logAndMisses]
