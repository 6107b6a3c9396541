import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import { type Rows, type TableName } from '#core/state/state.ts'

/**
 * How the core's records lie in tables: a column for each field, with the same name; two for what a grant gives, of
 * which one is empty. `json` holds small structures that nothing queries.
 */
type Column = 'text' | 'number' | 'boolean' | 'json' | 'actions or level'

const span = { from: 'number', until: 'number' } as const

const columns: { readonly [T in TableName]: Readonly<Record<keyof Rows[T], Column>> } = {
  workspaces: {
    id: 'text',
    name: 'text',
    slug: 'text',
    timeZone: 'text',
    madeAt: 'number',
    guestCeiling: 'number',
    allowsPublishing: 'boolean',
    defaultRole: 'text',
    seats: 'number',
    seatsNext: 'json',
    suspendedHoldSeats: 'boolean',
    picture: 'text',
    memberDomains: 'json',
    guestDomains: 'json',
    invitationDays: 'number',
    houseRules: 'text',
    secondFactorFor: 'json',
    signInDays: 'number',
    idleHours: 'number',
  },
  levels: { id: 'text', name: 'text', note: 'text', actions: 'number' },
  roles: {
    id: 'text',
    name: 'text',
    note: 'text',
    rung: 'number',
    privileges: 'json',
    callable: 'boolean',
    builtIn: 'boolean',
    free: 'boolean',
    madeAt: 'number',
    madeBy: 'text',
  },
  persons: {
    id: 'text',
    account: 'text',
    name: 'text',
    mail: 'text',
    handle: 'text',
    title: 'text',
    department: 'text',
    country: 'text',
    picture: 'text',
    kind: 'text',
    status: 'text',
    contact: 'text',
    invitedBy: 'text',
    joinedAt: 'number',
    agreedAt: 'number',
    ...span,
  },
  handles: { id: 'text', person: 'text', since: 'number' },
  welcomeSets: { id: 'text', name: 'text', note: 'text', offer: 'json' },
  joinLinks: {
    id: 'text',
    name: 'text',
    by: 'text',
    at: 'number',
    until: 'number',
    domains: 'json',
    most: 'number',
    used: 'number',
    welcome: 'text',
    offer: 'json',
  },
  requests: { id: 'text', team: 'text', person: 'text', at: 'number', word: 'text', declined: 'json' },
  roleRequests: {
    id: 'text',
    person: 'text',
    wants: 'json',
    at: 'number',
    word: 'text',
    declined: 'json',
  },
  handovers: { id: 'text', from: 'text', to: 'text', at: 'number', word: 'text', keeps: 'text' },
  looks: { id: 'text', by: 'text', through: 'text', at: 'number', until: 'number', word: 'text' },
  accessRequests: {
    id: 'text',
    person: 'text',
    node: 'text',
    wants: 'number',
    at: 'number',
    word: 'text',
    declined: 'json',
  },
  watches: { id: 'text', person: 'text', node: 'text' },
  holdings: { id: 'text', person: 'text', role: 'text', scope: 'json', ...span },
  invitations: {
    id: 'text',
    person: 'text',
    by: 'text',
    at: 'number',
    until: 'number',
    message: 'text',
    issue: 'number',
    welcome: 'text',
  },
  teams: {
    id: 'text',
    name: 'text',
    note: 'text',
    picture: 'text',
    joining: 'text',
    welcomesGuests: 'boolean',
    archived: 'boolean',
    archivedAt: 'number',
    allowsPublishing: 'boolean',
    posting: 'text',
    addressing: 'text',
    keptByDirectory: 'boolean',
    madeAt: 'number',
  },
  channels: { id: 'text', team: 'text', name: 'text', note: 'text', only: 'json', archived: 'boolean' },
  columns: {
    id: 'text',
    board: 'text',
    name: 'text',
    order: 'number',
    viewers: 'json',
    editors: 'json',
  },
  memberships: { id: 'text', team: 'text', person: 'text', lead: 'boolean', since: 'number', ...span },
  nodes: {
    id: 'text',
    parent: 'text',
    kind: 'text',
    name: 'text',
    note: 'text',
    maker: 'text',
    madeAt: 'number',
    order: 'number',
    home: 'json',
    broken: 'json',
    draft: 'boolean',
    archived: 'boolean',
    archivedAt: 'number',
    binned: 'json',
    web: 'text',
  },
  grants: {
    id: 'text',
    node: 'text',
    principal: 'text',
    gives: 'actions or level',
    by: 'text',
    at: 'number',
    copiedFrom: 'text',
    ...span,
  },
  limits: {
    id: 'text',
    node: 'text',
    principal: 'text',
    allows: 'number',
    sparesStewards: 'boolean',
    by: 'text',
    at: 'number',
    ...span,
  },
}

