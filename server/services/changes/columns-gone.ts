import type { ColumnId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { RecordChange } from '#core/state/state.ts'
import type { RowChange } from '../../store/commit.ts'
import type { GoneColumnRow } from '../../store/tables.ts'

interface Done {
  readonly workspace: WorkspaceId
  readonly at: Instant
  readonly changes: readonly RecordChange[]
}

/** What is written with a change set that deletes columns, or brings some back. */
export function columnsGone({ workspace, at, changes }: Done): RowChange[] {
  const gone: GoneColumnRow[] = []
  const back: ColumnId[] = []
  for (const change of changes) {
    if (change.table !== 'columns') continue
    if (change.after === null && change.before !== null)
      gone.push({ workspace, id: change.id, board: change.before.board, at })
    else if (change.before === null) back.push(change.id)
  }
  return [
    ...(gone.length === 0
      ? []
      : [{ kind: 'put', table: 'goneColumns', rows: gone, replaced: ['at'] } as const]),
    ...(back.length === 0 ? [] : [{ kind: 'drop', table: 'goneColumns', workspace, ids: back } as const]),
  ]
}
