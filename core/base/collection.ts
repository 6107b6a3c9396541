import { deleteIn, emptyTable, getIn, setIn, type Table, valuesOf } from './table.ts'

/**
 * Records by id, with indexes that follow by themselves: an index maps a key (a parent, a person)
 * to the records that have it. Immutable: what was there from the start lies in a base that every later
 * collection shares, and tables hold what came, changed or went since.
 */
export interface Collection<Row extends { readonly id: string }, Index extends string = never> {
  readonly size: number
  readonly base: Base<Row, Index>
  /** What came since, and what the base holds otherwise or no more: `null` for what is gone. */
  readonly rows: Table<Row['id'], Row | null>
  /** Of `rows` alone. */
  readonly indexes: Readonly<Record<Index, Table<string, Table<string, Row>>>>
  readonly keyOf: KeysOf<Row, Index>
}

/** Records that never change, by number. Each is the same object whenever it is asked for. */
export interface Base<Row extends { readonly id: string }, Index extends string> {
  readonly size: number
  readonly numberOf: (id: Row['id']) => number | undefined
  readonly at: (number: number) => Row
  /** The numbers of the records with this key. */
  readonly by: (index: Index, key: string) => ArrayLike<number>
  /** Where that is known without making records: the ids of those in a range of numbers that may hold a text in lower case. */
  readonly holding?: (text: string, range: NumberRange) => Row['id'][]
}

export interface NumberRange {
  readonly first: number
  readonly behind: number
}

/** For each index the key of a record in it; `null` leaves the record out. */
export type KeysOf<Row, Index extends string> = Readonly<Record<Index, (row: Row) => string | null>>

const nothing: Base<never, string> = {
  size: 0,
  numberOf: () => undefined,
  at: () => {
    throw new Error('there is nothing in it')
  },
  by: () => [],
}

export function createCollection<Row extends { readonly id: string }, Index extends string>(
  keyOf: KeysOf<Row, Index>,
  base: Base<Row, Index> = nothing as unknown as Base<Row, Index>,
): Collection<Row, Index> {
  const names = Object.keys(keyOf) as Index[]
  const indexes = Object.fromEntries(names.map(name => [name, emptyTable()])) as unknown
  return {
    size: base.size,
    base,
    rows: emptyTable(),
    indexes: indexes as Collection<Row, Index>['indexes'],
    keyOf,
  }
}

/** A base of records that are at hand. Each id must be there once. */
export function baseOf<Row extends { readonly id: string }, Index extends string>(
  rows: readonly Row[],
  keyOf: KeysOf<Row, Index>,
): Base<Row, Index> {
  const numbers = new Map<string, number>()
  for (const [number, row] of rows.entries()) numbers.set(row.id, number)
  const indexes = new Map(
    Object.entries<(row: Row) => string | null>(keyOf).map(([name, key]) => [name, grouped(rows, key)]),
  )
  return {
    size: rows.length,
    numberOf: id => numbers.get(id),
    at: number => rows[number] as Row,
    by: (index, key) => indexes.get(index)?.get(key) ?? [],
  }
}

function grouped<Row>(rows: readonly Row[], keyOf: (row: Row) => string | null): Map<string, number[]> {
  const groups = new Map<string, number[]>()
  for (const [number, row] of rows.entries()) {
    const key = keyOf(row)
    if (key === null) continue
    const group = groups.get(key)
    if (group === undefined) groups.set(key, [number])
    else group.push(number)
  }
  return groups
}

export function rowOf<Row extends { readonly id: string }, Index extends string>(
  { base, rows }: Collection<Row, Index>,
  id: Row['id'],
): Row | undefined {
  const later = rows.size === 0 ? undefined : getIn(rows, id)
  if (later !== undefined) return later ?? undefined
  const number = base.numberOf(id)
  return number === undefined ? undefined : base.at(number)
}

/** All records with this key, in no order. */
export function rowsBy<Row extends { readonly id: string }, Index extends string>(
  { base, rows, indexes }: Collection<Row, Index>,
  index: Index,
  key: string,
): Row[] {
  const found: Row[] = []
  const numbers = base.by(index, key)
  for (let each = 0; each < numbers.length; each += 1) {
    const row = base.at(numbers[each] as number)
    if (rows.size === 0 || getIn(rows, row.id) === undefined) found.push(row)
  }
  const later = getIn(indexes[index], key)
  if (later !== undefined) found.push(...valuesOf(later))
  return found
}

/** All records, in no order. */
export function* eachRow<Row extends { readonly id: string }, Index extends string>({
  base,
  rows,
}: Collection<Row, Index>): Generator<Row> {
  for (let number = 0; number < base.size; number += 1) {
    const row = base.at(number)
    if (rows.size === 0 || getIn(rows, row.id) === undefined) yield row
  }
  for (const row of valuesOf(rows)) if (row !== null) yield row
}

/** The records that came or changed since what lies in the base: what two collections of one base differ in is among them. */
export function* rowsSinceBase<Row extends { readonly id: string }, Index extends string>({
  rows,
}: Collection<Row, Index>): Generator<Row> {
  for (const row of valuesOf(rows)) if (row !== null) yield row
}

/** How many records are looked at between one answer and the next. */
const rangeLength = 1000

/**
 * The ids of records that may hold a text, in lower case, in whatever field is searched. After each piece others can
 * have their turn: to look at a million takes a while.
 */
export function* idsHolding<Row extends { readonly id: string }, Index extends string>(
  { base, rows }: Collection<Row, Index>,
  text: string,
): Generator<Row['id'][]> {
  const isOfBase = (id: Row['id']) => rows.size === 0 || getIn(rows, id) === undefined
  for (let first = 0; first < base.size; first += rangeLength) {
    const range = { first, behind: Math.min(base.size, first + rangeLength) }
    yield (base.holding?.(text, range) ?? idsIn(base, range)).filter(isOfBase)
  }
  yield [...valuesOf(rows)].flatMap(row => (row === null ? [] : [row.id]))
}

function idsIn<Row extends { readonly id: string }>(
  base: Base<Row, never>,
  { first, behind }: NumberRange,
): Row['id'][] {
  const ids: Row['id'][] = []
  for (let number = first; number < behind; number += 1) ids.push(base.at(number).id)
  return ids
}

export const allRows = <Row extends { readonly id: string }, Index extends string>(
  collection: Collection<Row, Index>,
): Row[] => [...eachRow(collection)]

/** Puts `row` in the place of what has its id; `null` takes that record out. */
export function withRow<Row extends { readonly id: string }, Index extends string>(
  collection: Collection<Row, Index>,
  id: Row['id'],
  row: Row | null,
): Collection<Row, Index> {
  const { base, keyOf, size } = collection
  const isInBase = base.numberOf(id) !== undefined
  const later = getIn(collection.rows, id)
  const wasThere = later === undefined ? isInBase : later !== null
  const indexes: Record<Index, Table<string, Table<string, Row>>> = { ...collection.indexes }
  for (const name of Object.keys(keyOf) as Index[]) {
    const key = keyOf[name]
    let index = indexes[name]
    if (later !== undefined && later !== null) index = withoutMember(index, key(later), id)
    if (row !== null) index = withMember(index, key(row), row)
    indexes[name] = index
  }
  const rows = row === null && !isInBase ? deleteIn(collection.rows, id) : setIn(collection.rows, id, row)
  return { size: size + (row === null ? 0 : 1) - (wasThere ? 1 : 0), base, rows, indexes, keyOf }
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
