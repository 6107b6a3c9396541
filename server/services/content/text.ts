import type { TextRequest } from '#contract/requests.ts'
import type { Topic } from '#contract/topics.ts'
import type { TextView } from '#contract/views/content.ts'
import { ok, refused } from '#core/base/result.ts'
import type { Refused } from '#core/changes/judge.ts'
import { lacksEditing } from '#core/changes/context.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { parentOf } from '#core/state/state.ts'
import { pageText, type TextRow } from '../../store/content/page-text.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { type Asker, knowsPerson, nameOf, visiblePlace } from '../viewer/asker.ts'
import { problemFrom } from '../changes/change-set.ts'
import { placesChanged } from '../changes/place-changes.ts'

/** The newest version of a page's text; version 0, empty, where none was written. */
export async function textView(parts: Parts, asker: Asker, id: string): Promise<TextView> {
  const { place } = visiblePlace(asker, id)
  if (place.node.kind !== 'page') throw problemOf('not-found')
  const at = { workspace: asker.workspace, node: place.node.id }
  const newest = await pageText.newest(parts.writer.tables, at)
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
  const result = await submit<TextRow, 'text-changed' | Refused>(parts.writer, candidates => {
    const before = candidates.snapshotOf(asker.workspace)
    if (before === undefined) throw problemOf('not-found')
    const now = snapshotOf(before.state, before.at)
    const refusal = lacksEditing({ author: asker.person, before: now, now }, node)
    if (refusal !== undefined) return refused({ refusal, edit: null })
    const { workspace, person: by } = asker
    const row: TextRow = {
      workspace,
      node,
      version: request.version + 1,
      text: request.text,
      changedAt: before.at,
      changedBy: by,
    }
    const { conditions, rows } = pageText.write(row, 'text-changed' as const)
    const { revision } = before.state
    const parent = parentOf(before.state, node)
    const topics: Topic[] = [
      `document:${node}`,
      ...(parent === undefined ? [] : [`within:${parent}` as const]),
    ]
    return ok({
      value: row,
      conditions,
      rows: [...rows, placesChanged({ workspace, at: before.at, by, places: [node] })],
      news: [{ of: 'event' as const, workspace, revision, concerns: [{ topics, node }] }],
    })
  })
  if (!result.ok)
    throw result.error === 'text-changed'
      ? problemOf('text-changed')
      : new ProblemError(problemFrom(result.error, asker))
  return textView(parts, asker, id)
}
