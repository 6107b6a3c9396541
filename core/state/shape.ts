import type { KeysOf } from '../base/collection.ts'
import type { Instant } from '../base/instant.ts'
import type { IndexOf, Rows, TableName } from './kinds.ts'

/** What the state, the database and undo know of a kind of record: how it is kept, what it names, when something of it passes. */
export interface RecordShape<T extends TableName = TableName> {
  /** How each field is stored; the database has a column for each. */
  readonly fields: { readonly [F in keyof Rows[T]]-?: Stored }
  /** The indexes of the table: the key of a record in each. */
  readonly indexes: KeysOf<Rows[T], IndexOf<T>>
  readonly references: readonly Reference<Rows[T]>[]
  /** When something of a record begins, ends or comes near by itself. */
  readonly dates?: { readonly [D in DateKind]?: (row: Rows[T]) => Instant | null }
}

/** `json` holds small structures that nothing queries; what a grant gives lies in two columns, of which one is empty. */
export type Stored = 'text' | 'number' | 'boolean' | 'json' | 'actions or level'

/** Something that one record names of another kind. */
export interface Reference<Row> {
  readonly to: TableName
  readonly field: keyof Row & string
  /** What it names there. */
  readonly ids: (row: Row) => readonly string[]
  /** An index that finds those that name one, and the keys to ask; without it all are looked through. */
  readonly by?: { readonly index: string; readonly keys: (id: string) => readonly string[] }
  readonly whenGone: WhenGone<Row>
  /** Whether the database holds a foreign key for it; why it does not, where it does not. */
  readonly key: 'foreign key' | { readonly none: string }
}

/**
 * What becomes of a record when what it names is deleted or leaves for good: it goes along; it forbids that; it names it
 * no more; or it stays and tells of what was. What only stays is no ground for undo to leave something out.
 */
export type WhenGone<Row> =
  'goes along' | 'forbids' | 'stays' | { readonly unnamed: (row: Row, id: string) => Row }

/**
 * The instants that are kept in order: starts and ends of what counts for a span; the leavings of people, who stay as
 * records; the last day in the bin; what is told before an end; what becomes of an unanswered request.
 */
export const dateKinds = [
  'starts',
  'ends',
  'leavings',
  'binEnds',
  'nearings',
  'reminders',
  'goingsOn',
] as const
export type DateKind = (typeof dateKinds)[number]

/** Of every table its shape, in an order in which rows can be written: what is named comes before what names it. */
export type RecordShapes = { readonly [T in TableName]: RecordShape<T> }
