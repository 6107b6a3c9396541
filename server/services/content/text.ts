import type { TextRequest } from '#contract/requests.ts'
import type { Topic } from '#contract/topics.ts'
import type { TextVersionView, TextView } from '#contract/views/content.ts'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import { ok, refused } from '#core/base/result.ts'
import type { Refused } from '#core/changes/judge.ts'
import { lacksEditing } from '#core/changes/context.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { parentOf } from '#core/state/state.ts'
import { pageText, type TextRow } from '../../store/content/page-text.ts'
import type { VersionRow } from '../../store/content/versioned.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { type Asker, knowsPerson, nameOf, visiblePlace } from '../viewer/asker.ts'
import { problemFrom } from '../changes/change-set.ts'
import { placesChanged } from '../changes/place-changes.ts'

/** The newest version of a page's text; version 0, empty, where none was written. */
export async function textView(parts: Parts, asker: Asker, id: string): Promise<TextView> {
  const newest = await pageText.newest(parts.writer.tables, pageOf(asker, id))
  return newest === undefined
    ? { text: '', version: 0, changedAt: null, changedBy: null }
    : viewOf(asker, newest)
}

/** Every version, the newest first, to whoever may write the next one. */
export async function textVersions(parts: Parts, asker: Asker, id: string): Promise<TextVersionView[]> {
  const versions = await pageText.versions(parts.writer.tables, writablePage(asker, id))
  return versions.map(each => headOf(asker, each))
}

export async function textVersion(
  parts: Parts,
  asker: Asker,
  { id, version }: { readonly id: string; readonly version: string },
): Promise<TextView> {
  const at = writablePage(asker, id)
  const found = await pageText.version(parts.writer.tables, { ...at, version: Number(version) })
  if (found === undefined) throw problemOf('not-found')
  return viewOf(asker, found)
}

/** A page that the asker sees. */
function pageOf(asker: Asker, id: string): { readonly workspace: WorkspaceId; readonly node: NodeId } {
  const { place } = visiblePlace(asker, id)
  if (place.node.kind !== 'page') throw problemOf('not-found')
  return { workspace: asker.workspace, node: place.node.id }
}

function writablePage(asker: Asker, id: string) {
  const at = pageOf(asker, id)
  const { snapshot: now, person: author } = asker
  if (lacksEditing({ author, before: now, now }, at.node) !== undefined) throw problemOf('not-found')
  return at
}

const headOf = (asker: Asker, { version, changedAt, changedBy }: VersionRow): TextVersionView => ({
  version,
  changedAt,
  changedBy: knowsPerson(asker, changedBy) ? nameOf(asker.snapshot, changedBy) : null,
})

const viewOf = (asker: Asker, row: TextRow): TextView => ({ ...headOf(asker, row), text: row.text })

/** A content step: a new version on top of the one that its author saw. */
export async function saveText(
  parts: Parts,
  asker: Asker,
  { id, request }: { id: string; request: TextRequest },
): Promise<TextView> {
  const { workspace, node } = pageOf(asker, id)
  const result = await submit<TextRow, 'text-changed' | Refused>(parts.writer, candidates => {
    const before = candidates.snapshotOf(workspace)
    if (before === undefined) throw problemOf('not-found')
    const now = snapshotOf(before.state, before.at)
    const refusal = lacksEditing({ author: asker.person, before: now, now }, node)
    if (refusal !== undefined) return refused({ refusal, edit: null })
    const by = asker.person
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
      news: [
        { of: 'content' as const, workspace, nodes: [node] },
        { of: 'event' as const, workspace, revision, concerns: [{ topics, node }] },
      ],
    })
  })
  if (!result.ok)
    throw result.error === 'text-changed'
      ? problemOf('text-changed')
      : new ProblemError(problemFrom(result.error, asker))
  return textView(parts, asker, id)
}
