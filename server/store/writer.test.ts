import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { ok, refused } from '#core/base/result.ts'
import { type Batch, drop, put } from './batch.ts'
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
const adding =
  (id: string) =>
  async ({ transaction }: Pick<Batch, 'transaction'>) => {
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
        write: async batch => {
          await adding('half')(batch)
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
        write: async ({ transaction }) => {
          counts.push(await tables.accounts.count({ transaction }))
        },
      }),
    )
  await Promise.all([counting(), add('a'), counting(), add('b'), counting()])
  expect(counts).toEqual([0, 1, 2])
})

test('who reads meanwhile waits for no write, and finds only what was confirmed', async () => {
  await add('a')
  let finish = () => {}
  const finished = new Promise<void>(resolve => (finish = resolve))
  let writing: Promise<unknown> = finished
  await new Promise<void>(begun => {
    const write = async (batch: Batch) => {
      await adding('b')(batch)
      begun()
      await finished
    }
    writing = submit(writer, () => ok({ value: 'b', write }))
  })
  expect(await Promise.all([stored(), stored(), stored()])).toEqual([['a'], ['a'], ['a']])
  finish()
  await writing
  expect(await stored()).toEqual(['a', 'b'])
})

const mail = (id: string, subject: string) => ({
  workspace: 'w',
  id,
  to: 'somebody@test.example',
  subject,
  text: '',
  html: '',
  madeAt: 1,
  sentAt: null,
  tries: 0,
  nextTryAt: 1,
})

const putting = (id: string, subject: string) =>
  submit(writer, () =>
    ok({
      value: id,
      write: batch => {
        const rows = [mail(id, subject)]
        put(batch, tables.mails, { keyOf: row => (row as (typeof rows)[0]).id, rows, replaced: ['subject'] })
        return Promise.resolve()
      },
    }),
  )

const dropping = (id: string) =>
  submit(writer, () =>
    ok({
      value: id,
      write: batch => {
        drop(batch, tables.mails, { workspace: 'w', ids: [id] })
        return Promise.resolve()
      },
    }),
  )

test('rows that fifty put and take out end as if each had waited for the one before, in a few statements', async () => {
  const statements: string[] = []
  // Known to the package and not to its types.
  const { options } = tables.database as unknown as { options: { logging: false | ((sql: string) => void) } }
  options.logging = sql => void statements.push(sql)
  const acts = Array.from({ length: 50 }, (_, index) => putting(`m${index % 7}`, `of ${index}`))
  await Promise.all([...acts, dropping('m0'), dropping('m1'), putting('m1', 'again'), dropping('m2')])
  options.logging = false
  expect(statements.length).toBeLessThan(8)
  const rows = await tables.mails.findAll({ attributes: ['id', 'subject'], order: ['id'], raw: true })
  expect(rows.map(row => Object.values(row) as unknown[])).toEqual([
    ['m1', 'again'],
    ['m3', 'of 45'],
    ['m4', 'of 46'],
    ['m5', 'of 47'],
    ['m6', 'of 48'],
  ])
})

test('one whose rows do not fit in among those of others fails alone', async () => {
  const fitting = (id: string, address: string) =>
    submit(writer, () =>
      ok({
        value: id,
        write: batch => {
          put(batch, tables.accounts, { rows: [{ ...account(id), mail: address }] })
          return Promise.resolve()
        },
      }),
    )
  const results = await Promise.allSettled([fitting('a', 'one'), fitting('b', 'one'), fitting('c', 'other')])
  expect(results.map(each => each.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
  expect(await stored()).toEqual(['a', 'c'])
  expect(commits).toBe(1)
})
