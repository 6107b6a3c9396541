import type { FileVersionView, FileView } from '#contract/views/files.ts'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import { ok, refused } from '#core/base/result.ts'
import { lacksEditing } from '#core/changes/context.ts'
import { has } from '#core/levels/action.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { fileVersions, type FileVersionRow } from '../../store/content/file-versions.ts'
import type { BlobRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import { type Asker, knowsPerson, nameOf, visiblePlace } from '../viewer/asker.ts'
import { versionCommit } from './file-made.ts'
import { noteOpened } from './opened.ts'
import { failed, problemFor, refusalOf, type Refusing } from './upload-rights.ts'

/** Bytes that may be sent, and what they are. */
export interface Taken {
  readonly path: string
  readonly name: string
  readonly size: number
  readonly kind: string
  readonly hash: string
}

export interface FileAt {
  readonly workspace: WorkspaceId
  readonly node: NodeId
  readonly name: string
  readonly mayTake: boolean
}

/** A file that the asker sees. */
export function fileAt(asker: Asker, id: string): FileAt {
  const { place, actions } = visiblePlace(asker, id)
  const { kind, id: node, name } = place.node
  if (kind !== 'file') throw problemOf('not-found')
  return { workspace: asker.workspace, node, name, mayTake: has(actions, 'copy') }
}

export async function fileView(parts: Parts, asker: Asker, id: string): Promise<FileView> {
  const { workspace, node, mayTake } = fileAt(asker, id)
  const newest = await fileVersions.newest(parts.writer.tables, { workspace, node })
  if (newest === undefined)
    return { version: 0, size: 0, kind: '', changedAt: null, changedBy: null, mayTake }
  const { version, size, kind, changedAt, changedBy } = newest
  return { version, size, kind, changedAt, changedBy: known(asker, changedBy), mayTake }
}

const known = (asker: Asker, person: FileVersionRow['changedBy']): string | null =>
  knowsPerson(asker, person) ? nameOf(asker.snapshot, person) : null

/** Every version that is kept, the newest first, to whoever may put the next one there. */
export async function fileVersionsView(parts: Parts, asker: Asker, id: string): Promise<FileVersionView[]> {
  const { workspace, node } = changeableFile(asker, id)
  const rows = await fileVersions.versions(parts.writer.tables, { workspace, node })
  return rows.map(({ version, size, kind, hash, changedAt, changedBy, restoredFrom }) => ({
    version,
    size,
    kind,
    hash,
    changedAt,
    changedBy: known(asker, changedBy),
    restoredFrom,
  }))
}

function changeableFile(asker: Asker, id: string): FileAt {
  const at = fileAt(asker, id)
  const { snapshot: now, person: author } = asker
  if (lacksEditing({ author, before: now, now }, at.node) !== undefined) throw problemOf('not-found')
  return at
}

interface VersionAt {
  readonly id: string
  readonly version: string
}

/** The bytes of a file, or of one version of it: to whoever may take it, not just look at it. */
export async function fileToTake(
  parts: Parts,
  asker: Asker,
  of: Partial<VersionAt> & Pick<VersionAt, 'id'>,
): Promise<Taken> {
  const { name, node, mayTake } = fileAt(asker, of.id)
  // Before it is told whether there is such a version.
  if (of.version !== undefined) changeableFile(asker, of.id)
  if (!mayTake) throw problemOf('look-only')
  noteOpened(parts, asker, node)
  return { name, ...(await storedVersion(parts, asker, of)) }
}

/** A version of a file where it lies. */
export interface Stored {
  readonly version: number
  readonly kind: string
  readonly size: number
  readonly hash: string
  /** The name of its bytes. */
  readonly blob: string
  readonly path: string
}

interface VersionOf {
  readonly id: string
  readonly version?: string | undefined
}

export async function storedVersion(parts: Parts, asker: Asker, of: VersionOf): Promise<Stored> {
  const stored = await findVersion(parts, asker, of)
  if (stored === undefined) throw problemOf('not-found')
  return stored
}

/**
 * The newest version of a file, or an earlier one for whoever may put the next one there; nothing where no bytes were ever
 * put there. Never sent to who may only look.
 */
export async function findVersion(
  { writer: { tables }, files }: Parts,
  asker: Asker,
  { id, version }: VersionOf,
): Promise<Stored | undefined> {
  const { workspace, node } = version === undefined ? fileAt(asker, id) : changeableFile(asker, id)
  const row =
    version === undefined
      ? await fileVersions.newest(tables, { workspace, node })
      : await fileVersions.version(tables, { workspace, node, version: Number(version) })
  if (row === undefined) return undefined
  const { hash, size, kind } = row
  const where = { workspace, hash }
  const blob = (await tables.blobs.findOne({ where, raw: true })) as unknown as BlobRow | null
  // Deleted for good between two questions.
  if (blob === null) return undefined
  return { version: row.version, kind, size, hash, blob: blob.name, path: files.pathOf(blob.name) }
}

/** Makes an earlier version the newest one: a version like any other, that says of which it was made. */
export async function restoreFileVersion(
  parts: Parts,
  asker: Asker,
  { id, version }: VersionAt,
): Promise<FileView> {
  const { workspace, node } = changeableFile(asker, id)
  const { tables } = parts.writer
  const [found, newest] = await Promise.all([
    fileVersions.version(tables, { workspace, node, version: Number(version) }),
    fileVersions.newest(tables, { workspace, node }),
  ])
  if (found === undefined || newest === undefined) throw problemOf('not-found')
  const by = asker.person
  const result = await submit<undefined, Refusing | 'again'>(parts.writer, candidates => {
    const before = candidates.snapshotOf(workspace)
    if (before === undefined) return refused(failed('not-found'))
    const refusal = refusalOf(before, { person: by, place: node, isVersion: true, name: '' })
    if (refusal !== undefined) return refused(refusal)
    const row: FileVersionRow = {
      ...found,
      version: newest.version + 1,
      restoredFrom: found.version,
      changedAt: before.at,
      changedBy: by,
    }
    return ok(versionCommit(before, row, { workspace, node, by }))
  })
  if (!result.ok)
    throw result.error === 'again' ? problemOf('others-changed') : problemFor(asker, result.error)
  return fileView(parts, asker, id)
}
