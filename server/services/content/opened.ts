import { ok } from '#core/base/result.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import { rowsOnly } from '../../store/commit.ts'
import type { FileOpenRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import type { Asker } from '../viewer/asker.ts'

const day = 86_400_000

/** Writes down that a file is used, once a day; nobody waits for it, and where only another process writes it is left out. */
export function noteOpened(parts: Parts, { workspace }: Asker, id: NodeId): void {
  if (parts.config.readsOnly === true) return
  write(parts, { workspace, id, at: parts.clock() }).catch((error: unknown) =>
    parts.log.warn({ err: error as Error }, 'that a file was opened could not be written'),
  )
}

async function write({ writer }: Parts, row: FileOpenRow): Promise<void> {
  const { workspace, id, at } = row
  const before = await writer.tables.fileOpens.findOne({ where: { workspace, id }, raw: true })
  if (before !== null && (before as unknown as FileOpenRow).at > at - day) return
  await submit(writer, () => ok(rowsOnly({ kind: 'put', table: 'fileOpens', rows: [row], replaced: ['at'] })))
}
