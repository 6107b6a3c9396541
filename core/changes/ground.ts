import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { TableName } from '../state/kinds.ts'
import { groundOf, isGround } from '../state/naming.ts'
import { pathOf, type RecordChange, type State } from '../state/state.ts'
import { conductOf, type Kinded } from './conduct.ts'

/** Why a part of a change set is not taken back. */
export type WhyLeft =
  'changed since' | 'over' | 'in use' | 'gone' | 'in the bin' | 'stays withdrawn' | 'within itself'

/** Whether a record that went is still needed, or one that came back has nothing to stand on. */
export function cannotStand(
  state: State,
  back: RecordChange,
  written: readonly NodeId[],
): WhyLeft | undefined {
  if (back.after === null)
    return isGround(state, back.table, back.id) || isWritten(back, written) ? 'in use' : undefined
  if (back.table === 'nodes' && back.before?.parent === back.after.parent) return undefined
  return lacksPlace(state, back) ?? (hasItsGround(state, back) ? undefined : 'gone')
}

/** Somebody has written there since. */
const isWritten = ({ table, id }: RecordChange, written: readonly NodeId[]): boolean =>
  table === 'nodes' && written.includes(id)

/** Whether what a place would stand in, or where a record that comes back would hang, is in the bin or gone. */
function lacksPlace(state: State, back: RecordChange): WhyLeft | undefined {
  const node = back.table === 'nodes' || back.before === null ? nodeIn(state, back) : undefined
  if (node === undefined) return undefined
  const path = pathOf(state, node)
  if (path.at(-1)?.parent !== null) return 'gone'
  const above = back.table === 'nodes' ? path.slice(1) : path
  return above.some(each => each.binned !== null) ? 'in the bin' : undefined
}

/** The place that a record is a part of. */
export function nodeIn(kinds: Kinded, { table, before, after }: RecordChange): NodeId | undefined {
  const row = after ?? before
  return row === null ? undefined : conductOf(kinds, table).standsAt?.(row)
}

/** What it names is there, and nothing has taken its place. */
function hasItsGround(state: State, { table, before, after }: RecordChange): boolean {
  if (after === null || !groundOf(state, table, after).every(each => isThere(state, each))) return false
  return before !== null || conductOf(state, table).hasItsPlace?.(state, after) !== false
}

/** Nothing hangs on who was removed. */
function isThere(state: State, [table, id]: readonly [TableName, string]): boolean {
  if (table === 'persons') return (rowOf(state.persons, id as PersonId)?.status ?? 'removed') !== 'removed'
  return rowOf(state[table] as State['nodes'], id as NodeId) !== undefined
}