const types = {
  text: DataTypes.TEXT,
  number: DataTypes.DOUBLE,
  boolean: DataTypes.BOOLEAN,
  json: DataTypes.TEXT,
} as const

/** The columns of a field, by name, and of which type. */
const columnsOf = (name: string, column: Column): (readonly [string, keyof typeof types])[] =>
  column === 'actions or level'
    ? [
        ['actions', 'number'],
        ['level', 'text'],
      ]
    : [[name, column]]

/** The Sequelize model of a table of the core. */
export function defineTable(database: Sequelize, table: TableName): ModelStatic<Model> {
  const fields = Object.entries(columns[table])
    .flatMap(([name, column]: [string, Column]) => columnsOf(name, column))
    .map(([name, type]) => [name, { type: types[type], primaryKey: name === 'id' }] as const)
  const workspace = { type: DataTypes.TEXT, primaryKey: table !== 'workspaces' }
  const attributes = { workspace, ...Object.fromEntries(fields) } as ModelAttributes
  return database.define(table, attributes, { tableName: table, timestamps: false })
}

const fieldsOf = (table: TableName): string[] => Object.keys(columns[table])

/** What is written of a record, by the names of the columns. */
export const columnNamesOf = (table: TableName): string[] =>
  Object.entries(columns[table]).flatMap(([name, column]: [string, Column]) =>
    columnsOf(name, column).map(([each]) => each),
  )

type StoredRow = Readonly<Record<string, unknown>>

export function toRow<T extends TableName>(table: T, workspace: WorkspaceId, record: Rows[T]): StoredRow {
  const entries = Object.entries(columns[table]).flatMap(([name, column]: [string, Column]) => {
    const value = record[name as keyof Rows[T]]
    if (column === 'actions or level')
      return typeof value === 'number'
        ? [
            ['actions', value],
            ['level', null],
          ]
        : [
            ['actions', null],
            ['level', value],
          ]
    return [[name, column === 'json' && value !== null ? JSON.stringify(value) : value]]
  })
  return { workspace, ...(Object.fromEntries(entries) as StoredRow) }
}

/** What SQL reads the fields of a record with, in order, as an array in JSON. */
export function jsonOf(table: TableName, fields: readonly string[] = fieldsOf(table)): string {
  const kinds: Readonly<Record<string, Column>> = columns[table]
  // In JSON what is not whole loses digits; as text it keeps them.
  const number = (name: string) =>
    `CASE typeof("${name}") WHEN 'real' THEN format('%!.17g', "${name}") ELSE "${name}" END`
  const values = fields.map(name =>
    kinds[name] === 'number'
      ? number(name)
      : kinds[name] === 'actions or level'
        ? 'coalesce(actions, level)'
        : `"${name}"`,
  )
  return `json_array(${values.join(', ')})`
}

/** Makes a record out of such an array. What is not among the fields is to be added. */
export function readerOf<T extends TableName>(
  table: T,
  fields: readonly string[] = fieldsOf(table),
): (values: readonly unknown[]) => Rows[T] {
  const kinds: Readonly<Record<string, Column>> = columns[table]
  const readers = fields.map(name => read[kinds[name] as Column])
  return values => {
    const record: Record<string, unknown> = {}
    for (let field = 0; field < fields.length; field += 1) {
      const value = values[field]
      record[fields[field] as string] = value === null ? null : readers[field]?.(value)
    }
    return record as unknown as Rows[T]
  }
}

const read: Readonly<Record<Column, (value: unknown) => unknown>> = {
  text: value => value,
  number: Number,
  boolean: Boolean,
  json: value => JSON.parse(String(value)) as unknown,
  // Of two columns, each with a type of its own: JSON keeps them apart.
  'actions or level': value => value,
}
