import type { Logger } from 'pino'
import type { Instant } from '#core/base/instant.ts'
import type { Config } from './config.ts'
import type { Hub } from './live/hub.ts'
import type { Asker } from './services/asker.ts'
import type { Writer } from './store/writer.ts'

/** What the services work with: made once in main, or by a test. */
export interface Parts {
  readonly config: Config
  readonly writer: Writer
  readonly log: Logger
  readonly hub: Hub<Asker>
  readonly clock: () => Instant
  /** A new id: lower-case, sortable by time, not to be guessed. */
  readonly newId: () => string
  /** Signs invitation links; kept in a file of its own beside the database. */
  readonly secret: string
}
