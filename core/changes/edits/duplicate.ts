import { rowOf, rowsBy } from '../../base/collection.ts'
import type { BoardViewId, ColumnId, GrantId, LimitId, NodeId, SectionId } from '../../base/ids.ts'
import { isOver } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { visibleColumns } from '../../access/columns.ts'
import { placeOf } from '../../access/place.ts'
import { subjectOf } from '../../access/subject.ts'
import { has } from '../../levels/action.ts'
import type { ViewState } from '../../boards/view.ts'
import type { Section } from '../../rules/board.ts'
import type { BoardColumn } from '../../rules/column.ts'
import { childrenOf, levelsOf, type RecordChange, type State } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import { authorActions, type Context, type EditOf, type EditRule, isTaken, lacksAction } from '../context.ts'
import { grantsReaching, inheritedGrants } from './break.ts'
import { createdNode, numbered, tooDeep, wrongWithin } from './node.ts'

/** Limits and breaks travel, grants never. Only what the author may copy is in the copy. */
export interface DuplicateNode {
  readonly kind: 'node.duplicate'
  readonly node: NodeId
  readonly parent: NodeId
  /** Its own, if nothing is said. */
  readonly name?: string | undefined
  /** The ids of what it makes begin with this. */
  readonly copies: string
}

/**
 * Copies a place with what is in it, as far as the author may copy it. Limits, breaks and exclusions
 * from the web travel; grants never, so that at a break the author gets what the author has at the target.
 */
export const duplicateNode: EditRule<DuplicateNode> = {
  kind: 'node.duplicate',
  lacks: (context, edit) =>
    lacksAction(context, edit.node, 'copy') ?? lacksAction(context, edit.parent, 'add'),
  apply: (context, edit) => {
    const { state } = context.now
    const node = rowOf(state.nodes, edit.node)
    const parent = rowOf(state.nodes, edit.parent)
    if (node === undefined || parent === undefined) return refused({ code: 'unknown', what: 'place' })
    const wrong = wrongWithin(parent, node.kind)
    if (wrong !== undefined) return refused(wrong)
    if (rowOf(context.before.state.nodes, node.id) === undefined)
      return refused({ code: 'too-much', what: 'copy of a copy' })
    const copies = copiesOf(context, edit)
    if (copies.length > copiesAtMost) return refused({ code: 'too-much', what: 'copies' })
    const deep = tooDeep(state, parent.id, levelsOf(state, node.id))
    if (deep !== undefined) return refused(deep)
    if (copies.some(copy => isTaken(state, 'nodes', copy.to)))
      return refused({ code: 'already-there', what: 'id' })
    const places = new Map(copies.map(({ from, to }) => [from.id, to]))
    const { serial, changes } = numbered(parent, node.kind === 'row' ? 1 : 0)
    return ok([
      ...changes,
      ...copies.flatMap(({ from, to }): RecordChange[] => [
        {
          table: 'nodes',
          id: to,
          before: null,
          after: copiedNode(context, { from, to, places, edit, serial: serial + 1 }),
        },
        ...limitsFor(context, from, to),
        ...(from.kind === 'board' ? partsFor(context, from, to) : []),
        ...(from.broken === null ? [] : grantsFor(context, edit.parent, to)),
      ]),
    ])
  },
}

export interface Copy {
  readonly from: ContentNode
  readonly to: NodeId
  /** Of a row: which columns of its board are which of the copy's, of those that the author sees. */
  readonly columns?: readonly (readonly [from: ColumnId, to: ColumnId])[]
}

/** So many places are copied by one change set. */
export const copiesAtMost = 5000

/**
 * Which places are copied, parents first: what the author may not copy stays behind with all that is in it, and so does
 * what this change set has made, copies of its own among it. Stops past the most that are copied at once.
 */
export function copiesOf(
  context: Context,
  { node, parent, copies }: Pick<EditOf<'node.duplicate'>, 'node' | 'parent' | 'copies'>,
): Copy[] {
  const found: Copy[] = []
  const { nodes } = context.now.state
  const top = rowOf(nodes, node)
  const waiting = top === undefined ? [] : [top]
  for (let from = waiting.shift(); from !== undefined; from = waiting.shift()) {
    if (found.length > copiesAtMost) break
    if (rowOf(context.before.state.nodes, from.id) === undefined) continue
    if (!has(authorActions(context, from.id), 'copy')) continue
    found.push({ from, to: `${copies}-${found.length}` as NodeId })
    waiting.push(...childrenOf(context.now.state, from.id))
  }
  return withColumns(context, parent, found)
}

/** Rows with the columns whose cells are copied with them: of a board that is copied too those of the copy, else the same. */
function withColumns(context: Context, parent: NodeId, copies: readonly Copy[]): Copy[] {
  const boards = new Map<NodeId | null, NonNullable<Copy['columns']>>()
  const [top] = copies
  for (const { from, to } of copies)
    if (from.kind === 'board')
      boards.set(
        from.id,
        columnsOf(context, from.id).map((column, index) => [column.id, copiedColumn(to, index)]),
      )
  if (top?.from.kind === 'row' && top.from.parent === parent)
    boards.set(
      parent,
      columnsOf(context, parent).map(({ id }) => [id, id]),
    )
  return copies.map(copy => {
    const columns = copy.from.kind === 'row' ? boards.get(copy.from.parent) : undefined
    return columns === undefined ? copy : { ...copy, columns }
  })
}

