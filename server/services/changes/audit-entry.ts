import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Edit } from '#core/changes/edit.ts'
import { rowOf } from '#core/base/collection.ts'
import { type Steps, toEnd } from '#core/changes/steps.ts'
import type { Transition } from '#core/changes/affected-scope.ts'
import { recordIn, type RecordedImpact } from '#core/impact/bulk.ts'
import { type Snapshot, pathOf, type RecordChange } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { RowChange } from '../../store/commit.ts'
import type { News } from '../../store/news.ts'
import { contentKinds } from '../../store/content/all.ts'
import type { Parts } from '../../parts.ts'
import { formerNames } from '../oversight/former-names.ts'
import { storedImpact } from '../oversight/stored-impact.ts'
import { columnsGone } from './columns-gone.ts'
import { placeChanges } from './place-changes.ts'
import { everything, concernsOf } from '../notifications/topics.ts'
import { nothingWritten, type Written } from '../notifications/kind.ts'
import { notificationsIn, type Telling, tellingIn } from '../notifications/write.ts'

/** One entry of the history to be: what was done, by whom, and the states around it. */
export interface Entry {
  readonly workspace: WorkspaceId
  readonly author: PersonId
  readonly reason: string
  readonly edits: readonly Edit[]
  readonly transition: Transition
  /** The workspace with the entry's revision. */
  readonly after: Snapshot
  readonly undone: Written['undone']
  readonly sentAlong: SentAlong
}

/** What goes to those concerned, and is no part of what is done. */
export type SentAlong = Partial<Pick<Written, 'message' | 'handedBy'>>

/** What an entry is written with. */
export type Writing = Telling

/** The rows of an entry, its effect and notifications with them, and the event that it is. */
export const writingOf = (parts: Parts, entry: Entry): Writing => toEnd(writingIn(parts, entry))

/** The same in steps. */
export function* writingIn(parts: Parts, entry: Entry): Steps<Writing> {
  const { workspace, author, transition, after } = entry
  const { revision } = after.state
  const { changes } = transition
  const record = yield* recordIn(transition)
  yield 0
  const { differences: impact, counted } = record
  const written: Written = {
    ...nothingWritten(author, after),
    ...entry.sentAlong,
    before: transition.before,
    changes,
    impact,
    bulk: counted === null ? null : record,
    answers: new Map(
      entry.edits.flatMap(edit => (edit.kind === 'request.accept' ? [[edit.request, edit.comment]] : [])),
    ),
    recovered: entry.edits.flatMap(edit => (edit.kind === 'access.recover' ? [edit.node] : [])),
    undone: entry.undone,
  }
  const notifications = yield* notificationsIn(parts, workspace, written)
  yield 0
  const telling = yield* tellingIn(parts, { rows: notifications, written })
  const notified = notifications.map(notification => notification.person)
  const reached = impact.map(each => each.person)
  const concerns =
    counted === null
      ? concernsOf({ state: written.after.state, author, changes, reached, notified })
      : everything(notified)
  return {
    rows: [...entryRows(entry, record), ...telling.rows],
    news: [
      { of: 'revision', workspace, revision },
      ...rowNews(workspace, changes),
      ...(changes.some(change => goesForGood(transition, change)) ? [{ of: 'files' } as const] : []),
      ...telling.news,
      { of: 'event', workspace, revision, concerns },
    ],
    mails: telling.mails,
  }
}

/** More than these a board is read anew for. */
const rowsNamed = 2000

/** Which boards have other rows than before. */
function rowNews(workspace: WorkspaceId, changes: readonly RecordChange[]): News[] {
  const byBoard = new Map<NodeId, NodeId[]>()
  for (const { table, id, before, after } of changes) {
    if (table !== 'nodes' || (after ?? before)?.kind !== 'row') continue
    for (const board of new Set([before?.parent, after?.parent]))
      if (board != null) listIn(byBoard, board).push(id)
  }
  return [...byBoard].map(([board, rows]) => ({
    of: 'rows',
    workspace,
    board,
    rows: rows.length > rowsNamed ? null : rows,
  }))
}

function listIn<K, V>(lists: Map<K, V[]>, key: K): V[] {
  const list = lists.get(key) ?? []
  lists.set(key, list)
  return list
}

/** The rows of an entry and of what follows from it. */
export function entryRows(entry: Entry, record: RecordedImpact): RowChange[] {
  const { workspace, author: by, transition, after } = entry
  const { changes } = transition
  const nodes = changes.flatMap(change =>
    change.table === 'nodes' && goesForGood(transition, change) ? [change.id] : [],
  )
  return [
    ...(nodes.length === 0 ? [] : contentKinds.flatMap(kind => kind.deletion({ workspace, nodes }))),
    { kind: 'records', workspace, changes },
    ...placeChanges({ workspace, changes, at: after.at, by }),
    ...columnsGone({ workspace, changes, at: after.at }),
    formerNames({ workspace, revision: after.state.revision, changes }),
    { kind: 'put', table: 'changeSets', rows: [rowOfEntry(entry, record)], json: ['edits', 'changes'] },
  ]
}

/** Whether a place goes for good, with what is written there: out of the bin, or with an archived home. */
export const goesForGood = (
  { before, after }: Pick<Transition, 'before' | 'after'>,
  change: RecordChange,
): boolean =>
  change.table === 'nodes' &&
  change.after === null &&
  pathOf(before.state, change.id).some(
    node =>
      node.binned !== null ||
      (isArchivedHome(before, node) && rowOf(after.state.nodes, node.id) === undefined),
  )

const isArchivedHome = ({ state }: Snapshot, { home, archived }: ContentNode): boolean =>
  home !== null && (archived || (home.of === 'team' && rowOf(state.teams, home.team)?.archived === true))

/** An entry as it lies in the history; its lists are written as JSON. */
const rowOfEntry = (
  { workspace, author, reason, edits, transition, after, undone }: Entry,
  record: RecordedImpact,
) => ({
  workspace,
  revision: after.state.revision,
  at: after.at,
  author,
  reason,
  edits: edits.map(withoutCopies),
  changes: transition.changes,
  impact: storedImpact(record),
  undoes: undone?.revision ?? null,
})

/** What an undo took back stands in its own entry. */
const withoutCopies = (edit: Edit) =>
  edit.kind === 'undo' ? { kind: edit.kind, revision: edit.revision } : edit
