import { versioned, type VersionRow } from './versioned.ts'

export interface FileVersionRow extends VersionRow {
  /** Of the bytes, which are kept once (blobs). */
  readonly hash: string
  readonly size: number
  readonly kind: string
  /** Which version it was made of, where it was brought back. */
  readonly restoredFrom: number | null
}

/** The bytes of a file, version by version; how many are kept says the workspace. */
export const fileVersions = versioned<FileVersionRow>({
  table: 'fileVersions',
  mostVersions: 1000,
  whole: [],
})
