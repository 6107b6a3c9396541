import { compareWords } from '../base/compare-words.ts'
import { allRows, type Collection, createCollection, rowOf, rowsBy, withRow } from '../base/collection.ts'
import { none, read } from '../base/vector.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { idOf, numberOf } from '../base/numbering.ts'
import { advanced, isIndexed } from '../index/advance.ts'
import { type AccessIndex, emptyIndex, inTree } from '../index/layout.ts'
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'
import { type Dates, datesAfter, noDates } from './dates.ts'
import type { IndexOf, Rows, TableName } from './kinds.ts'
import type { RecordShapes } from './shape.ts'

/**
 * The whole of one workspace at one revision: its records by table, with the indexes that questions
 * need. Immutable: a change makes a new state, and whoever holds the old one keeps a consistent view.
 */
export type State = {
  readonly revision: number
  /** What questions of access read: it says what the tables say. */
  readonly index: AccessIndex
  /** When something begins or ends by itself: it says what the tables say, too. */
  readonly dates: Dates
  /** What there is to know of each kind of record: the same table in every state of a workspace. */
  readonly kinds: RecordShapes
} & {
  readonly [T in TableName]: Collection<Rows[T], IndexOf<T>>
}

/** A state and the time of asking: what every question of access is put to. */
export interface Snapshot {
  readonly state: State
  readonly at: Instant
}

/**
 * One record before and after; `null` where there is none. A change set comes down to a list of these,
 * which is what is stored, applied to the state, and turned round to undo it.
 */
export type RecordChange = {
  readonly [T in TableName]: {
    readonly table: T
    readonly id: Rows[T]['id']
    readonly before: Rows[T] | null
    readonly after: Rows[T] | null
  }
}[TableName]

/** A workspace without any records, of such kinds. */
export const stateOf = (kinds: RecordShapes): State =>
  Object.assign(
    { revision: 0, index: emptyIndex, dates: noDates, kinds },
    Object.fromEntries(
      Object.entries(kinds).map(([table, { indexes }]) => [table, createCollection(indexes as never)]),
    ),
  ) as unknown as State

/** The state with some changes. Costs copies of some pages of the index each time, besides the changes themselves. */
export function applyChanges(state: State, changes: readonly RecordChange[]): State {
  const { next, followed } = tablesAfter(state, changes)
  next['index'] = advanced(state.index, [...followed.values()])
  return next as unknown as State
}

/**
 * The same, but for the index, which follows when it is read, or when very many changes wait for that: most of the
 * edits of a change set read only the tables. Numbers in it are not those of a state in between that is read later.
 */
export function applyChangesLater(state: State, changes: readonly RecordChange[]): State {
  const { next, followed } = tablesAfter(state, changes)
  const waiting = { state, followed, count: (waitingOf.get(state)?.count ?? 0) + followed.size }
  waitingOf.set(next, waiting)
  const get = () => {
    const value = indexAfter(waiting)
    waitingOf.delete(next)
    Object.defineProperty(next, 'index', { value, enumerable: true })
    return value
  }
  Object.defineProperty(next, 'index', { get, enumerable: true, configurable: true })
  if (waiting.count >= waitAtMost) get()
  return next as unknown as State
}

/** With nothing that waits: what is compared with other states, or kept. */
export const withIndex = (state: State): State => (waitingOf.has(state) ? { ...state } : state)

/** Changes that the index of a state has yet to follow, and the state that they change. */
interface Waiting {
  readonly state: State
  readonly followed: ReadonlyMap<string, Followed>
  readonly count: number
}

/** Only for as long as the index of the state was not read. */
const waitingOf = new WeakMap<object, Waiting>()
const waitAtMost = 200

function indexAfter(last: Waiting): AccessIndex {
  const waiting = [last]
  let { state } = last
  for (let next = waitingOf.get(state); next !== undefined; next = waitingOf.get(state)) {
    waiting.push(next)
    state = next.state
  }
  const followed = new Map<string, Followed>()
  for (const part of waiting.toReversed())
    for (const [key, each] of part.followed)
      followed.set(key, { ...each, before: (followed.get(key) ?? each).before })
  return advanced(state.index, [...followed.values()])
}

