import { deleteIn, emptyTable, getIn, setIn, type Table, valuesOf } from './table.ts'

/**
 * Records by id, with indexes that follow by themselves: an index maps a key (a parent, a person)
 * to the table of records that have it. Immutable like the tables it is made of.
 */
export interface Collection<Row extends { readonly id: string }, Index extends string = never> {
  readonly rows: Table<Row['id'], Row>
  readonly indexes: Readonly<Record<Index, Table<string, Table<string, Row>>>>
  readonly keyOf: KeysOf<Row, Index>
}

/** For each index the key of a record in it; `null` leaves the record out. */
export type KeysOf<Row, Index extends string> = Readonly<Record<Index, (row: Row) => string | null>>

export function createCollection<Row extends { readonly id: string }, Index extends string>(
  keyOf: KeysOf<Row, Index>,
): Collection<Row, Index> {
  const names = Object.keys(keyOf) as Index[]
  const indexes = Object.fromEntries(names.map(name => [name, emptyTable()])) as unknown
  return { rows: emptyTable(), indexes: indexes as Collection<Row, Index>['indexes'], keyOf }
}

export const rowOf = <Row extends { readonly id: string }, Index extends string>(
  collection: Collection<Row, Index>,
  id: Row['id'],
): Row | undefined => getIn(collection.rows, id)

/** All records with this key, in no order. */
export function rowsBy<Row extends { readonly id: string }, Index extends string>(
  collection: Collection<Row, Index>,
  index: Index,
  key: string,
): Row[] {
  const found = getIn(collection.indexes[index], key)
  return found === undefined ? [] : [...valuesOf(found)]
}

export const allRows = <Row extends { readonly id: string }, Index extends string>(
  collection: Collection<Row, Index>,
): Row[] => [...valuesOf(collection.rows)]

/** Puts `row` in the place of what has its id; `null` takes that record out. */
export function withRow<Row extends { readonly id: string }, Index extends string>(
  collection: Collection<Row, Index>,
  id: Row['id'],
  row: Row | null,
): Collection<Row, Index> {
  const before = rowOf(collection, id)
  const indexes: Record<Index, Table<string, Table<string, Row>>> = { ...collection.indexes }
  for (const name of Object.keys(collection.keyOf) as Index[]) {
    const key = collection.keyOf[name]
    let index = indexes[name]
    if (before !== undefined) index = withoutMember(index, key(before), id)
    if (row !== null) index = withMember(index, key(row), row)
    indexes[name] = index
  }
  const rows = row === null ? deleteIn(collection.rows, id) : setIn(collection.rows, id, row)
  return { rows, indexes, keyOf: collection.keyOf }
}

type IndexTable<Row> = Table<string, Table<string, Row>>

function withMember<Row extends { readonly id: string }>(
  index: IndexTable<Row>,
  key: string | null,
  row: Row,
) {
  if (key === null) return index
  return setIn(index, key, setIn(getIn(index, key) ?? emptyTable<string, Row>(), row.id, row))
}

function withoutMember<Row>(index: IndexTable<Row>, key: string | null, id: string) {
  const members = key === null ? undefined : getIn(index, key)
  if (key === null || members === undefined) return index
  const rest = deleteIn(members, id)
  return rest.size === 0 ? deleteIn(index, key) : setIn(index, key, rest)
}
