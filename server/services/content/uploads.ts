import type { Readable } from 'node:stream'
import type { UploadRequest } from '#contract/requests.ts'
import type { UploadsView } from '#contract/views/files.ts'
import type { NodeId } from '#core/base/ids.ts'
import { ok, refused } from '#core/base/result.ts'
import { workspaceOf } from '#core/state/state.ts'
import type { Come as BytesCome, Part } from '../../files/store.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { UploadRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import type { Asker } from '../viewer/asker.ts'
import { spending } from '../viewer/quota.ts'
import { completeUpload } from './file-made.ts'
import { asFailed, failed, problemFor, refusalOf, type Refusing } from './upload-rights.ts'
import { usedBytes, withinQuota } from './storage.ts'

/**
 * Files on their way, by tus 1.0: an upload is announced with its size, its bytes come in as many requests as it takes, and
 * with the last of them it becomes a file, or a version of one. Each request is of the person who announced it, and asks
 * anew whether that is still theirs to do.
 */

/** So many uploads one person has open at once. */
const openAtMost = 1000

/** Announces an upload: refused before the first byte where it could not become a file. */
export async function beginUpload(parts: Parts, asker: Asker, request: UploadRequest): Promise<Come> {
  const { workspace, person } = asker
  const { largestFile, storageQuota } = workspaceOf(asker.snapshot.state)
  if (request.size > largestFile) throw problemOf('file-too-large')
  const id = parts.newId()
  const result = await submit<UploadRow, Refusing>(parts.writer, candidates => {
    const before = candidates.snapshotOf(workspace)
    if (before === undefined) throw problemOf('not-found')
    const upload = { ...request, place: request.place as NodeId, person }
    const refusal = refusalOf(before, upload)
    if (refusal !== undefined) return refused(refusal)
    const now = before.at
    const row = { ...upload, workspace, id, received: 0, parts: '[]', madeAt: now, changedAt: now }
    const open = { table: 'uploads' as const, where: { workspace, person } }
    return ok({
      value: row,
      conditions: [
        { ...open, atMost: openAtMost - 1, orElse: failed('many-open-uploads') },
        ...spending(parts, { workspace, who: person, what: 'uploads' }).map(asFailed),
        ...withinQuota({ workspace, storageQuota, more: row.size }, failed('storage-full')),
      ],
      rows: [{ kind: 'put', table: 'uploads', rows: [row] }],
    })
  })
  if (!result.ok) throw problemFor(asker, result.error)
  const upload = result.value
  return request.size > 0 ? { upload } : { upload, file: await completeUpload(parts, asker, { upload }) }
}

/** How far an upload is, and the file that it became. */
interface Come {
  readonly upload: UploadRow
  readonly file?: NodeId
}

/** How far an upload of the asker's has come. What still takes bytes of it stops, so that all that have come count. */
export async function uploadOf(parts: Parts, { workspace, person }: Asker, id: string): Promise<UploadRow> {
  await parts.receiving.get(id)?.stop()
  const row = await parts.writer.tables.uploads.findOne({ where: { workspace, id, person }, raw: true })
  if (row === null) throw problemOf('not-found')
  return readUpload(row)
}

/** Not every database has a type of its own for yes and no. */
const readUpload = (row: object): UploadRow => {
  const upload = row as Omit<UploadRow, 'isVersion'> & { readonly isVersion: boolean | number }
  return { ...upload, isVersion: Boolean(upload.isVersion) }
}

/** What of the asker is no file yet, the oldest first. */
export async function uploadsView({ writer }: Parts, asker: Asker): Promise<UploadsView> {
  const { workspace, person, snapshot } = asker
  const where = { workspace, person }
  const rows = await writer.tables.uploads.findAll({ where, order: [['id', 'ASC']], raw: true })
  const { largestFile, storageQuota } = workspaceOf(snapshot.state)
  return {
    uploads: rows.map(readUpload).map(({ id, name, place, isVersion, size, received, madeAt }) => ({
      id,
      name,
      place,
      isVersion,
      size,
      received,
      madeAt,
    })),
    largestFile,
    left:
      storageQuota === null ? null : Math.max(0, storageQuota - (await usedBytes(writer.tables, workspace))),
  }
}

