import type { Topic } from '#contract/topics.ts'
import type { NodeId } from '#core/base/ids.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import { judge } from '#core/changes/judge.ts'
import { type Snapshot, parentOf, workspaceOf } from '#core/state/state.ts'
import { kindOf } from '../../files/kind.ts'
import type { Part } from '../../files/store.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Commit, Condition, RowChange } from '../../store/commit.ts'
import { fileVersions, type FileVersionRow } from '../../store/content/file-versions.ts'
import type { BlobRow, UploadRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import { writeJudged } from '../changes/change.ts'
import { placesChanged } from '../changes/place-changes.ts'
import type { Asker } from '../viewer/asker.ts'
import { failed, makingFile, problemFor, refusalOf, type Refusing } from './upload-rights.ts'

/** So often it is tried anew because somebody else wrote the same bytes, or the next version, at the same time. */
const triesAtMost = 20

type Unfit = Refusing | 'again'

interface Complete {
  readonly upload: UploadRow
  /** Of all of it, where it is known already. */
  readonly sha256?: string | undefined
}

/**
 * Makes a file, or the next version of one, of an upload of which all bytes have come. They get their name first; the row
 * that names them is written after that, with the upload's own row gone: a crash in between leaves the upload to be tried
 * again, or bytes without a row, which are swept. Resolves to the file.
 */
export async function completeUpload(
  parts: Parts,
  asker: Asker,
  { upload, sha256 }: Complete,
): Promise<NodeId> {
  const { files, writer } = parts
  const name = parts.newId()
  const lying = JSON.parse(upload.parts) as Part[]
  const hash = await files.settle(upload.id, { parts: lying, name, sha256 })
  const kind = await kindOf(files.pathOf(name), upload.name)
  const { workspace } = upload
  const own: BlobRow = { workspace, hash, name, size: upload.size, kind, madeAt: parts.clock() }
  for (let tries = 0; tries < triesAtMost; tries += 1) {
    const there = await blobOf(parts, { workspace, hash })
    const before = upload.isVersion ? await fileVersions.newest(writer.tables, placeOf(upload)) : undefined
    const made = {
      upload,
      blob: there ?? own,
      isNew: there === undefined,
      version: (before?.version ?? 0) + 1,
    }
    const result = await submit<NodeId, Unfit>(writer, candidates => {
      const snapshot = candidates.snapshotOf(workspace)
      return snapshot === undefined ? refused(failed('not-found')) : fileMade(parts, snapshot, made)
    })
    if (result.ok) {
      if (there !== undefined) await files.drop(name)
      await files.dropUpload(upload.id)
      return result.value
    }
    if (result.error !== 'again') {
      await files.drop(name)
      throw problemFor(asker, result.error)
    }
  }
  await files.drop(name)
  throw problemOf('others-changed')
}

const placeOf = ({ workspace, place }: UploadRow) => ({ workspace, node: place })

async function blobOf(
  { writer }: Parts,
  where: Pick<BlobRow, 'workspace' | 'hash'>,
): Promise<BlobRow | undefined> {
  const row = await writer.tables.blobs.findOne({ where: { ...where }, raw: true })
  return row === null ? undefined : (row as unknown as BlobRow)
}

interface Made {
  readonly upload: UploadRow
  readonly blob: BlobRow
  /** Whether nobody has these bytes yet. */
  readonly isNew: boolean
  readonly version: number
}

function fileMade(parts: Parts, before: Snapshot, made: Made): Result<Commit<NodeId, Unfit>, Unfit> {
  const { upload } = made
  const refusal = refusalOf(before, upload)
  if (refusal !== undefined) return refused(refusal)
  const commit = upload.isVersion ? versionMade(before, made) : nodeMade(parts, before, made)
  const { workspace, id } = upload
  const isThere: Condition<Unfit> = {
    table: 'uploads',
    where: { workspace, id },
    atLeast: 1,
    orElse: failed('not-found'),
  }
  return ok({
    ...commit,
    conditions: [isThere, ...bytesNamed(made), ...(commit.conditions ?? [])],
    rows: [
      ...(made.isNew ? [{ kind: 'put', table: 'blobs', rows: [made.blob] } as const] : []),
      ...(commit.rows ?? []),
      { kind: 'delete', table: 'uploads', where: { workspace, id } },
    ],
  })
}

/** Bytes that are there already stay so until it is written; those that are not are nobody else's. */
const bytesNamed = ({ blob: { workspace, hash, name }, isNew }: Made): Condition<Unfit>[] => [
  isNew
    ? { table: 'blobs', where: { workspace, hash }, atMost: 0, orElse: 'again' }
    : { table: 'blobs', where: { workspace, hash, name }, atLeast: 1, orElse: 'again' },
]

const versionRow = ({ upload, blob, version }: Made, node: NodeId, at: number): FileVersionRow => ({
  workspace: upload.workspace,
  node,
  version,
  hash: blob.hash,
  size: blob.size,
  kind: blob.kind,
  restoredFrom: null,
  changedAt: at,
  changedBy: upload.person,
})

function nodeMade(parts: Parts, before: Snapshot, made: Made): Commit<NodeId, Unfit> {
  const node = parts.newId() as NodeId
  const { workspace } = made.upload
  const changeSet = makingFile(made.upload, node)
  const judged = judge(before, changeSet)
  if (!judged.ok) throw new Error('it was judged in the same turn')
  const commit = writeJudged(parts, { workspace, before, changeSet, judged: judged.value })
  const { rows } = fileVersions.write(versionRow({ ...made, version: 1 }, node, before.at), 'again')
  return { ...commit, value: node, rows: [...(commit.rows ?? []), ...rows] }
}

function versionMade(before: Snapshot, made: Made): Commit<NodeId, Unfit> {
  const { workspace, place: node, person: by } = made.upload
  return { ...versionCommit(before, versionRow(made, node, before.at), { workspace, node, by }), value: node }
}

/** The next version of a file, as a commit: told to those who see it. */
export function versionCommit(
  before: Snapshot,
  row: FileVersionRow,
  {
    workspace,
    node,
    by,
  }: Pick<FileVersionRow, 'workspace' | 'node'> & { readonly by: FileVersionRow['changedBy'] },
): Commit<undefined, 'again'> {
  const { versionsKept } = workspaceOf(before.state)
  const written = fileVersions.write(row, 'again' as const, versionsKept)
  const parent = parentOf(before.state, node)
  const topics: Topic[] = [`document:${node}`, ...(parent === undefined ? [] : [`within:${parent}` as const])]
  const changed: RowChange = placesChanged({ workspace, at: before.at, by, places: [node] })
  const { revision } = before.state
  return {
    value: undefined,
    conditions: written.conditions,
    rows: [...written.rows, changed],
    news: [
      ...(row.version > versionsKept ? [{ of: 'files' as const }] : []),
      { of: 'content' as const, workspace, nodes: [node] },
      { of: 'event' as const, workspace, revision, concerns: [{ topics, node }] },
    ],
  }
}
