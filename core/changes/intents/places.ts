import type { ColumnId, GrantId, LimitId, NodeId, PersonId, WatchId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { ActionSet } from '../../levels/action.ts'
import type { Gives } from '../../rules/entry.ts'
import type { Principal } from '../../rules/principal.ts'
import type { RecordChange } from '../../state/state.ts'
import type { NodeKind } from '../../tree/node.ts'

/** What can be done about places and the access to them. */

export interface CreateHome {
  readonly kind: 'home.create'
  readonly node: NodeId
  readonly name: string
}

export interface CreateNode {
  readonly kind: 'node.create'
  readonly node: NodeId
  readonly parent: NodeId
  readonly as: NodeKind
  readonly name: string
}

export interface DescribeNode {
  readonly kind: 'node.describe'
  readonly node: NodeId
  readonly name?: string | undefined
  readonly note?: string | undefined
}

export interface AddGrant {
  readonly kind: 'grant.add'
  readonly grant: GrantId
  readonly node: NodeId
  readonly principal: Principal
  readonly gives: Gives
  readonly from: Instant | null
  readonly until: Instant | null
}

export interface ChangeGrant {
  readonly kind: 'grant.change'
  readonly grant: GrantId
  readonly gives?: Gives | undefined
  readonly until?: Instant | null | undefined
}

export interface EndGrant {
  readonly kind: 'grant.end'
  readonly grant: GrantId
}

export interface AddLimit {
  readonly kind: 'limit.add'
  readonly limit: LimitId
  readonly node: NodeId
  readonly principal: Principal
  readonly allows: ActionSet
  readonly sparesStewards: boolean
  readonly from: Instant | null
  readonly until: Instant | null
}

export interface ChangeLimit {
  readonly kind: 'limit.change'
  readonly limit: LimitId
  readonly allows?: ActionSet | undefined
  readonly sparesStewards?: boolean | undefined
  readonly until?: Instant | null | undefined
}

export interface EndLimit {
  readonly kind: 'limit.end'
  readonly limit: LimitId
}

export interface BreakInheritance {
  readonly kind: 'node.break'
  readonly node: NodeId
  readonly mode: 'keep' | 'empty'
  /** The ids of the grants that it makes begin with this. */
  readonly copies: string
}

export interface RestoreInheritance {
  readonly kind: 'node.restore'
  readonly node: NodeId
  /** Which of the node's own grants go: the copies that the break made, none, or all. */
  readonly drop: 'copies' | 'none' | 'own'
}

export interface MoveNode {
  readonly kind: 'node.move'
  readonly node: NodeId
  readonly parent: NodeId
}

export interface SetNodeState {
  readonly kind: 'node.state'
  readonly node: NodeId
  readonly archived?: boolean | undefined
  readonly binned?: boolean | undefined
  readonly draft?: boolean | undefined
}

/** Takes back an earlier change set, as far as what it did still stands. */
export interface UndoChangeSet {
  readonly kind: 'undo'
  /** The revision that it made, and what it did to each record. */
  readonly revision: number
  readonly changes: readonly RecordChange[]
  /** Places with something in them that is not part of the state, such as text: these are not unmade. */
  readonly written: readonly NodeId[]
}

export interface SetWeb {
  readonly kind: 'node.web'
  readonly node: NodeId
  readonly web: 'published' | 'excluded' | null
}

export interface OrderNode {
  readonly kind: 'node.order'
  readonly node: NodeId
  /** Place among its siblings: between two of them lies always another number. */
  readonly order: number
}

/** For good: only what lies in the bin, and never undone. */
export interface DeleteNode {
  readonly kind: 'node.delete'
  readonly node: NodeId
}

/** Limits and breaks travel, grants never. Only what the author may copy is in the copy. */
export interface DuplicateNode {
  readonly kind: 'node.duplicate'
  readonly node: NodeId
  readonly parent: NodeId
  readonly name: string
  /** The ids of what it makes begin with this. */
  readonly copies: string
}

/** Makes somebody Steward of a place where no active person has share, and lifts what stands against it. */
export interface RecoverAccess {
  readonly kind: 'access.recover'
  readonly node: NodeId
  readonly taker: PersonId
  readonly grant: GrantId
  readonly limits: readonly LimitId[]
}

export interface CreateColumn {
  readonly kind: 'column.create'
  readonly column: ColumnId
  readonly board: NodeId
  readonly name: string
  readonly order: number
  readonly viewers: readonly Principal[] | null
  readonly editors: readonly Principal[] | null
}

export interface ChangeColumn {
  readonly kind: 'column.change'
  readonly column: ColumnId
  readonly name?: string | undefined
  readonly order?: number | undefined
  readonly viewers?: readonly Principal[] | null | undefined
  readonly editors?: readonly Principal[] | null | undefined
}

export interface DeleteColumn {
  readonly kind: 'column.delete'
  readonly column: ColumnId
}

export interface BeginWatch {
  readonly kind: 'watch.begin'
  readonly watch: WatchId
  readonly node: NodeId
}

export interface EndWatch {
  readonly kind: 'watch.end'
  readonly watch: WatchId
}
