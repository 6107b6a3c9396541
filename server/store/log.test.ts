import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { ok } from '#core/base/result.ts'
import { openDatabase } from './database.ts'
import { catchUp, follow, followAgain, type Follower, stopFollowing } from './log.ts'
import { createStates } from './states.ts'
import { createTables, type Tables } from './tables.ts'
import { watch } from './watch.ts'
import { createWriter, submit, type Writer } from './writer.ts'

/** Who keeps something beside the database hears each entry of its log once, in order, whatever happens meanwhile. */

let folder: string
let tables: Tables
let writer: Writer

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'noskel-log-'))
  tables = createTables(await openDatabase(folder))
  writer = createWriter(tables, createStates({ tables, clock: () => 1, onProgress: () => {} }), () => 1)
})

afterEach(async () => {
  await tables.database.close()
  rmSync(folder, { recursive: true })
})

const say = (account: string, to = writer) =>
  submit(to, () =>
    ok({ value: undefined, news: [{ of: 'account' as const, account: account as never, hasTwoStep: true }] }),
  )

/** Keeps what it hears; `loads` counts how often it began anew. */
function listener() {
  const heard: string[] = []
  const keeps = { heard, loads: 0 }
  const follower: Follower = {
    load: () => void (keeps.loads += 1),
    hear: ({ news }) => {
      for (const each of news) if (each.of === 'account') heard.push(each.account)
    },
  }
  return { keeps, follower }
}

test('one that was stopped catches up, and none hears anything twice', async () => {
  const [steady, stopped] = [listener(), listener()]
  const [, following] = await follow(writer.log, steady.follower, stopped.follower)
  await say('a')
  stopFollowing(following as never)
  for (const each of ['b', 'c', 'd']) await say(each)
  expect([steady.keeps.heard.join(''), stopped.keeps.heard.join('')]).toEqual(['abcd', 'a'])
  const catching = followAgain(writer.log, following as never)
  await Promise.all([catching, say('e'), say('f')])
  await catchUp(writer.log)
  await say('g')
  expect([steady.keeps.heard.join(''), stopped.keeps.heard.join('')]).toEqual(['abcdefg', 'abcdefg'])
  expect(stopped.keeps.loads).toBe(1)
})

test('one that failed hears it again with the next entry', async () => {
  const faults: unknown[] = []
  writer.log.fault = error => void faults.push(error)
  const { keeps, follower } = listener()
  let fails = 2
  await follow(writer.log, {
    ...follower,
    hear: heard => {
      fails -= 1
      if (fails >= 0) throw new Error('broke off')
      return follower.hear(heard)
    },
  })
  await say('a')
  await say('b')
  await expect.poll(() => faults.length).toBe(2)
  await say('c')
  await expect.poll(() => keeps.heard.join('')).toBe('abc')
})

test('one that fell behind what is kept reads all anew', async () => {
  const { keeps, follower } = listener()
  const [following] = await follow(writer.log, follower)
  stopFollowing(following as never)
  for (const each of ['a', 'b', 'c']) await say(each)
  await tables.log.destroy({ where: { position: [1, 2] } })
  await followAgain(writer.log, following as never)
  expect([keeps.heard.join(''), keeps.loads]).toEqual(['c', 2])
})

test('what another connection writes is heard soon, in order', async () => {
  const elsewhere = createTables(await openDatabase(folder))
  const there = createWriter(
    elsewhere,
    createStates({ tables: elsewhere, clock: () => 1, onProgress: () => {} }),
    () => 1,
  )
  const { keeps, follower } = listener()
  await follow(writer.log, follower)
  const watching = watch(tables.database, writer.log)
  for (const each of ['a', 'b', 'c']) await say(each, there)
  await expect.poll(() => keeps.heard.join('')).toBe('abc')
  await watching.stop()
  await say('d')
  await expect.poll(() => keeps.heard.join('')).toBe('abcd')
  await elsewhere.database.close()
})