const copiedColumn = (board: NodeId, index: number): ColumnId => `${board}-c${index}` as ColumnId
const copiedSection = (board: NodeId, index: number): SectionId => `${board}-s${index}` as SectionId

interface Copying extends Copy {
  readonly places: ReadonlyMap<NodeId, NodeId>
  readonly edit: EditOf<'node.duplicate'>
  /** Of a row that is copied by itself, its number. */
  readonly serial: number
}

function copiedNode({ author, now }: Context, { from, to, places, edit, serial }: Copying): ContentNode {
  const isTop = from.id === edit.node
  const parent = isTop ? edit.parent : (places.get(from.parent as NodeId) ?? edit.parent)
  const by = { maker: author, madeAt: now.at }
  return {
    ...createdNode(
      { id: to, parent, kind: from.kind, name: (isTop ? edit.name : undefined) ?? from.name },
      by,
    ),
    note: from.note,
    order: isTop && from.kind !== 'row' ? 0 : from.order,
    section: sectionFor(now.state, { from, board: parent }),
    // A board that is copied is numbered as it was; a row alone gets a number of where it comes.
    serial: isTop && from.kind === 'row' ? serial : from.serial,
    draft: from.draft,
    broken: from.broken === null ? null : { by: author, at: now.at },
    web: from.web === 'excluded' ? 'excluded' : null,
  }
}

const limitsFor = ({ author, now: { state, at } }: Context, from: ContentNode, to: NodeId): RecordChange[] =>
  rowsBy(state.limits, 'node', from.id)
    .filter(limit => !isOver(limit, at))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((limit, index) => {
      const id = `${to}-l${index}` as LimitId
      return { table: 'limits', id, before: null, after: { ...limit, id, node: to, by: author, at } }
    })

interface CopiedRow {
  readonly from: ContentNode
  readonly board: NodeId
}

/** The section of the same place on the copy of its board; the same where the row stays on its board. */
function sectionFor(state: State, { from, board }: CopiedRow): SectionId | null {
  if (from.section === null || from.parent === board) return from.section
  const index = sectionsOf(state, from.parent as NodeId).findIndex(each => each.id === from.section)
  return index === -1 || from.parent === null ? null : copiedSection(board, index)
}

const sectionsOf = (state: State, board: NodeId): Section[] =>
  rowsBy(state.sections, 'board', board).sort((a, b) => (a.id < b.id ? -1 : 1))

/** A column that the author may not know of is not copied. */
function columnsOf({ author, now }: Context, board: NodeId): BoardColumn[] {
  const subject = subjectOf(now, author)
  const place = placeOf(now, board)
  return subject === undefined || place === undefined ? [] : visibleColumns(now, subject, place)
}

/** The columns, sections and views of a board, as its copy has them. */
function partsFor(context: Context, from: ContentNode, to: NodeId): RecordChange[] {
  const { state } = context.now
  const columns = columnsOf(context, from.id)
  const sections = sectionsOf(state, from.id)
  const named = new Map<string, string>([
    ...columns.map(({ id }, index) => [id, copiedColumn(to, index)] as const),
    ...sections.map(({ id }, index) => [id, copiedSection(to, index)] as const),
  ])
  return [
    ...columns.map((column, index): RecordChange => {
      const id = copiedColumn(to, index)
      return { table: 'columns', id, before: null, after: { ...column, id, board: to } }
    }),
    ...sections.map((section, index): RecordChange => {
      const id = copiedSection(to, index)
      return { table: 'sections', id, before: null, after: { ...section, id, board: to } }
    }),
    ...rowsBy(state.boardViews, 'board', from.id)
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .map((view, index): RecordChange => {
        const id = `${to}-v${index}` as BoardViewId
        const after = { ...view, id, board: to, state: renamed(view.state, named) }
        return { table: 'boardViews', id, before: null, after }
      }),
  ]
}

/** A view in which columns and sections have other ids. */
const renamed = (view: ViewState, ids: ReadonlyMap<string, string>): ViewState =>
  JSON.parse(JSON.stringify(view), (_, value: unknown) =>
    typeof value === 'string' ? (ids.get(value) ?? value) : value,
  ) as ViewState

/** What the author has at the target, as grants by name. */
const grantsFor = (context: Context, target: NodeId, to: NodeId): RecordChange[] =>
  inheritedGrants(context, target)
    .flatMap(grant => grantsReaching(context, grant))
    .map((grant, index) => {
      const id = `${to}-g${index}` as GrantId
      const { author, now } = context
      const after = { ...grant, id, node: to, by: author, at: now.at, copiedFrom: null }
      return { table: 'grants', id, before: null, after }
    })
