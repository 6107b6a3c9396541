import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { AccountId, WorkspaceId } from '#core/base/ids.ts'
import { ok, refused } from '#core/base/result.ts'
import { emptyState } from '#core/records/all.ts'
import { world } from '#core/tests/world.ts'
import { newAccountRow, withAccount } from './accounts.ts'
import { type Condition, rowsOnly } from './commit.ts'
import { openDatabase } from './database.ts'
import { follow } from './log.ts'
import { applyChanges, type RecordChange, workspaceOf } from '#core/state/state.ts'
import { createStates } from './states.ts'
import { createTables, type Tables } from './tables.ts'
import { createWriter, submit, type Writer } from './writer.ts'

let folder: string
let tables: Tables
let writer: Writer
let commits: number

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'noskel-writer-'))
  tables = createTables(await openDatabase(folder))
  writer = createWriter(tables, createStates({ tables, clock: () => 1, onProgress: () => {} }), () => 1)
  commits = 0
  await follow(writer.log, { load: () => {}, hear: () => void (commits += 1) })
})

afterEach(async () => {
  await tables.database.close()
  rmSync(folder, { recursive: true })
})

const account = (id: string, mail = `${id}@test.example`) =>
  newAccountRow({ id: id as AccountId, mail, name: id, passwordHash: '', madeAt: 1, provenAt: 1 })
const add = (id: string, mail?: string) =>
  submit(writer, () => ok(withAccount({ value: id }, account(id, mail))))

/** Writes an account, with a workspace that is called like it. */
function foundWorkspace(id: string, mail: string) {
  const after = { ...workspaceOf(world()), id: id as WorkspaceId, slug: id }
  const changes = [{ table: 'workspaces', id, before: null, after } as RecordChange]
  const state = applyChanges(emptyState, changes)
  const commit = withAccount({ value: id }, account(id, mail))
  const rows = [...(commit.rows ?? []), { kind: 'records', workspace: after.id, changes } as const]
  return submit(writer, () => ok({ ...commit, rows, state }))
}

const stored = async () => {
  const rows = await tables.accounts.findAll({ order: [['id', 'ASC']], raw: true })
  return rows.map(row => (row as unknown as { id: string }).id)
}

test('writes that wait together are written together, and all are confirmed', async () => {
  const ids = Array.from({ length: 200 }, (_, index) => String(index).padStart(3, '0'))
  const results = await Promise.all(ids.map(id => add(id)))
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
      ok(
        rowsOnly(
          { kind: 'put', table: 'accounts', rows: [account('half')] },
          { kind: 'put', table: 'accounts', rows: [account('half', 'a@test.example')] },
        ),
      ),
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

const first = { table: 'accountLinks', where: { id: 'link' }, atLeast: 1, orElse: 'second' } as const
const taking = () =>
  submit<string, 'second'>(writer, () =>
    ok({
      value: 'first',
      conditions: [first],
      rows: [{ kind: 'delete', table: 'accountLinks', where: { id: 'link' } }],
    }),
  )

test('what may happen once happens once, however many want it at the same instant', async () => {
  await add('a')
  const link = { id: 'link', account: 'a', purpose: 'password', until: 9 }
  await submit(writer, () => ok(rowsOnly({ kind: 'put', table: 'accountLinks', rows: [link] })))
  const results = await Promise.all([taking(), taking(), add('b'), taking()])
  expect(results.map(each => (each.ok ? each.value : each.error))).toEqual(['first', 'second', 'b', 'second'])
})

test('uses count where all conditions hold, up to the most of an hour, one write after another', async () => {
  const using = (count: number, ...others: Condition<string>[]) =>
    submit<undefined, string>(writer, () => {
      const uses = { workspace: 'w' as never, who: 'ada', what: 'mails', hour: 1, count }
      return ok({ value: undefined, conditions: [{ uses, atMost: 10, orElse: 'many' }, ...others] })
    })
  const none = { table: 'accounts', where: {}, atLeast: 1, orElse: 'none' } as const
  const results = await Promise.all([using(6, none), using(6), using(5), using(4), using(1)])
  expect(results.map(each => (each.ok ? 'done' : each.error))).toEqual([
    'none',
    'done',
    'many',
    'done',
    'many',
  ])
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

test('who reads meanwhile waits for no write, and finds only what was confirmed', async () => {
  await add('a')
  const rows = Array.from({ length: 20_000 }, (_, index) => mail(`m${index}`, ''))
  const writing = submit(writer, () =>
    ok(
      rowsOnly(
        { kind: 'put', table: 'accounts', rows: [account('b')] },
        { kind: 'put', table: 'mails', rows },
      ),
    ),
  )
  let reads = 0
  for (let found = await stored(); found.length === 1; found = await stored()) reads += 1
  expect([await stored(), reads > 10]).toEqual([['a', 'b'], true])
  await writing
})

const putting = (id: string, subject: string) =>
  submit(writer, () =>
    ok(rowsOnly({ kind: 'put', table: 'mails', rows: [mail(id, subject)], replaced: ['subject'] })),
  )

const dropping = (id: string) =>
  submit(writer, () => ok(rowsOnly({ kind: 'drop', table: 'mails', workspace: 'w', ids: [id] })))

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

test('one whose rows do not fit in among those of others fails alone, and nobody hears of it', async () => {
  const heard: string[] = []
  const made = new Set<string>()
  await follow(writer.log, {
    load: () => {},
    hear: ({ news, states }) => {
      heard.push(...news.map(each => (each.of === 'account' ? each.account : each.of)))
      for (const workspace of states.keys()) made.add(workspace)
    },
  })
  const results = await Promise.allSettled([
    foundWorkspace('a', 'one'),
    foundWorkspace('b', 'one'),
    foundWorkspace('c', 'other'),
  ])
  expect(results.map(each => each.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
  expect([await stored(), heard, [...made]]).toEqual(Array(3).fill(['a', 'c']))
})
