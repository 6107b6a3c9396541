import type { TextRequest } from '#contract/requests.ts'
import type { TextView } from '#contract/views/content.ts'
import type { Transaction } from 'sequelize'
import { rowOf } from '#core/base/collection.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { ok, refused } from '#core/base/result.ts'
import { lacksEditing } from '#core/changes/context.ts'
import type { Judged } from '#core/changes/judge.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import type { Snapshot } from '#core/state/state.ts'
import { announce } from '../live/hub.ts'
import type { TextRow } from '../store/tables.ts'
import { submit } from '../store/writer.ts'
import type { Parts } from '../parts.ts'
import { ProblemError, problemOf } from '../problem-error.ts'
import { type Asker, knowsPerson, nameOf, visiblePlace } from './asker.ts'
import { problemFrom } from './change-set.ts'
import { noteChanged } from './place-changes.ts'

/** The newest version of a page's text; version 0, empty, where none was written. */
export async function textView(parts: Parts, asker: Asker, id: string): Promise<TextView> {
  const { place } = visiblePlace(asker, id)
  if (place.node.kind !== 'page') throw problemOf('not-found')
  const newest = await newestText(parts, asker, place.node.id)
  if (newest === undefined) return { text: '', version: 0, changedAt: null, changedBy: null }
  const { text, version, changedAt, changedBy } = newest
  return {
    text,
    version,
    changedAt,
    changedBy: knowsPerson(asker, changedBy) ? nameOf(asker.snapshot, changedBy) : null,
  }
}

/** A content step: a new version on top of the one that its author saw. */
export async function saveText(
  parts: Parts,
  asker: Asker,
  { id, request }: { id: string; request: TextRequest },
): Promise<TextView> {
  const { place } = visiblePlace(asker, id)
  const node = place.node.id
  if (place.node.kind !== 'page') throw problemOf('not-found')
  const result = await submit(parts.writer, candidates => {
    const before = candidates.snapshotOf(asker.workspace)
    if (before === undefined) throw problemOf('not-found')
    const now = snapshotOf(before.state, before.at)
    const refusal = lacksEditing({ author: asker.person, before: now, now }, node)
    if (refusal !== undefined) return refused({ refusal, edit: null })
    const row: TextRow = {
      workspace: asker.workspace,
      node,
      version: request.version + 1,
      text: request.text,
      changedAt: before.at,
      changedBy: asker.person,
    }
    return ok({
      value: row,
      write: async batch => {
        const { transaction } = batch
        const { texts } = parts.writer.tables
        const newest = await texts.max('version', {
          where: { workspace: asker.workspace, node },
          transaction,
        })
        if (Number(newest ?? 0) !== request.version) throw problemOf('text-changed')
        await texts.create({ ...row }, { transaction })
        const { workspace, person: by } = asker
        noteChanged(parts.writer.tables, { workspace, at: before.at, by, batch, places: [node] })
      },
      after: () =>
        announce(parts.hub, {
          workspace: asker.workspace,
          revision: before.state.revision,
          audience: { node },
        }),
    })
  })
  if (!result.ok) throw new ProblemError(problemFrom(result.error, asker))
  return textView(parts, asker, id)
}

interface Copying {
  readonly workspace: WorkspaceId
  readonly before: Snapshot
  readonly judged: Judged
  readonly transaction: Transaction
}

/** The newest text of each duplicated page is the first of its copy. */
export async function copyTexts(
  { writer }: Parts,
  { workspace, before, judged, transaction }: Copying,
): Promise<void> {
  const pages = judged.copies.filter(({ from }) => from.kind === 'page')
  if (pages.length === 0) return
  const { texts } = writer.tables
  const rows = (await texts.findAll({
    where: { workspace, node: pages.map(({ from }) => from.id) },
    order: [['version', 'ASC']],
    transaction,
    raw: true,
  })) as unknown as TextRow[]
  const newest = new Map(rows.map(row => [row.node, row]))
  const copies = pages.flatMap(({ from, to }) => {
    const row = newest.get(from.id)
    const by = rowOf(judged.state.nodes, to)?.maker
    return row === undefined ? [] : [{ ...row, node: to, version: 1, changedAt: before.at, changedBy: by }]
  })
  if (copies.length > 0) await texts.bulkCreate(copies, { transaction })
}

async function newestText(parts: Parts, asker: Asker, node: string): Promise<TextRow | undefined> {
  const found = await parts.writer.tables.texts.findOne({
    where: { workspace: asker.workspace, node },
    order: [['version', 'DESC']],
    raw: true,
  })
  return found === null ? undefined : (found as unknown as TextRow)
}
