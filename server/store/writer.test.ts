import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Transaction } from 'sequelize'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { ok, refused } from '#core/base/result.ts'
import { openDatabase } from './database.ts'
import { createTables, type Tables } from './tables.ts'
import { createWriter, submit, type Writer } from './writer.ts'

let folder: string
let tables: Tables
let writer: Writer
let commits: number

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'noskel-writer-'))
  tables = createTables(await openDatabase(folder))
  writer = createWriter(tables, { bySlug: new Map(), published: new Map(), passedTo: new Map() }, () => 1)
  commits = 0
  writer.afterCommit.push(() => (commits += 1))
})

afterEach(async () => {
  await tables.database.close()
  rmSync(folder, { recursive: true })
})

const account = (id: string) => ({ id, mail: `${id}@test.example`, name: id, passwordHash: '', madeAt: 1 })
const adding = (id: string) => async (transaction: Transaction) => {
  await tables.accounts.create(account(id), { transaction })
}
const add = (id: string) => submit(writer, () => ok({ value: id, write: adding(id) }))

const stored = async () => {
  const rows = await tables.accounts.findAll({ order: [['id', 'ASC']], raw: true })
  return rows.map(row => (row as unknown as { id: string }).id)
}

test('writes that wait together are written together, and all are confirmed', async () => {
  const ids = Array.from({ length: 200 }, (_, index) => String(index).padStart(3, '0'))
  const results = await Promise.all(ids.map(add))
  expect(results).toEqual(ids.map(value => ({ ok: true, value })))
  expect(await stored()).toEqual(ids)
  expect(commits).toBe(1)
})

test('one that is refused, or whose rows cannot be written, leaves the others untouched', async () => {
  const results = await Promise.allSettled([
    add('a'),
    submit(writer, () => refused('not this one')),
    add('a'), // its address is taken by the first
    submit(writer, () =>
      ok({
        value: 'half',
        write: async transaction => {
          await adding('half')(transaction)
          throw new Error('broke off')
        },
      }),
    ),
    submit(writer, () => {
      throw new Error('could not be judged')
    }),
    add('b'),
  ])
  expect(results.map(result => (result.status === 'fulfilled' ? result.value.ok : 'failed'))).toEqual([
    true,
    false,
    'failed',
    'failed',
    'failed',
    true,
  ])
  expect(await stored()).toEqual(['a', 'b'])
})

test('each is judged after those before it are written', async () => {
  const counts: number[] = []
  const counting = () =>
    submit(writer, () =>
      ok({
        value: undefined,
        write: async transaction => {
          counts.push(await tables.accounts.count({ transaction }))
        },
      }),
    )
  await Promise.all([counting(), add('a'), counting(), add('b'), counting()])
  expect(counts).toEqual([0, 1, 2])
})
