import { Type } from '@sinclair/typebox'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'
import { instant } from '../terms.ts'

/** Bytes of all versions, of so many files. */
const share = { bytes: Type.Number(), files: Type.Number() }

/** A file with all its versions. */
export const StoredFile = view('StoredFile', {
  /** Its id, name and place, where its reader sees it. */
  place: orNull(Type.Object({ id: Type.String(), name: Type.String(), path: Type.String() }, strict)),
  bytes: Type.Number(),
  versions: Type.Number(),
  changedAt: instant,
  /** `null` where nobody has since it is written down. */
  openedAt: orNull(instant),
})
export type StoredFile = View<typeof StoredFile>

/** What takes the room of a workspace. */
export const StorageView = view('StorageView', {
  /** Of all versions of all files, and of what is on its way: what counts against the quota. */
  used: Type.Number(),
  coming: Type.Number(),
  /** What lies on the disk of it: the same bytes lie there once. */
  stored: Type.Number(),
  quota: orNull(Type.Number()),
  files: Type.Number(),
  kinds: Type.Array(
    Type.Object(
      { kind: oneOf('pictures', 'documents', 'texts', 'sound', 'film', 'packed', 'other'), ...share },
      strict,
    ),
  ),
  /** Those who put it there, the most first; nobody’s name whom the reader does not know. */
  people: Type.Array(
    Type.Object({ id: orNull(Type.String()), name: orNull(Type.String()), ...share }, strict),
  ),
  /** The homes in which it lies, the most first: of teams, shared ones, and private folders together. */
  homes: Type.Array(
    Type.Object(
      {
        id: orNull(Type.String()),
        name: orNull(Type.String()),
        of: oneOf('team', 'shared', 'person'),
        ...share,
      },
      strict,
    ),
  ),
  largest: Type.Array(StoredFile),
  /** Neither opened nor changed for a year, the largest first, and what all of them take. */
  unused: Type.Object({ ...share, largest: Type.Array(StoredFile) }, strict),
})
export type StorageView = View<typeof StorageView>
