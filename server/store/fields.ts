import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Stored } from '#core/state/shape.ts'

/**
 * How the core's records lie in tables, as their kinds say: a column for each field, with the same name; two for what a
 * grant gives, of which one is empty.
 */
export type Fields = Readonly<Record<string, Stored>>

const types = {
  text: DataTypes.TEXT,
  number: DataTypes.DOUBLE,
  boolean: DataTypes.BOOLEAN,
  json: DataTypes.TEXT,
} as const

/** The columns of a field, by name, and of which type. */
const columnsOf = (name: string, stored: Stored): (readonly [string, keyof typeof types])[] =>
  stored === 'actions or level'
    ? [
        ['actions', 'number'],
        ['level', 'text'],
      ]
    : [[name, stored]]

/** The Sequelize model of a table of the core. */
export function defineTable(database: Sequelize, table: string, fields: Fields): ModelStatic<Model> {
  const columns = Object.entries(fields)
    .flatMap(([name, stored]) => columnsOf(name, stored))
    .map(([name, type]) => [name, { type: types[type], primaryKey: name === 'id' }] as const)
  const workspace = { type: DataTypes.TEXT, primaryKey: table !== 'workspaces' }
  const attributes = { workspace, ...Object.fromEntries(columns) } as ModelAttributes
  return database.define(table, attributes, { tableName: table, timestamps: false })
}

/** What is written of a record, by the names of the columns. */
export const columnNamesOf = (fields: Fields): string[] =>
  Object.entries(fields).flatMap(([name, stored]) => columnsOf(name, stored).map(([each]) => each))

type StoredRow = Readonly<Record<string, unknown>>

export function toRow(fields: Fields, workspace: WorkspaceId, record: StoredRow): StoredRow {
  const entries = Object.entries(fields).flatMap(([name, stored]) => {
    const value = record[name]
    if (stored === 'actions or level')
      return typeof value === 'number'
        ? [
            ['actions', value],
            ['level', null],
          ]
        : [
            ['actions', null],
            ['level', value],
          ]
    return [[name, stored === 'json' && value !== null ? JSON.stringify(value) : value]]
  })
  return { workspace, ...(Object.fromEntries(entries) as StoredRow) }
}

/** Makes a record out of the values of its fields, in order, as a database packs them into JSON. What is not among the names is to be added. */
export function readerOf<Row>(
  fields: Fields,
  names: readonly (keyof Row & string)[] = Object.keys(fields) as (keyof Row & string)[],
): (values: readonly unknown[]) => Row {
  const readers = names.map(name => read[fields[name] as Stored])
  return values => {
    const record: Record<string, unknown> = {}
    for (let field = 0; field < names.length; field += 1) {
      const value = values[field]
      record[names[field] as string] = value === null ? null : readers[field]?.(value)
    }
    return record as Row
  }
}

const read: Readonly<Record<Stored, (value: unknown) => unknown>> = {
  text: value => value,
  number: Number,
  boolean: Boolean,
  json: value => JSON.parse(String(value)) as unknown,
  // Of two columns, each with a type of its own: JSON keeps them apart.
  'actions or level': value => value,
}
