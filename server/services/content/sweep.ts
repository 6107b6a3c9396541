import { Op, QueryTypes } from 'sequelize'
import { ok } from '#core/base/result.ts'
import type { Parts } from '../../parts.ts'
import type { Follower } from '../../store/log.ts'
import { need, snapshotAt } from '../../store/states.ts'
import type { BlobRow, UploadRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import { readerAt } from '../viewer/asker.ts'
import { completeUpload } from './file-made.ts'
import { sweepGoneColumns } from './gone-columns.ts'

/** Takes away the bytes that nobody's row names, and uploads that nobody goes on with. */
export interface Sweeper {
  readonly parts: Parts
  running: Promise<void> | null
  timer: NodeJS.Timeout | null
  isStale: boolean
}

/** Every so often all of it is looked through. */
const lookEvery = 3_600_000
/** So long an upload waits for its next bytes. */
const uploadTime = 7 * 86_400_000
/** So old bytes without a row have to be: nobody is about to write one. */
const unnamedTime = 86_400_000
/** So long previews are kept before they are made anew. */
const madeTime = 30 * 86_400_000
const together = 200

export function startSweeper(parts: Parts): Sweeper {
  const sweeper: Sweeper = { parts, running: null, timer: null, isStale: false }
  sweeper.timer = setInterval(() => run(sweeper, () => sweepAll(parts)), lookEvery).unref()
  run(sweeper, () => sweepAll(parts))
  return sweeper
}

export async function stopSweeper(sweeper: Sweeper): Promise<void> {
  if (sweeper.timer !== null) clearInterval(sweeper.timer)
  await sweeper.running
}

/** Looks for bytes that nobody has any more once versions of files are gone. */
export const followerOfFiles = (sweeper: Sweeper): Follower => ({
  load: () => {},
  hear: ({ news }) => {
    if (news.some(each => each.of === 'files')) run(sweeper, () => dropUnnamed(sweeper.parts))
  },
})

function run(sweeper: Sweeper, sweep: () => Promise<void>): void {
  const before = sweeper.running ?? Promise.resolve()
  const now: Promise<void> = before
    .then(sweep)
    .catch((error: unknown) => sweeper.parts.log.error({ err: error as Error }, 'files could not be swept'))
    .finally(() => {
      if (sweeper.running === now) sweeper.running = null
    })
  sweeper.running = now
}

/** All that is left over, also by a crash. */
export async function sweepAll(parts: Parts): Promise<void> {
  await endOldUploads(parts)
  await completeLeft(parts)
  await dropUnnamed(parts)
  await dropWithoutRow(parts)
  await sweepGoneColumns(parts)
  await parts.files.dropMadeBefore(Date.now() - madeTime)
}

async function endOldUploads({ writer, clock, files }: Parts): Promise<void> {
  const old = { changedAt: { [Op.lt]: clock() - uploadTime } }
  const rows = (await writer.tables.uploads.findAll({ where: old, raw: true })) as unknown as UploadRow[]
  for (const { workspace, id } of rows) {
    await submit(writer, () =>
      ok({
        value: undefined,
        rows: [{ kind: 'delete', table: 'uploads', where: { workspace, id, ...old } }],
      }),
    )
    await files.dropUpload(id)
  }
}

/** Those of which all bytes had come when the server stopped. */
async function completeLeft(parts: Parts): Promise<void> {
  const { writer, clock } = parts
  const { database } = writer.tables
  const rows = (await writer.tables.uploads.findAll({
    where: { received: { [Op.eq]: database.col('size') } },
    raw: true,
  })) as unknown as UploadRow[]
  for (const row of rows) {
    await need(writer.states, row.workspace)
    const snapshot = snapshotAt(writer.states, row.workspace, clock())
    const asker = snapshot === undefined ? undefined : readerAt(row.workspace, snapshot, row.person)
    // Whoever may not any more is told when they ask for it; until then it waits like any other.
    if (asker !== undefined) await completeUpload(parts, asker, { upload: row }).catch(() => undefined)
  }
}

/** Bytes that no version of any file names: their row goes while that is so, then they. */
export async function dropUnnamed({ writer, files }: Parts): Promise<void> {
  for (;;) {
    const unnamed = await writer.tables.database.query<Pick<BlobRow, 'workspace' | 'hash' | 'name'>>(
      `SELECT workspace, hash, name FROM blobs
        WHERE NOT EXISTS (SELECT 1 FROM "fileVersions" WHERE "fileVersions".workspace = blobs.workspace
          AND "fileVersions".hash = blobs.hash) LIMIT $most`,
      { type: QueryTypes.SELECT, bind: { most: together } },
    )
    for (const { workspace, hash, name } of unnamed) {
      const gone = await submit<undefined, 'named'>(writer, () =>
        ok({
          value: undefined,
          conditions: [{ table: 'fileVersions', where: { workspace, hash }, atMost: 0, orElse: 'named' }],
          rows: [{ kind: 'delete', table: 'blobs', where: { workspace, hash, name } }],
        }),
      )
      if (gone.ok) await files.drop(name)
    }
    if (unnamed.length < together) return
  }
}

/** What was written and never named: a crash came between. */
async function dropWithoutRow({ writer, files }: Parts): Promise<void> {
  const { blobs, uploads } = writer.tables
  const since = Date.now() - unnamedTime
  for await (const { name, changedAt } of files.names())
    if (changedAt < since && (await blobs.count({ where: { name } })) === 0) await files.drop(name)
  for (const id of await files.uploads())
    if ((await uploads.count({ where: { id } })) === 0) await files.dropUpload(id)
}
