import type { Logger } from 'pino'
import type { Instant } from '#core/base/instant.ts'
import type { Config } from './config.ts'
import type { Hub } from './live/hub.ts'
import type { Asker } from './services/viewer/asker.ts'
import type { LiveConcern } from './services/notifications/live-events.ts'
import type { Choices } from './services/notifications/choices.ts'
import type { Newest } from './services/notifications/newest.ts'
import type { AccountSets } from './store/accounts.ts'
import type { Sessions } from './store/sessions.ts'
import type { Scaler } from './pictures/scaler.ts'
import type { Turns } from './services/viewer/turns.ts'
import type { Writer } from './store/writer.ts'
import type { Thread } from './worker/asking.ts'

/** What the services work with: made once in main, or by a test. */
export interface Parts extends AccountSets {
  readonly config: Config
  readonly writer: Writer
  readonly log: Logger
  readonly hub: Hub<Asker, readonly LiveConcern[]>
  /** For questions that would hold up everybody else's. */
  readonly thread: Thread
  /** For long work that needs whole workspaces. */
  readonly turns: Turns
  /** Reads pictures that people send, away from this process. */
  readonly scaler: Scaler
  readonly clock: () => Instant
  /** A new id: lower-case, sortable by time, not to be guessed. */
  readonly newId: () => string
  /** Signs links and seals what must not be read; kept in a file of its own beside the database. */
  readonly secret: string
  readonly sessions: Sessions
  readonly choices: Choices
  readonly newest: Newest
}
