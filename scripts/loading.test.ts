import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { check } from '#core/access/evaluate.ts'
import { allRows, type Collection, eachRow, rowOf } from '#core/base/collection.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { type Provisioning, provisionWorkspace } from '#core/changes/provisioning.ts'
import { nextDue, scheduledTransitionsOf } from '#core/changes/scheduled.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { emptyState, tableNames } from '#core/records/all.ts'
import {
  applyChanges,
  childrenOf,
  type RecordChange,
  rootOf,
  type State,
  workspaceOf,
} from '#core/state/state.ts'
import { demoAccounts, generateDemo } from '#demo/generate.ts'
import { seedDemo } from './seed-demo.ts'
import { openDatabase } from '#server/store/database.ts'
import { loadState } from '#server/store/loading.ts'
import { writeRows } from '#server/store/rows.ts'
import { createTables, type Tables } from '#server/store/tables.ts'

/** What lies in a file is read as what was written, and goes on as it would have gone on without. */

const now = Date.UTC(2026, 5, 3)
const day = 86_400_000
let folder: string
let tables: Tables
let written: State
let read: State

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'noskel-loading-'))
  const base = { port: 0, host: '127.0.0.1', baseUrl: 'http://localhost', smtpUrl: null, isDemo: true }
  await seedDemo({ ...base, dataDir: folder }, now)
  tables = createTables(await openDatabase(folder))
  const { state } = generateDemo(now)
  const changes = awkward(state)
  written = applyChanges(state, changes)
  const workspace = workspaceOf(state).id
  await tables.database.transaction(async transaction => {
    await writeRows(tables, [{ kind: 'records', workspace, changes }], transaction)
    const other = 'other' as WorkspaceId
    await writeRows(tables, [{ kind: 'records', workspace: other, changes: another() }], transaction)
  })
  read = await loadState(tables, workspace)
}, 60_000)

afterAll(async () => {
  await tables.database.close()
  rmSync(folder, { recursive: true })
})

/** What is easily lost on the way: fractions of many digits, quotes, lines and signs in names, ids of another length. */
function awkward(state: State): RecordChange[] {
  const [parent] = childrenOf(state, rootOf(state).id)
  if (parent === undefined) throw new Error('the demo has a home')
  const plain = { ...parent, parent: parent.id, home: null, broken: null, draft: false, web: null, note: '' }
  const named = ['of "lines"\nand \\ signs', 'Strandhafer 🌾 – þ', "it's"]
  return named.map((name, index) => {
    const id = `awkward-${'x'.repeat(index)}` as typeof parent.id
    const after = { ...plain, id, name, order: (index + 0.1) * 3 }
    return { table: 'nodes', id, before: null, after }
  })
}

/** Another workspace in the same file. */
const another = () =>
  provisionWorkspace(emptyState, {
    workspace: 'other',
    name: 'Other',
    slug: 'other',
    timeZone: 'Europe/London',
    at: now,
    root: 'other-root',
    owner: {
      person: 'other-person',
      account: demoAccounts[0]?.id,
      holding: 'other-holding',
      name: 'Ona',
      handle: 'other-handle',
      mail: 'ona@test.example',
      folder: 'other-folder',
      grant: 'other-grant',
    },
  } as Provisioning).changes

const rowsIn = (state: State, table: (typeof tableNames)[number]) =>
  [...eachRow(state[table] as unknown as Collection<{ readonly id: string }>)].sort((a, b) =>
    a.id < b.id ? -1 : 1,
  )

function expectSame(one: State, other: State): void {
  for (const table of tableNames) {
    expect([table, one[table].size]).toEqual([table, other[table].size])
    expect(rowsIn(one, table)).toEqual(rowsIn(other, table))
  }
  expect(nextDue(one, now)).toBe(nextDue(other, now))
}

test('every record of the workspace, and none of another, is read as it was written', () => {
  expect(read.revision).toBeGreaterThan(500)
  expectSame(read, written)
})

test('what lies below, in the bin or at home is found, in the order in which it is shown', () => {
  for (const { id } of allRows(written.nodes))
    expect(childrenOf(read, id).map(each => each.id)).toEqual(childrenOf(written, id).map(each => each.id))
  expect(rootOf(read)).toEqual(rootOf(written))
})

test('everybody can do everywhere what they could', () => {
  const [is, was] = [snapshotOf(read, now), snapshotOf(written, now)]
  for (const person of allRows(written.persons))
    for (const node of allRows(written.nodes))
      expect(check(is, person.id, node.id)).toBe(check(was, person.id, node.id))
})

test('it goes on as it would have gone on: what ends and is emptied is gone from both, and can be put back', () => {
  const ends = (state: State) => scheduledTransitionsOf(state, now, now + 400 * day)
  const [is, was] = [ends(read), ends(written)]
  expect(is.length).toBeGreaterThan(3)
  expect(is.map(each => each.at)).toEqual(was.map(each => each.at))
  const last = is.at(-1)?.state as State
  expectSame(last, was.at(-1)?.state as State)
  const gone = allRows(written.grants).find(({ id }) => rowOf(last.grants, id) === undefined)
  if (gone === undefined) throw new Error('no grant of the demo ends')
  const back = applyChanges(last, [{ table: 'grants', id: gone.id, before: null, after: gone }])
  expect(rowOf(back.grants, gone.id)).toEqual(gone)
})