function tablesAfter(state: State, changes: readonly RecordChange[]) {
  const next: Record<string, unknown> = { revision: state.revision, kinds: state.kinds, index: null }
  for (const table of Object.keys(state.kinds) as TableName[]) next[table] = state[table]
  const followed = new Map<string, Followed>()
  for (const { table, id, after } of changes) {
    const rows = next[table] as Collection<{ readonly id: string }>
    if (isIndexed(table) || state.kinds[table].dates !== undefined) {
      const known = followed.get(`${table} ${id}`)
      const before = known === undefined ? (rowOf(rows, id) ?? null) : known.before
      followed.set(`${table} ${id}`, { table, before, after })
    }
    next[table] = withRow(rows, id, after)
  }
  next['dates'] = datesAfter(state, [...followed.values()])
  return { next, followed }
}

/** What a record really was before all changes of it, and what it is after them. */
interface Followed {
  readonly table: TableName
  readonly before: { readonly id: string } | null
  readonly after: { readonly id: string } | null
}

export const atRevision = (state: State, revision: number): State => ({ ...state, revision })

/** The changes that take back `changes`, in the order in which they must be made. */
export const inverseOf = (changes: readonly RecordChange[]): RecordChange[] =>
  changes
    .map(change => ({ ...change, before: change.after, after: change.before }) as RecordChange)
    .toReversed()

export function workspaceOf(state: State): Workspace {
  const [workspace] = allRows(state.workspaces)
  if (workspace === undefined) throw new Error('the state holds no workspace')
  return workspace
}

export function rootOf(state: State): ContentNode {
  const [root] = rowsBy(state.nodes, 'parent', 'none')
  if (root === undefined) throw new Error('the state holds no root')
  return root
}

export const teamHomeOf = (state: State, team: string): ContentNode | undefined =>
  rowsBy(state.nodes, 'home', `team:${team}`)[0]

export const privateFolderOf = (state: State, person: PersonId): ContentNode | undefined =>
  rowsBy(state.nodes, 'home', `person:${person}`)[0]

/** The node and its ancestors, from the node up to the root; empty if there is no such node. */
export function pathOf(state: State, node: NodeId): ContentNode[] {
  const path: ContentNode[] = []
  for (let next = rowOf(state.nodes, node); next !== undefined;) {
    path.push(next)
    next = next.parent === null ? undefined : rowOf(state.nodes, next.parent)
  }
  return path
}

/** What a node lies in, read in the index: no record is made for it. None for the root, nor for what is not there. */
export function parentOf({ index }: State, node: NodeId): NodeId | undefined {
  const number = numberOf(index.nodes, node)
  const above = number === undefined ? none : read(index.tree, number * inTree.width + inTree.parent)
  return above === none ? undefined : idOf(index.nodes, above)
}

/** Children in the order in which they are shown. */
export const childrenOf = (state: State, node: NodeId): ContentNode[] =>
  rowsBy(state.nodes, 'parent', node).sort(
    (a, b) => a.order - b.order || compareWords(a.name, b.name) || (a.id < b.id ? -1 : 1),
  )

/** How many levels a node and all that lies below it have. Costs as much as lies there. */
export function levelsOf(state: State, top: NodeId): number {
  let levels = 0
  let level: readonly NodeId[] = [top]
  for (; level.length > 0; levels += 1)
    level = level.flatMap(node => rowsBy(state.nodes, 'parent', node).map(each => each.id))
  return levels
}

/** The node and all that lies below it, each parent before its children, siblings in no order. */
export function* subtreeOf(state: State, node: NodeId): Generator<ContentNode> {
  const top = rowOf(state.nodes, node)
  const waiting = top === undefined ? [] : [top]
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    yield next
    for (const child of rowsBy(state.nodes, 'parent', next.id)) waiting.push(child)
  }
}
