import type { GrantId, LevelId, LimitId, NodeId, PersonId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import type { ActionSet } from '../levels/action.ts'
import type { Principal } from './principal.ts'

/** What is given: a closed set, or a level of the workspace's own, held by reference. */
export type Gives = ActionSet | LevelId

/** Gives a principal actions at a node and, until a break, below it. Grants add up. */
export interface Grant extends Span {
  readonly id: GrantId
  readonly node: NodeId
  readonly principal: Principal
  readonly gives: Gives
  readonly by: PersonId
  readonly at: Instant
  /** Made by a break that kept what came from above; the node it was copied from. */
  readonly copiedFrom: NodeId | null
}

/** Caps what its principal may do at a node and everywhere below it, through breaks too. */
export interface Limit extends Span {
  readonly id: LimitId
  readonly node: NodeId
  readonly principal: Principal
  readonly allows: ActionSet
  /** A limit on a group does not hold a member who is given share there, unless this is off. */
  readonly sparesStewards: boolean
  readonly by: PersonId
  readonly at: Instant
}
