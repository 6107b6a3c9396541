import { allRows, type Collection, rowsBy } from '../base/collection.ts'
import type { TableName } from './kinds.ts'
import type { Reference } from './shape.ts'
import type { RecordChange, State } from './state.ts'

/** What records name of each other: read by deletion and undo from what their kinds say. */

interface Row {
  readonly id: string
}

interface NamingRow {
  readonly table: TableName
  readonly row: Row
  readonly reference: Reference<Row>
}

/** What a record names that has to be there for it to stand. */
export const groundOf = (state: State, table: TableName, row: Row): (readonly [TableName, string])[] =>
  referencesOf(state, table)
    .filter(reference => reference.whenGone !== 'stays')
    .flatMap(({ to, ids }) => ids(row).map(id => [to, id] as const))

/** Whether anything would be left without its ground if a record were gone. */
export const isGround = (state: State, table: TableName, id: string): boolean =>
  isNamed(state, { table, id }, reference => reference.whenGone !== 'stays')

/** Whether anything forbids that a record goes. */
export const isHeld = (state: State, table: TableName, id: string): boolean =>
  isNamed(state, { table, id }, reference => reference.whenGone === 'forbids')

/**
 * What becomes of others when a record goes: what goes along with it, each after what goes along with that, and what names
 * it no more. What comes later in the table of kinds goes first. Costs what goes, and a look at all of the kinds
 * that are not found by what they name.
 */
export function consequencesOf(state: State, table: TableName, id: string): RecordChange[] {
  const changes = new Map<string, RecordChange>()
  addConsequences(state, { table, id }, changes)
  return [...changes.values()]
}

/** A record with all that goes along. */
export const goneWith = (state: State, table: TableName, row: Row): RecordChange[] => [
  ...consequencesOf(state, table, row.id),
  gone(table, row),
]

export const gone = (table: TableName, before: Row): RecordChange =>
  ({ table, id: before.id, before, after: null }) as unknown as RecordChange

function addConsequences(state: State, { table, id }: Named, changes: Map<string, RecordChange>): void {
  const isConsequence = ({ whenGone }: Reference<Row>) => whenGone !== 'stays' && whenGone !== 'forbids'
  for (const { table: from, row, reference } of naming(state, { table, id }, isConsequence)) {
    const key = `${from} ${row.id}`
    if (changes.get(key)?.after === null) continue
    if (reference.whenGone === 'goes along') {
      addConsequences(state, { table: from, id: row.id }, changes)
      changes.set(key, gone(from, row))
    } else if (typeof reference.whenGone === 'object') {
      const after = reference.whenGone.unnamed((changes.get(key)?.after as Row | undefined) ?? row, id)
      changes.set(key, { table: from, id: row.id, before: row, after } as unknown as RecordChange)
    }
  }
}

function isNamed(state: State, named: Named, counts: Counts): boolean {
  for (const _ of naming(state, named, counts)) return true
  return false
}

type Counts = (reference: Reference<Row>) => boolean

interface Named {
  readonly table: TableName
  readonly id: string
}

/** Every record that names another in a way that counts. */
function* naming(state: State, { table, id }: Named, counts: Counts): Generator<NamingRow> {
  for (const from of Object.keys(state.kinds).toReversed() as TableName[])
    for (const reference of referencesOf(state, from))
      if (reference.to === table && counts(reference))
        for (const row of rowsNaming(state[from], reference, id)) yield { table: from, row, reference }
}

function rowsNaming(rows: unknown, { by, ids }: Reference<Row>, id: string): readonly Row[] {
  const collection = rows as Collection<Row, string>
  return by === undefined
    ? allRows(collection).filter(row => ids(row).includes(id))
    : by.keys(id).flatMap(key => rowsBy(collection, by.index, key))
}

const referencesOf = ({ kinds }: State, table: TableName) =>
  kinds[table].references as unknown as readonly Reference<Row>[]
