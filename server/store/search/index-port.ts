import type { ColumnId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'

/**
 * The index of what is written, by its words. It says what matches, and nothing of who may know: every match is
 * checked by the core before anything of it is told. It can be made anew of the database at any time.
 */
export interface SearchIndex {
  /** Up to which entry of the log everything is in it; nothing where it was never made. */
  readonly position: () => Promise<number | undefined>
  /** In one transaction. */
  readonly write: (changes: IndexChanges) => Promise<void>
  /** What is in it of some places. */
  readonly indexed: (workspace: WorkspaceId, nodes: readonly NodeId[]) => Promise<readonly Indexed[]>
  /** Files whose text is still to be read, the first few. */
  readonly waiting: (count: number) => Promise<readonly WaitingFile[]>
  /** In batches, the newest first: those with whole words, then those with beginnings, which may be the same ones again. */
  readonly matches: (query: PagedQuery) => AsyncGenerator<DocumentNumbers>
  /** Those among a few documents, wherever the words stand: costs what they cost, however many others match. */
  readonly matchesAmong: (query: MatchQuery, numbers: readonly number[]) => Promise<DocumentNumbers>
  /** Of which place each document is, by number; those after a number, in order. */
  readonly placesAfter: (workspace: WorkspaceId, number: number) => Promise<DocumentPlaces>
  readonly documents: (
    workspace: WorkspaceId,
    numbers: readonly number[],
  ) => Promise<readonly FoundDocument[]>
  /** What stands in some, by number. */
  readonly bodies: (
    workspace: WorkspaceId,
    numbers: readonly number[],
  ) => Promise<ReadonlyMap<number, string>>
  /** Without anything in it. */
  readonly clear: () => Promise<void>
  readonly close: () => Promise<void>
}

/** Numbers of documents of one workspace: the later one was written, the higher it is. */
export type DocumentNumbers = Int32Array

export interface DocumentPlaces {
  readonly numbers: Int32Array
  readonly nodes: readonly NodeId[]
  /** Of those that are of one column. */
  readonly columns: ReadonlyMap<number, ColumnId>
}

/**
 * What of a place is one document. Each is read by whoever sees the place; one of a restricted column only by those who
 * see that, too.
 */
export type Part = 'place' | 'text' | 'file' | 'cells' | `column:${ColumnId}`

export interface SearchDocument {
  readonly workspace: WorkspaceId
  readonly node: NodeId
  readonly part: Part
  /** Of which version of it this is made: where that is the same, so is the document. */
  readonly source: string
  /** The name of the place. */
  readonly name: string
  readonly body: string
  /** The kind of the place. */
  readonly kind: string
  readonly changedAt: Instant
  readonly changedBy: PersonId | null
}

export type Indexed = Pick<SearchDocument, 'node' | 'part' | 'source' | 'name'>

export type FoundDocument = Omit<SearchDocument, 'workspace' | 'body'> & {
  readonly number: number
}

export interface WaitingFile {
  readonly workspace: WorkspaceId
  readonly node: NodeId
}

export interface IndexChanges {
  /** Each in the place of the one of its place and part. */
  readonly puts: readonly SearchDocument[]
  readonly drops: readonly Pick<SearchDocument, 'workspace' | 'node' | 'part'>[]
  /** Files whose text is to be read, and those whose text was. */
  readonly waiting: readonly WaitingFile[]
  readonly read: readonly WaitingFile[]
  /** Up to which entry of the log everything is in it then. */
  readonly position?: number
}

/** What documents have to have. */
export interface MatchQuery {
  readonly workspace: WorkspaceId
  /** Folded beginnings of words, all of them. None for whatever it is. */
  readonly words: readonly string[]
  /** The whole name, folded, in the place of words. */
  readonly name?: string
  readonly kinds?: readonly string[]
  readonly by?: PersonId
  /** Changed then or later. */
  readonly since?: Instant
}

export interface PagedQuery extends MatchQuery {
  /** In the names of places, or in all else that stands in them. */
  readonly where: 'names' | 'texts'
}
