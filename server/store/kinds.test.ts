import { QueryTypes, Sequelize } from 'sequelize'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { records } from '#core/records/all.ts'
import type { Reference, Stored } from '#core/state/shape.ts'
import { columnNamesOf } from './fields.ts'
import { migrations } from './migrations/list.ts'

/** The database that the migrations make holds just what the kinds of records say, and its keys are their references. */
const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
beforeAll(async () => {
  for (const migration of migrations) await migration.up(database)
})
afterAll(() => database.close())

const all = <Row extends object>(sql: string) => database.query<Row>(sql, { type: QueryTypes.SELECT })

/** What of records the server keeps beside them, and each table's workspace. */
const besides = new Set(['workspace -> workspaces', 'account -> accounts'])

test.each(Object.entries(records))('%s', async (table, { fields, references }) => {
  const columns = await all<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`)
  expect(columns.map(each => each.name).toSorted()).toEqual(
    ['workspace', ...columnNamesOf(fields as Record<string, Stored>)].toSorted(),
  )
  const keys = await all<{ id: number; from: string; table: string }>(
    `SELECT id, "from", "table" FROM pragma_foreign_key_list('${table}')`,
  )
  // A key to another table of the workspace is of two columns.
  const single = keys.filter(
    key => key.from !== 'workspace' || keys.filter(each => each.id === key.id).length === 1,
  )
  const held = single.map(key => `${key.from} -> ${key.table}`).filter(each => !besides.has(each))
  const declared = (references as readonly Reference<object>[])
    .filter(each => each.key === 'foreign key')
    .map(each => `${String(each.field)} -> ${each.to}`)
  expect(held.toSorted()).toEqual(declared.toSorted())
})

test('what a kind names comes before it, so that rows can be written in this order', () => {
  const order = Object.keys(records)
  for (const [table, { references }] of Object.entries(records))
    for (const { to, key } of references as readonly Reference<object>[])
      if (key === 'foreign key') expect(order.indexOf(to)).toBeLessThanOrEqual(order.indexOf(table))
})
