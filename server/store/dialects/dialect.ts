import type { Sequelize, Transaction } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Lines } from '#core/base/packed-ids.ts'
import type { RecordShapes } from '#core/state/shape.ts'
import type { TableName } from '#core/state/kinds.ts'
import type { SearchIndex } from '../search/index-port.ts'

/**
 * What databases do differently. Models, migrations and statements elsewhere are the same on each; what is one kind of
 * database's stands in the folder of its name.
 */
export interface Dialect {
  /** Opens a database of a data folder, made where there is none. */
  readonly open: (dataDir: string, name: DatabaseName) => Promise<Sequelize>
  /** Does something in a transaction that nobody else writes beside: others wait for it. */
  readonly write: <T>(database: Sequelize, work: (transaction: Transaction) => Promise<T>) => Promise<T>
  /** A transaction that sees what is there when it first reads, and nothing of what is written meanwhile. */
  readonly read: (database: Sequelize) => Promise<Transaction>
  /** Tells, each time that it is asked, whether others have written since it was last asked. */
  readonly othersWrote: (database: Sequelize) => () => Promise<boolean>
  readonly packed: (reading: Reading) => PackedReader
  /** Opens the index of words of a data folder, made where there is none and it may be written. */
  readonly search: (dataDir: string, how: { readonly readsOnly: boolean }) => Promise<SearchIndex>
}

/** What people work on; and sign-ins, which come and go with every visit, away from its one writer. */
export type DatabaseName = 'noskel' | 'sessions'

export interface Reading {
  readonly database: Sequelize
  readonly kinds: RecordShapes
  readonly workspace: WorkspaceId
  readonly transaction: Transaction
}

/** Reads all records of a workspace, packed by the database into a few values. */
export interface PackedReader {
  /** What access hangs on of places: those that are special as JSON. */
  readonly outline: () => Promise<PackedOutline>
  /** Of each place some fields, as a line of JSON, in the order of the outline. */
  readonly lines: (fields: readonly string[]) => Promise<Buffer>
  /** Grants or limits: of each the fields of `said` as JSON, and the record as a line of it. */
  readonly entries: (table: 'grants' | 'limits', names: readonly string[]) => Promise<PackedEntryRows>
  /** All records of a table, as JSON. */
  readonly records: (table: TableName) => Promise<string>
}

export interface PackedOutline {
  readonly ids: Lines
  readonly parents: Buffer
  readonly special: string
}

export interface PackedEntryRows extends Lines {
  readonly places: Buffer
  readonly principals: string
  readonly contents: string
  readonly records: Buffer
}
