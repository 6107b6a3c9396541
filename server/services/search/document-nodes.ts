import type { WorkspaceId } from '#core/base/ids.ts'
import type { State } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { isLarge } from '../../worker/by-id.ts'
import {
  addDocuments,
  type DocumentNodes,
  isNumberedAlike,
  noDocumentNodes,
} from '../../worker/visible-documents.ts'

interface Within {
  readonly workspace: WorkspaceId
  readonly state: State
}

/** The first reading of all: whoever comes meanwhile waits for it. */
const loading = new WeakMap<DocumentNodes, Promise<void>>()

/** The places of all documents of a workspace, read once and added to with each later search. */
export async function documentNodesFor(parts: Parts, within: Within): Promise<DocumentNodes> {
  const { documentNodes } = parts
  const before = documentNodes.get(within.workspace)
  if (before !== undefined && isNumberedAlike(before, within.state)) {
    await loading.get(before)
    await loadMore(parts, within, before)
    return before
  }
  const kept = noDocumentNodes(within.state)
  documentNodes.set(within.workspace, kept)
  const loaded = loadMore(parts, within, kept)
  loading.set(kept, loaded)
  // One that failed is begun anew.
  loaded.catch(() => documentNodes.delete(within.workspace))
  await loaded
  return kept
}

async function loadMore({ index }: Parts, { workspace, state }: Within, kept: DocumentNodes): Promise<void> {
  for (;;) {
    const more = await index.placesAfter(workspace, kept.last)
    addDocuments(kept, state, more)
    if (more.nodes.length === 0) return
  }
}

/** Reads those of large workspaces before they are first asked for: of a million places that takes seconds. */
export async function readDocumentNodes(parts: Parts): Promise<void> {
  for (const [workspace, { snapshot }] of parts.writer.states.published)
    if (isLarge(snapshot.state)) await documentNodesFor(parts, { workspace, state: snapshot.state })
}
