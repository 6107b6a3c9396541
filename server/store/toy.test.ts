import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { allRows, type Collection, rowOf, rowsBy } from '#core/base/collection.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { auditEventsOf } from '#core/changes/audit-event.ts'
import { scheduledTransitionsOf } from '#core/changes/scheduled.ts'
import { nextOf } from '#core/state/dates.ts'
import type { TableName } from '#core/state/kinds.ts'
import { consequencesOf, goneWith, isGround } from '#core/state/naming.ts'
import { applyChanges, type RecordChange, type State, stateOf } from '#core/state/state.ts'
import { eventInWords, type EventNaming } from '#core/words/audit-event.ts'
import { edit, editor, reader, refusal, after, steward } from '../../core/tests/judging.ts'
import { withToys } from '../../core/tests/toy/kinds.ts'
import type { Toy } from '../../core/tests/toy/toys.ts'
import { grant, member, node, now, person, team, worldOn } from '../../core/tests/world.ts'
import { openDatabase } from './database.ts'
import { loadState } from './loading.ts'
import { writeRows } from './rows.ts'
import { createTables } from './tables.ts'

/** A kind of record that two files tell of goes through all that kinds go through: nothing else has to know of it. */
const world = worldOn(
  stateOf(withToys),
  person('ada'),
  person('ben'),
  team('crew'),
  member('crew', 'ada'),
  node('home', 'root'),
  node('plan', 'home'),
  grant('home', 'person:owner', steward),
  grant('home', 'person:ada', editor),
  grant('home', 'person:ben', reader),
)
const kite = {
  id: 'kite',
  node: 'plan',
  owner: 'ben',
  name: 'Kite',
  players: ['team:crew', 'person:ada'],
  until: now + 50,
} as unknown as Toy

const change = (before: Toy | null, later: Toy | null) =>
  ({ table: 'toys', id: 'kite', before, after: later }) as unknown as RecordChange
const left = change(null, kite)
const filled = applyChanges(world, [left])
const toysIn = (state: State) => (state as unknown as { toys: Collection<Toy, 'node'> }).toys
const tableOf = (each: RecordChange): string => each.table

test('is kept, found by its index, and changed', () => {
  expect(rowsBy(toysIn(filled), 'node', 'plan')).toEqual([kite])
  const renamed = { ...kite, name: 'Red kite' }
  expect(rowOf(toysIn(applyChanges(filled, [change(kite, renamed)])), 'kite')).toEqual(renamed)
})

test('is told in the history', () => {
  const naming = {} as EventNaming
  const words = (each: RecordChange) =>
    auditEventsOf(filled, [each]).map(event => eventInWords(filled, event, naming))
  expect([words(left), words(change(kite, null))]).toEqual([
    ['left the toy Kite'],
    ['took away the toy Kite'],
  ])
  expect(auditEventsOf(filled, [left])).toMatchObject([{ category: 'places', place: 'plan' }])
})

test('is taken back by who has the right for it, and holds fast where it lies', () => {
  const back = edit('undo', { revision: 1, changes: [left], written: [] })
  expect(allRows(toysIn(after(filled, 'ada', back)))).toEqual([])
  expect(refusal(filled, 'ben', back)).toEqual({ code: 'action-missing', action: 'change', node: 'plan' })
  expect(isGround(filled, 'nodes', 'plan')).toBe(true)
  expect(isGround(world, 'nodes', 'plan')).toBe(false)
})

test('goes with its place and its owner, and names nobody who is gone', () => {
  const [plan] = rowsBy(filled.nodes, 'parent', 'home')
  expect(goneWith(filled, 'nodes', plan as never).map(tableOf)).toEqual(['toys', 'nodes'])
  expect(consequencesOf(filled, 'persons', 'ben').map(tableOf)).toEqual(['toys', 'grants'])
  const [unnamed] = consequencesOf(filled, 'teams', 'crew')
  expect(unnamed).toMatchObject({ table: 'toys', after: { players: ['person:ada'] } })
})

test('ends by itself', () => {
  expect(nextOf(filled.dates, ['ends'], now)).toBe(kite.until)
  const [passing] = scheduledTransitionsOf(filled, now, now + 60)
  expect(passing?.changes).toMatchObject([{ table: 'toys', before: kite, after: null }])
})

test('is written and loaded with all others', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-toys-'))
  const tables = createTables(await openDatabase(folder), withToys)
  await tables.records['toys' as TableName].sync()
  await tables.database.query('PRAGMA foreign_keys = OFF')
  const workspace = 'workspace' as WorkspaceId
  const changes = (Object.keys(withToys) as TableName[]).flatMap(table =>
    allRows(filled[table] as unknown as Collection<{ readonly id: string }>).map(
      row => ({ table, id: row.id, before: null, after: row }) as unknown as RecordChange,
    ),
  )
  await tables.database.transaction(transaction =>
    writeRows(tables, [{ kind: 'records', workspace, changes }], transaction),
  )
  const loaded = await loadState(tables, workspace)
  expect(rowsBy(toysIn(loaded), 'node', 'plan')).toEqual([kite])
  expect(loaded.dates.ends).toEqual(filled.dates.ends)
  await tables.database.close()
  rmSync(folder, { recursive: true })
})
