import type { RequestId, NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Nearing, Waiting } from '#core/changes/scheduled.ts'
import type { Difference } from '#core/access/diff-rows.ts'
import type { RecordedImpact } from '#core/impact/bulk.ts'
import type { Snapshot, RecordChange } from '#core/state/state.ts'
import type { PlaceName } from '#contract/views/names.ts'
import type { NotificationChoice, NotificationView } from '#contract/views/notifications.ts'
import { type Asker, asks } from '../viewer/asker.ts'

/** What was written in one commit of a workspace: all that a notification can come of. */
export interface Written {
  readonly author: PersonId
  readonly revision: number
  readonly before: Snapshot
  readonly after: Snapshot
  readonly changes: readonly RecordChange[]
  readonly impact: readonly Difference[]
  /** Where the effect is so wide that it is counted: what it comes to. Then `effect` tells only of where it begins. */
  readonly bulk: RecordedImpact | null
  readonly nearing: readonly Nearing[]
  /** Requests for access that nobody has answered for a while. */
  readonly waiting: readonly Waiting[]
  /** What was said to those whose requests were accepted. */
  readonly answers: ReadonlyMap<RequestId, string>
  /** What those for whom something is opened are told besides. */
  readonly message: string
  /** Who had handed this change set over to its author. */
  readonly handedBy: PersonId | null
  /** Places to which access was recovered. */
  readonly recovered: readonly NodeId[]
  /** What was undone, and whose act it was. */
  readonly undone: { readonly revision: number; readonly author: PersonId; readonly at: Instant } | null
}

/** A snapshot at which nothing was done: for what is told because time passes, or of what is not in the history. */
export const nothingWritten = (author: PersonId, snapshot: Snapshot): Written => ({
  author,
  revision: snapshot.state.revision,
  before: snapshot,
  after: snapshot,
  changes: [],
  impact: [],
  bulk: null,
  nearing: [],
  waiting: [],
  answers: new Map(),
  message: '',
  handedBy: null,
  recovered: [],
  undone: null,
})

/** What one person is told, kept as data: it is put into words when it is read, as far as it may be then. */
export interface Notification<Data> {
  readonly person: PersonId
  readonly data: Data
}

export interface NotificationText {
  readonly text: string
  readonly place: PlaceName | null
  readonly team?: PlaceName
  /** Where in the workspace something can be done about it. */
  readonly to?: NotificationView['to']
  readonly offer?: NotificationView['offer']
  /** The entry of the history that it is about. */
  readonly revision: number | null
}

/** One kind of notification: what it comes of, whom it tells, and in which words. */
export interface NotificationKind<Data = unknown> {
  readonly kind: string
  /** As a person chooses it: "Tell me when …". */
  readonly when: string
  /** How it is told to who has chosen nothing; by mail too if nothing is said. */
  readonly preset?: NotificationChoice
  /** Whether it can ever concern somebody, as they stand now; everybody if nothing is said. */
  readonly reaches?: (reader: Asker) => boolean
  readonly find: (written: Written) => readonly Notification<Data>[]
  /** `undefined` where nothing of it may be told to its reader any more. */
  readonly tell: (reader: Asker, data: Data) => NotificationText | undefined
}

export const isMember = ({ subject }: Asker): boolean => !subject.isGuest
export const isOwner = (reader: Asker): boolean => asks(reader, 'own')