interface Appending {
  readonly id: string
  readonly offset: number
  readonly bytes: Readable
}

/** Takes the bytes of an upload from an offset on, which has to be as far as it has come. Resolves to how far it is then. */
export async function appendTo(parts: Parts, asker: Asker, { id, offset, bytes }: Appending): Promise<Come> {
  const row = await uploadOf(parts, asker, id)
  const refusal = refusalOf(asker.snapshot, row)
  if (refusal !== undefined) throw problemFor(asker, refusal)
  if (offset !== row.received) throw problemOf('wrong-offset')
  const { now: upload, sha256 } = await received(parts, row, bytes)
  return upload.received < upload.size
    ? { upload }
    : { upload, file: await completeUpload(parts, asker, { upload, sha256 }) }
}

/** A request that takes bytes of an upload. */
export interface Receiving {
  /** Ends it; resolves once what has come is counted. */
  readonly stop: () => Promise<void>
}

interface Received {
  readonly now: UploadRow
  /** The hash of the whole file, where all of it came in this request. */
  readonly sha256?: string
}

async function received(parts: Parts, row: UploadRow, bytes: Readable): Promise<Received> {
  if (row.received === row.size) return { now: row }
  const part = parts.newId()
  let now = row
  const count = async (come: number) => {
    now = await noted(parts, now, withPart(row, { name: part, bytes: come }))
  }
  const missing = row.size - row.received
  const receiving = parts.files.receive(row.id, part, { bytes, atMost: missing, onLasting: count })
  const end = async ({ bytes: come }: BytesCome) => {
    // What is whole becomes a file at once, or has to be sent again.
    if (come === missing) now = { ...now, ...withPart(row, { name: part, bytes: come }) }
    else await count(come)
  }
  const done = receiving.then(end).finally(() => parts.receiving.delete(row.id))
  parts.receiving.set(row.id, {
    stop: async () => {
      bytes.destroy()
      await done.catch(() => undefined)
    },
  })
  await done
  const { sha256 } = await receiving
  return { now, ...(row.received === 0 ? { sha256 } : {}) }
}

/** How far an upload has come with one more part. */
const withPart = (before: UploadRow, part: Part): Pick<UploadRow, 'received' | 'parts'> => ({
  received: before.received + part.bytes,
  parts: JSON.stringify([...(JSON.parse(before.parts) as Part[]), ...(part.bytes === 0 ? [] : [part])]),
})

/** Writes down how far an upload has come: on top of what was known last, so that of two requests one counts. */
async function noted(
  { writer, clock }: Parts,
  now: UploadRow,
  come: Pick<UploadRow, 'received' | 'parts'>,
): Promise<UploadRow> {
  const { workspace, id, received } = now
  const fields = { ...come, changedAt: clock() }
  const table = 'uploads'
  const result = await submit(writer, () =>
    ok({
      value: { ...now, ...fields },
      conditions: [{ table, where: { workspace, id, received }, atLeast: 1, orElse: 'wrong-offset' }],
      rows: [{ kind: 'update', table, where: { workspace, id }, fields }],
    }),
  )
  if (!result.ok) throw problemOf('wrong-offset')
  return result.value
}

/** Gives an upload up: its bytes go. */
export async function endUpload(parts: Parts, asker: Asker, id: string): Promise<void> {
  const { workspace } = await uploadOf(parts, asker, id)
  await submit(parts.writer, () =>
    ok({ value: undefined, rows: [{ kind: 'delete', table: 'uploads', where: { workspace, id } }] }),
  )
  await parts.files.dropUpload(id)
}
