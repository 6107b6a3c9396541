import type { Transaction } from 'sequelize'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import type { CopiedContent, CountCondition, RowChange } from '../commit.ts'
import type { Tables } from '../tables.ts'

/**
 * What is written in places lies beside the state that questions of access hold in memory: it is read when it is asked
 * for. Each kind says how its rows follow what becomes of places.
 */
export interface ContentKind {
  /** Holds where none of it is written in any of these places. */
  readonly noneIn: <E>(at: Places, orElse: E) => CountCondition<E>
  /** All of it in places that are deleted for good. */
  readonly deletion: (at: Places) => readonly RowChange[]
  /** Makes it the beginning of what is written in their copies. */
  readonly copy: (tables: Tables, copied: CopiedContent, transaction: Transaction) => Promise<void>
}

export interface Places {
  readonly workspace: WorkspaceId
  readonly nodes: readonly NodeId[]
}
