import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { openDatabase } from '../../database.ts'

let folder: string
let database: Sequelize

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'noskel-database-'))
  database = await openDatabase(folder)
  await database.query('CREATE TABLE things (name TEXT)')
})

afterEach(async () => {
  await database.close()
  rmSync(folder, { recursive: true })
})

/** A table that only its own connection knows. */
const mark = (transaction: Transaction) =>
  database.query('CREATE TEMP TABLE mark (name TEXT)', { transaction })

async function isMarked(transaction: Transaction | null): Promise<boolean> {
  const sql = "SELECT 1 FROM sqlite_temp_master WHERE name = 'mark'"
  const rows = await database.query(sql, { type: QueryTypes.SELECT, transaction })
  return rows.length > 0
}

const put = (name: string, transaction: Transaction) =>
  database.query('INSERT INTO things VALUES ($name)', { bind: { name }, transaction })

const names = async () => {
  const rows = await database.query<{ name: string }>('SELECT name FROM things', { type: QueryTypes.SELECT })
  return rows.map(row => row.name)
}

test('one transaction after another has the same connection, and no two at once', async () => {
  await database.transaction(async first => {
    await mark(first)
    await database.transaction(async beside => expect(await isMarked(beside)).toBe(false))
    expect(await isMarked(null)).toBe(false)
  })
  // The one that was let go first waits; the other one was closed.
  await database.transaction(async next => expect(await isMarked(next)).toBe(false))
  await database.transaction(mark)
  await database.transaction(async next => expect(await isMarked(next)).toBe(true))
  expect(await isMarked(null)).toBe(false)
})

test('what a transaction that failed wrote is gone, and its connection is as good as before', async () => {
  const failing = database.transaction(async transaction => {
    await put('left over', transaction)
    throw new Error('broke off')
  })
  await expect(failing).rejects.toThrow('broke off')
  await database.transaction(async next => {
    await put('kept', next)
    expect(await names()).toEqual([])
  })
  expect(await names()).toEqual(['kept'])
})

test('whoever reads sees what was committed while a transaction writes, and is not held up by it', async () => {
  await database.transaction(transaction => put('before', transaction))
  await database.transaction(async transaction => {
    await put('meanwhile', transaction)
    expect(await names()).toEqual(['before'])
  })
  expect(await names()).toEqual(['before', 'meanwhile'])
})
