import { placeOf } from '../access/place.ts'
import { rowOf } from '../base/collection.ts'
import type { NodeId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { isSame } from '../base/same.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, inverseOf, type Snapshot, type RecordChange, type State } from '../state/state.ts'
import { conductOf } from './conduct.ts'
import { cannotStand, nodeIn, type WhyLeft } from './ground.ts'
import type { UndoChangeSet } from './edits/undo.ts'

export interface LeftOut {
  /** As the change set made it. */
  readonly change: RecordChange
  readonly why: WhyLeft
}

export interface Undoing {
  readonly changes: readonly RecordChange[]
  readonly leftOut: readonly LeftOut[]
}

/** A part of the change set, and what takes it back. */
interface Part {
  readonly change: RecordChange
  readonly back: RecordChange
}

/**
 * What taking back a change set comes to on the state as it is. A field goes back to what it was if
 * nobody set it again; a record goes or returns whole. What was changed since, ends that have passed,
 * what lies in the bin, and what could not stand (something hangs on it, what it hung on is gone, a place
 * would stand in itself) are left out and told.
 */
export function undoingOf(state: State, at: Instant, undone: Omit<UndoChangeSet, 'kind'>): Undoing {
  const snapshot = snapshotOf(state, at)
  const leftOut: LeftOut[] = []
  let kept: readonly Part[] = undone.changes.toReversed().flatMap(change => {
    const turned = turnedRound(snapshot, change)
    if (turned.why !== undefined) leftOut.push({ change, why: turned.why })
    return turned.back === undefined ? [] : [{ change, back: turned.back }]
  })
  // Leaving one part out can take the ground from under another: until none falls any more.
  for (let before = -1; before !== kept.length;) {
    before = kept.length
    kept = withoutRings(state, kept, leftOut)
    const after = applyChanges(
      state,
      kept.map(each => each.back),
    )
    kept = kept.filter(({ change, back }) => {
      const why = cannotStand(after, back, undone.written)
      if (why !== undefined) leftOut.push({ change, why })
      return why === undefined
    })
  }
  return { changes: kept.map(each => each.back), leftOut }
}

interface Turned {
  readonly back?: RecordChange
  readonly why?: WhyLeft
}

function turnedRound(snapshot: Snapshot, change: RecordChange): Turned {
  const { state, at } = snapshot
  const current = rowOf(state[change.table] as State['nodes'], change.id as NodeId) as Fields | undefined
  const [back] = inverseOf([change])
  const before = change.before as Fields | null
  const after = change.after as Fields | null
  if (back === undefined) return {}
  if (before !== null && after === null) {
    if (current !== undefined) return { why: 'changed since' }
    return isPast(before.until, at) ? { why: 'over' } : { back }
  }
  if (current === undefined) return { why: 'gone' }
  if (liesInBin(snapshot, change)) return { why: 'in the bin' }
  if (before === null || after === null)
    return isSame(current, after) ? { back: { ...back, before: current } as never } : { why: 'changed since' }
  return fieldsBack(snapshot, change, { current, before, after })
}

/** Nothing in the bin is edited; the topmost place in it can be brought back, by the change that put it there. */
function liesInBin(snapshot: Snapshot, change: RecordChange): boolean {
  const id = nodeIn(snapshot.state, change)
  const place = id === undefined ? undefined : placeOf(snapshot, id)
  if (place?.binnedAt === undefined) return false
  const isBinning = change.table === 'nodes' && change.before?.binned === null && change.after?.binned != null
  return !isBinning || place.node.binned === null || place.path.slice(1).some(each => each.binned !== null)
}

type Fields = Readonly<Record<string, unknown>>

/** Who set something last, and when: goes back with the rest, and is not worth telling alone. */
const incidental = new Set(['by', 'at'])

/** What bringing a place back from the bin takes back of it. */
const ofTheBin = new Set(['binned', 'archived', 'archivedAt'])

function fieldsBack(
  snapshot: Snapshot,
  { table, id }: RecordChange,
  { current, before, after }: { current: Fields; before: Fields; after: Fields },
): Turned {
  const changed = Object.keys(after).filter(field => !isSame(before[field], after[field]))
  const place = table === 'nodes' ? placeOf(snapshot, id) : undefined
  const isClosed = place !== undefined && (place.binnedAt ?? place.archivedAt) !== undefined
  const whyNot = (field: string): WhyLeft | undefined => {
    if (!isSame(current[field], after[field])) return 'changed since'
    if (field === 'until' && isPast(before[field], snapshot.at)) return 'over'
    // What left the web by an archive or the bin is not published again by itself.
    if (field === 'web' && before[field] === 'published' && isClosed) return 'stays withdrawn'
    return place?.binnedAt !== undefined && !ofTheBin.has(field) ? 'in the bin' : undefined
  }
  const returning = changed.filter(field => whyNot(field) === undefined)
  const reported = (fields: readonly string[]) => fields.filter(field => !incidental.has(field))
  const why = reported(changed).flatMap(field => whyNot(field) ?? [])[0]
  const left = why === undefined ? {} : { why }
  if (reported(returning).length === 0 && reported(changed).length > 0) return left
  const fields = Object.fromEntries(returning.map(field => [field, before[field]]))
  const { goneBack } = conductOf(snapshot.state, table)
  const row = { ...current, ...fields }
  const back = goneBack?.(current as never, row as never) ?? row
  if (isSame(back, current)) return left
  return { back: { table, id, before: current, after: back } as unknown as RecordChange, ...left }
}

/** Parts by which a place would come to stand in itself are left out, one after another. */
function withoutRings(state: State, parts: readonly Part[], leftOut: LeftOut[]): readonly Part[] {
  const parents = new Map<NodeId, NodeId | null>()
  for (const { back } of parts)
    if (back.table === 'nodes' && back.after !== null) parents.set(back.id, back.after.parent)
  const parentIn = (node: NodeId): NodeId | null =>
    (parents.has(node) ? parents.get(node) : rowOf(state.nodes, node)?.parent) ?? null
  const isWithinItself = (node: NodeId): boolean => {
    const met = new Set<NodeId>()
    let above = parentIn(node)
    for (; above !== null && above !== node && !met.has(above); above = parentIn(above)) met.add(above)
    return above === node
  }
  return parts.filter(({ change, back }) => {
    if (back.table !== 'nodes' || !parents.has(back.id) || !isWithinItself(back.id)) return true
    parents.delete(back.id)
    leftOut.push({ change, why: 'within itself' })
    return false
  })
}

const isPast = (until: unknown, at: Instant) => typeof until === 'number' && until <= at
