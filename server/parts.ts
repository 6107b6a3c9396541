import type { Logger } from 'pino'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Config } from './config.ts'
import type { Hub } from './live/hub.ts'
import type { Asker } from './services/viewer/asker.ts'
import type { LiveConcern } from './services/notifications/live-events.ts'
import type { Choices } from './services/notifications/choices.ts'
import type { Newest } from './services/notifications/newest.ts'
import type { AccountSets } from './store/accounts.ts'
import type { Sessions } from './store/sessions.ts'
import type { FileStore } from './files/store.ts'
import type { HeldBoards } from './services/boards/held-boards.ts'
import type { Indexing } from './services/search/indexer.ts'
import type { SearchIndex } from './store/search/index-port.ts'
import type { DocumentNodes } from './worker/visible-documents.ts'
import type { Receiving } from './services/content/uploads.ts'
import type { Renderer } from './renderer/renderer.ts'
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
  /** Reads what people send, away from this process. */
  readonly renderer: Renderer
  readonly files: FileStore
  readonly index: SearchIndex
  /** How far the index is made. */
  readonly indexing: Indexing
  /** The places of its documents, by workspace. */
  readonly documentNodes: Map<WorkspaceId, DocumentNodes>
  /** The boards that somebody looks at. */
  readonly boards: HeldBoards
  /** The requests that take bytes of uploads now, by upload. */
  readonly receiving: Map<string, Receiving>
  /** How many ZIP files are being made, by who takes them. */
  readonly zipping: Map<PersonId, number>
  readonly clock: () => Instant
  /** A new id: lower-case, sortable by time, not to be guessed. */
  readonly newId: () => string
  /** Signs links and seals what must not be read; kept in a file of its own beside the database. */
  readonly secret: string
  readonly sessions: Sessions
  readonly choices: Choices
  readonly newest: Newest
}
