import { mentionsIn } from '#contract/mentions.ts'
import type { CommentRequest, ReachRequest } from '#contract/requests.ts'
import type { Topic } from '#contract/topics.ts'
import type { CommentsView, CommentView, ReachView } from '#contract/views/boards.ts'
import { check } from '#core/access/evaluate.ts'
import { peopleOf } from '#core/access/subject.ts'
import { countActive } from '#core/access/who.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { parentOf } from '#core/state/state.ts'
import type { ServerProblem } from '#contract/problem.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Commit, RowChange } from '../../store/commit.ts'
import type { CommentRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import { nothingWritten } from '../notifications/kind.ts'
import { telling } from '../notifications/write.ts'
import { type Asker, knowsPerson, maySee, nameOf, visiblePlace } from '../viewer/asker.ts'
import { spending } from '../viewer/quota.ts'
import { knownName } from './usage.ts'

/** What people say about a row, a file or a page: threads with replies, mentions, resolved and opened again. */

interface At {
  readonly node: NodeId
  readonly actions: ActionSet
}

/** A place that takes comments, as the asker sees it. */
function commentedPlace(asker: Asker, id: string): At {
  const { place, actions } = visiblePlace(asker, id)
  const { kind } = place.node
  if (kind === 'folder' || kind === 'board') throw problemOf('not-found')
  return { node: place.node.id, actions }
}

function commentable(asker: Asker, id: string): At {
  const at = commentedPlace(asker, id)
  if (!has(at.actions, 'comment')) throw problemOf('no-comments')
  return at
}

const rowsAt = async ({ writer }: Parts, { workspace }: Asker, node: NodeId): Promise<CommentRow[]> =>
  (await writer.tables.comments.findAll({
    where: { workspace, node },
    order: [['id', 'ASC']],
    raw: true,
  })) as unknown as CommentRow[]

export async function commentsView(parts: Parts, asker: Asker, id: string): Promise<CommentsView> {
  const at = commentedPlace(asker, id)
  const rows = await rowsAt(parts, asker, at.node)
  const mentioned = new Set(
    rows.flatMap(({ text, removedAt }) => (removedAt === null ? mentionsIn(text) : [])),
  )
  const names = [...mentioned].flatMap(person => {
    const name = knownName(asker, person)
    return name === undefined ? [] : [[person, name] as const]
  })
  return {
    comments: rows.map(row => viewOf(asker, at, { row, rows })),
    mayComment: has(at.actions, 'comment'),
    names: Object.fromEntries(names),
  }
}

interface Among {
  readonly row: CommentRow
  readonly rows: readonly CommentRow[]
}

function viewOf(asker: Asker, { actions }: At, { row, rows }: Among): CommentView {
  const { id, thread, text, madeAt, madeBy, editedAt, resolvedAt, resolvedBy, removedAt } = row
  const isThere = removedAt === null
  const isMine = madeBy === asker.person && has(actions, 'comment')
  return {
    id,
    thread,
    text: isThere ? text : null,
    at: madeAt,
    by: knowsPerson(asker, madeBy) ? { id: madeBy, name: nameOf(asker.snapshot, madeBy) } : null,
    isEdited: editedAt !== null,
    mayEdit: isThere && isMine && !isAnswered(row, rows),
    mayRemove: isThere && (isMine || has(actions, 'remove')),
    isResolved: resolvedAt !== null,
    resolvedBy:
      resolvedBy !== null && knowsPerson(asker, resolvedBy) ? nameOf(asker.snapshot, resolvedBy) : null,
  }
}

/** Whether somebody has said something after it in its thread: what they replied to stays as it was. */
const isAnswered = ({ id, thread }: CommentRow, rows: readonly CommentRow[]): boolean =>
  rows.some(each => each.thread === thread && each.id > id && each.removedAt === null)

/** So many comments stand at one place. */
const commentsAtMost = 5000

export async function writeComment(
  parts: Parts,
  asker: Asker,
  { id, request }: { readonly id: string; readonly request: CommentRequest },
): Promise<CommentView> {
  const at = commentable(asker, id)
  const { workspace, person, snapshot } = asker
  const rows = await rowsAt(parts, asker, at.node)
  if (request.thread !== null && !rows.some(each => each.id === request.thread && each.thread === each.id))
    throw problemOf('not-found')
  const own = parts.newId()
  const row: CommentRow = {
    workspace,
    id: own,
    node: at.node,
    thread: request.thread ?? own,
    text: request.text.trim(),
    madeAt: snapshot.at,
    madeBy: person,
    editedAt: null,
    resolvedAt: null,
    resolvedBy: null,
    removedAt: null,
    removedBy: null,
  }
  const notified = notifying(parts, asker, { row, rows })
  const where = { workspace, node: at.node }
  await written(parts, asker, {
    node: at.node,
    conditions: [
      { table: 'comments', where, atMost: commentsAtMost - 1, orElse: 'many-comments' },
      ...spending(parts, { workspace, who: person, what: 'comments' }),
      ...spending(parts, { workspace, who: person, what: 'mails', count: notified.mails }),
    ],
    rows: [{ kind: 'put', table: 'comments', rows: [row] }, ...notified.rows],
    news: notified.news,
  })
  return viewOf(asker, at, { row, rows: [...rows, row] })
}

/** Who is mentioned and can open the place is told, and so are those who wrote in the thread before; each once. */
function notifying(parts: Parts, asker: Asker, { row, rows }: Among) {
  const { workspace, person, snapshot } = asker
  const sees = (each: PersonId) => each !== person && has(check(snapshot, each, row.node), 'see')
  const mentioned = mentionsIn(row.text)
    .map(each => each as PersonId)
    .filter(each => knowsPerson(asker, each) && sees(each))
  const others = rows
    .filter(each => each.thread === row.thread && each.removedAt === null)
    .map(each => each.madeBy)
    .filter(each => sees(each) && !mentioned.includes(each))
  const told = (kind: string, people: readonly PersonId[]) =>
    [...new Set(people)].map(each => ({
      workspace,
      id: parts.newId(),
      person: each,
      kind,
      at: snapshot.at,
      data: JSON.stringify({ node: row.node, by: person, comment: row.id }),
      readAt: null,
    }))
  return telling(parts, {
    rows: [...told('mentioned', mentioned), ...told('replied', others)],
    written: nothingWritten(person, snapshot),
  })
}

interface Changed {
  readonly id: string
  readonly comment: string
}

async function commentAt(parts: Parts, asker: Asker, { id, comment }: Changed) {
  const at = commentedPlace(asker, id)
  const rows = await rowsAt(parts, asker, at.node)
  const row = rows.find(each => each.id === comment)
  if (row === undefined) throw problemOf('not-found')
  return { at, row, rows, view: viewOf(asker, at, { row, rows }) }
}

export async function editComment(
  parts: Parts,
  asker: Asker,
  { text, ...of }: Changed & { readonly text: string },
): Promise<CommentView> {
  const { at, row, rows, view } = await commentAt(parts, asker, of)
  if (!view.mayEdit) throw problemOf(row.madeBy === asker.person ? 'comment-answered' : 'not-found')
  const { workspace, snapshot } = asker
  const fields = { text: text.trim(), editedAt: snapshot.at }
  const thread = { workspace, node: at.node, thread: row.thread, removedAt: null }
  const later = rows.filter(each => each.thread === row.thread && each.removedAt === null).length
  await written(parts, asker, {
    node: at.node,
    // Nobody replied meanwhile.
    conditions: [{ table: 'comments', where: thread, atMost: later, orElse: 'comment-answered' }],
    rows: [{ kind: 'update', table: 'comments', where: { workspace, id: row.id }, fields }],
  })
  return viewOf(asker, at, { row: { ...row, ...fields }, rows })
}

export async function removeComment(parts: Parts, asker: Asker, of: Changed): Promise<void> {
  const { at, row, view } = await commentAt(parts, asker, of)
  if (!view.mayRemove) throw problemOf('not-found')
  const { workspace, person, snapshot } = asker
  const fields = { removedAt: snapshot.at, removedBy: person }
  await written(parts, asker, {
    node: at.node,
    rows: [{ kind: 'update', table: 'comments', where: { workspace, id: row.id }, fields }],
  })
}

export async function resolveComment(
  parts: Parts,
  asker: Asker,
  { isResolved, ...of }: Changed & { readonly isResolved: boolean },
): Promise<void> {
  const { at, row } = await commentAt(parts, asker, of)
  if (!has(at.actions, 'comment') || row.id !== row.thread) throw problemOf('not-found')
  const { workspace, person, snapshot } = asker
  const fields = isResolved
    ? { resolvedAt: snapshot.at, resolvedBy: person }
    : { resolvedAt: null, resolvedBy: null }
  await written(parts, asker, {
    node: at.node,
    rows: [{ kind: 'update', table: 'comments', where: { workspace, id: row.id }, fields }],
  })
}

type Written = Pick<Commit<undefined, ServerProblem>, 'conditions' | 'news'> & {
  readonly node: NodeId
  readonly rows: readonly RowChange[]
}

/** Written where its author may still do it, and told to all who see the place. */
async function written(
  parts: Parts,
  { workspace, person }: Asker,
  { node, conditions = [], rows, news = [] }: Written,
): Promise<void> {
  const result = await submit<undefined, ServerProblem>(parts.writer, candidates => {
    const before = candidates.snapshotOf(workspace)
    if (before === undefined || !has(check(before, person, node), 'see')) throw problemOf('not-found')
    const parent = parentOf(before.state, node)
    const topics: Topic[] = [
      `comments:${node}`,
      ...(parent === undefined ? [] : [`within:${parent}` as const]),
    ]
    return ok({
      value: undefined,
      conditions,
      rows,
      news: [
        ...news,
        { of: 'content', workspace, nodes: [node] },
        { of: 'event', workspace, revision: before.state.revision, concerns: [{ topics, node }] },
      ],
    })
  })
  if (!result.ok) throw problemOf(result.error)
}

/**
 * Before it is written: who of those mentioned would not be told, since they cannot open the place; and of how many
 * readers some cannot open what is linked. The latter only to whoever may know who reads along.
 */
export function reachView(
  asker: Asker,
  { id, request }: { readonly id: string; readonly request: ReachRequest },
): ReachView {
  const { node, actions } = commentedPlace(asker, id)
  const { snapshot } = asker
  const people = request.people
    .map(each => each as PersonId)
    .filter(each => knowsPerson(asker, each) && !has(check(snapshot, each, node), 'see'))
    .map(each => ({ id: each, name: nameOf(snapshot, each) }))
  if (!has(actions, 'comment') && !has(actions, 'change')) return { people: [], readers: null, places: [] }
  const readers = countActive(snapshot, node)
  const places = request.places
    .map(each => each as NodeId)
    .filter(each => maySee(asker, each) && has(check(snapshot, asker.person, each), 'share'))
    .map(each => ({
      id: each,
      name: knownName(asker, each) ?? '',
      without: readersWithout(asker, node, each),
    }))
    .filter(each => each.without > 0)
  return { people, readers, places }
}

const readersWithout = ({ snapshot }: Asker, at: NodeId, other: NodeId): number =>
  [...peopleOf(snapshot)].filter(
    ({ id }) => has(check(snapshot, id, at), 'see') && !has(check(snapshot, id, other), 'see'),
  ).length
