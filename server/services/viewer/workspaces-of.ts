import { compareWords } from '#core/base/compare-words.ts'
import type { AccountId, WorkspaceId } from '#core/base/ids.ts'
import { isLive } from '#core/base/instant.ts'
import type { Snapshot } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { need, snapshotAt } from '../../store/states.ts'
import { type Here, personsOf } from '../../store/whereabouts.ts'

/** Where an account is in, as what; by the names of the workspaces. None is read for it. */
export async function workspacesOf(parts: Parts, account: AccountId): Promise<Here[]> {
  const now = parts.clock()
  const persons = await personsOf(parts.writer.tables, account)
  return persons
    .filter(each => each.status === 'active' && isLive(each, now))
    .sort((a, b) => compareWords(a.name, b.name))
}

/** Workspaces as they are now, read if they are not in memory. */
export async function snapshotsOf(
  { writer: { states }, clock }: Parts,
  workspaces: readonly WorkspaceId[],
): Promise<Snapshot[]> {
  const found: Snapshot[] = []
  for (const workspace of workspaces) {
    await need(states, workspace)
    const snapshot = snapshotAt(states, workspace, clock())
    if (snapshot !== undefined) found.push(snapshot)
  }
  return found
}
