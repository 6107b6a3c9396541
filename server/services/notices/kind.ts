import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Nearing } from '#core/changes/passing.ts'
import type { Difference } from '#core/impact/impact.ts'
import type { Moment, RecordChange } from '#core/state/state.ts'
import type { NoticeView } from '#contract/oversight-views.ts'
import type { PlaceName } from '#contract/views.ts'
import type { Asker } from '../asker.ts'

/** What was written in one commit of a workspace: all that a notice can come of. */
export interface Written {
  readonly author: PersonId
  readonly revision: number
  readonly before: Moment
  readonly after: Moment
  readonly changes: readonly RecordChange[]
  readonly effect: readonly Difference[]
  readonly nearing: readonly Nearing[]
  /** Places to which access was recovered. */
  readonly recovered: readonly NodeId[]
  /** What was undone, and whose act it was. */
  readonly undone: { readonly revision: number; readonly author: PersonId; readonly at: Instant } | null
}

/** What one person is told, kept as data: it is put into words when it is read, as far as it may be then. */
export interface Notice<Data> {
  readonly person: PersonId
  readonly data: Data
}

export interface Told {
  readonly text: string
  readonly place: PlaceName | null
  readonly team?: PlaceName
  /** Where in the workspace something can be done about it. */
  readonly to?: NoticeView['to']
  /** The entry of the history that it is about. */
  readonly revision: number | null
}

/** One kind of notice: what it comes of, whom it tells, and in which words. */
export interface NoticeKind<Data = unknown> {
  readonly kind: string
  /** As a person chooses it: "Tell me when …". */
  readonly when: string
  readonly find: (written: Written) => readonly Notice<Data>[]
  /** `undefined` where nothing of it may be told to its reader any more. */
  readonly tell: (reader: Asker, data: Data) => Told | undefined
}
