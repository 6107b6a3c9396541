import type { Sequelize } from 'sequelize'
import { type KeptEdit, rewriteHistory } from './history.ts'
import type { Migration } from './list.ts'

type Renaming = Readonly<Record<string, string>>

/** Fields of records, by their table; the history keeps records in the same form. */
const fields: Readonly<Record<string, Renaming>> = {
  roles: { rung: 'rank', callable: 'addressable', free: 'seatExempt' },
}

/** Fields of edits, as the history keeps them. */
const editFields: Readonly<Record<string, Renaming>> = {
  'role.create': { rung: 'rank', callable: 'addressable', free: 'seatExempt' },
  'role.change': { rung: 'rank', callable: 'addressable', free: 'seatExempt' },
}

/** Things take their final names, the same in the interface, the API, the code and here. */
export const names: Migration = {
  name: '013-names',
  up: async database => {
    for (const [table, renaming] of Object.entries(fields)) await renameColumns(database, table, renaming)
    await rewriteHistory(database, {
      change: change => {
        const now = (row: object | null) => (row === null ? null : renamed(row, fields[change.table]))
        return { ...change, before: now(change.before), after: now(change.after) }
      },
      edit: edit => renamed(edit, editFields[edit.kind]) as KeptEdit,
    })
  },
}

async function renameColumns(database: Sequelize, table: string, renaming: Renaming): Promise<void> {
  for (const [from, to] of Object.entries(renaming))
    await database.query(`ALTER TABLE "${table}" RENAME COLUMN "${from}" TO "${to}"`)
}

const renamed = (value: object, renaming: Renaming = {}): object =>
  Object.fromEntries(Object.entries(value).map(([field, each]) => [renaming[field] ?? field, each]))
