import { type Base, baseOf, createCollection } from '../base/collection.ts'
import type { AccessIndex } from '../index/layout.ts'
import { datesOf } from './dates.ts'
import type { IndexOf, Rows, TableName } from './kinds.ts'
import type { RecordShapes } from './shape.ts'
import type { State } from './state.ts'

/** The tables that hold very much: their records are not made before they are asked for. */
export const packedTables = ['nodes', 'grants', 'limits'] as const satisfies readonly TableName[]
export type PackedTable = (typeof packedTables)[number]

export type HeldRows = { readonly [T in Exclude<TableName, PackedTable>]: readonly Rows[T][] }

export interface LoadedState {
  readonly kinds: RecordShapes
  readonly revision: number
  readonly rows: HeldRows
  readonly bases: { readonly [T in PackedTable]: Base<Rows[T], IndexOf<T>> }
  /** Of the packed ones, all that begin, end or lie in the bin. */
  readonly dated: { readonly [T in PackedTable]: readonly Rows[T][] }
  /** It says what the records say. */
  readonly index: AccessIndex
}

/** The state that the same records would come to one by one, at once. */
export function stateFrom({ kinds, revision, rows, bases, dated, index }: LoadedState): State {
  const all: Readonly<Record<string, unknown>> = {
    ...Object.fromEntries(
      Object.entries(rows).map(([table, each]) => [
        table,
        baseOf(each as never, kinds[table as TableName].indexes as never),
      ]),
    ),
    ...bases,
  }
  const collections = Object.entries(kinds).map(([table, { indexes }]) => [
    table,
    createCollection(indexes as never, all[table] as never),
  ])
  const dates = datesOf(kinds, { ...rows, ...dated })
  return { revision, index, dates, kinds, ...(Object.fromEntries(collections) as object) } as State
}
