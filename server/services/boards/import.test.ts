import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { ImportRowsRequest } from '#contract/board-requests.ts'
import type { JudgedRowsView, RowsView } from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { Visitor } from '../../tests/client.ts'
import { adder, at, type Coast, coast, columnOf, editor, reader, share } from '../../tests/coast.ts'

/** A table from elsewhere is judged row by row, brought in, and brought in again without doing anything. */

let world: Coast
let board: string
let columns: Record<string, string>

const states = [
  { id: 'out', name: 'Out', mark: 'ring', isFinished: false },
  { id: 'back', name: 'Back', mark: 'disc', isFinished: true },
]
const kinds = {
  no: ['serial number', { prefix: 'L-' }],
  state: ['state', { states }],
  who: ['person', { isSeveral: true }],
  day: ['date', { withTime: false }],
  fee: ['number', { places: 2, unit: '€', foot: 'sum' }],
  site: ['place', {}],
  secret: ['text', {}],
} as const satisfies Record<string, readonly [string, object]>

beforeAll(async () => {
  world = await coast()
  const { owner, ownerId, member, guest, ids } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Kit' },
    { kind: 'node.create', node: 'new:site', parent: ids.folder, as: 'page', name: 'North Spit' },
    ...Object.entries(kinds).map(([name, [as, settings]]) => ({
      ...columnOf(name, as, settings),
      viewers: name === 'secret' ? [`person:${ownerId}`] : null,
    })),
    { kind: 'section.create', section: 'new:boats', board: 'new:board', name: 'Boats', order: 1 },
    { kind: 'section.create', section: 'new:tents', board: 'new:board', name: 'Tents', order: 2 },
    share('new:board', member.id, editor),
    share('new:board', guest.id, reader),
  )
  const id = (name: string) => body.made[`new:${name}`] ?? ''
  board = id('board')
  columns = Object.fromEntries(Object.keys(kinds).map(name => [name, id(name)]))
  // Places are found by the index.
  await world.server.indexed()
})
afterAll(() => world.server.stop())

const path = (rest: string) => `${at}/nodes/${board}/board${rest}`

/** A column of a table: a part of a board's name, by whose columns it is read, in some way of writing. */
const as = (of: string, written: object = {}) => {
  const [kind, settings] = of in kinds ? kinds[of as keyof typeof kinds] : ['text', {}]
  return { column: columns[of] ?? of, as: kind, settings, decimal: '.', isDayFirst: true, ...written }
}

type Table = Pick<ImportRowsRequest, 'rows'> & {
  readonly columns: readonly object[]
  readonly key: number | null
}

const judge = (visitor: Visitor, table: Table) =>
  visitor.call<JudgedRowsView & Problem>('POST', path('/judged-rows'), table)
const bringIn = (visitor: Visitor, table: Table, seen = Date.now()) =>
  visitor.call<JudgedRowsView & Problem>('POST', path('/imported-rows'), { ...table, seen, reason: 'a file' })
const verdicts = ({ body }: { readonly body: JudgedRowsView }) => body.rows.map(each => each.verdict)
const rowsNow = async (visitor: Visitor) => (await visitor.get<RowsView>(path('/rows'))).body
const cellsOf = async (name: string) => (await rowsNow(world.owner)).rows.find(each => each.name === name)

test('rows are judged cell by cell, and brought in as two countries write them', async () => {
  const { owner } = world
  const table: Table = {
    columns: [
      as('name'),
      as('section'),
      as('state'),
      as('who'),
      as('day', { isDayFirst: false }),
      as('fee', { decimal: ',' }),
      as('site'),
    ],
    key: 0,
    rows: [
      ['Dinghy', 'Boats', 'out', 'Mika', '3/31/2026', '1.204,50', 'North Spit'],
      ['Canoe', '', 'Back', '', '2026-12-04', '€ 3,5', ''],
      ['Tarp', 'Sheds', 'lost', 'Nobody', '31/3/2026', '3.5.1', 'Nowhere'],
      ['', 'Tents', '', '', '', '', ''],
      ['DINGHY', '', '', '', '', '', ''],
    ],
  }
  const judged = await judge(owner, table)
  expect(verdicts(judged)).toEqual(['new', 'new', 'wrong', 'wrong', 'wrong'])
  expect(judged.body.rows[2]?.faults.map(each => each.column)).toEqual([2, 3, 4, 5, 6, 1])
  expect(judged.body.rows[3]?.says).toEqual([
    'Without what tells rows apart it cannot be found on the board.',
  ])
  expect(judged.body.rows[4]?.says).toEqual(['An earlier row is the same one.'])
  expect(await rowsNow(owner)).toMatchObject({ count: 0 })

  expect(verdicts(await bringIn(owner, table))).toEqual(verdicts(judged))
  expect((await cellsOf('Dinghy'))?.cells).toMatchObject({
    [columns['state'] ?? '']: 'out',
    [columns['who'] ?? '']: [world.member.id],
    [columns['day'] ?? '']: '2026-03-31',
    [columns['fee'] ?? '']: 1204.5,
  })
  expect((await cellsOf('Canoe'))?.cells[columns['fee'] ?? '']).toBe(3.5)
  // The same again does nothing, whatever is in its letters.
  expect(verdicts(await judge(owner, { ...table, rows: table.rows.slice(0, 2) }))).toEqual([
    'as it is',
    'as it is',
  ])
})

test('what more than one row of the board is, is none of them', async () => {
  const { owner } = world
  const twin = { columns: [as('name')], key: null, rows: [['Twin'], ['Twin']] }
  expect(verdicts(await bringIn(owner, twin))).toEqual(['new', 'new'])
  const { body } = await judge(owner, { ...twin, key: 0, rows: [['twin']] })
  expect(body.rows[0]?.says).toEqual(['More than one row of the board is this one.'])
  const rows = (await rowsNow(owner)).rows.filter(each => each.name === 'Twin')
  await owner.change(...rows.map(({ id }) => ({ kind: 'node.state', node: id, binned: true })))
})

test('what goes out comes back without doing anything, and a change in it is told and made', async () => {
  const { owner } = world
  const [heads = [], ...rows] = parse(await owner.text(path('.csv')), { bom: true })
  const table: Table = {
    columns: heads.map(head => as(head === 'Name' ? 'name' : head === 'Section' ? 'section' : head)),
    key: heads.indexOf('no'),
    rows,
  }
  expect(verdicts(await judge(owner, table))).toEqual(rows.map(() => 'as it is'))
  const [day, section] = [heads.indexOf('day'), heads.indexOf('Section')]
  const changed = rows.map(cells =>
    cells.map((cell, index) => (index === day ? '5.12.2026' : index === section ? 'Tents' : cell)),
  )
  const judged = await judge(owner, { ...table, rows: changed })
  expect(judged.body.rows.map(each => each.says)).toEqual([
    ['day: 2026-12-04 → 5.12.2026', 'Goes into Tents.'],
    ['day: 2026-03-31 → 5.12.2026', 'Goes into Tents.'],
  ])
  await bringIn(owner, { ...table, rows: changed })
  const now = await rowsNow(owner)
  expect(now.rows.map(each => each.cells[columns['day'] ?? ''])).toEqual(['2026-12-05', '2026-12-05'])
  expect(now.groups).toMatchObject([{ count: 2 }])
  // A number that no row has makes none.
  const other = await judge(owner, {
    ...table,
    rows: [
      ['Raft', ...Array<string>(heads.length - 1).fill('')].map((cell, index) =>
        index === table.key ? 'L-77' : cell,
      ),
    ],
  })
  expect(other.body.rows[0]?.says).toEqual(['No row has this number. New rows get theirs from the board.'])
})

test('what somebody else wrote since it was judged is left, and told', async () => {
  const { owner, member } = world
  const table: Table = {
    columns: [as('name'), as('fee')],
    key: 0,
    rows: [
      ['Dinghy', '7'],
      ['Canoe', '8'],
    ],
  }
  const { body } = await judge(owner, table)
  const dinghy = await cellsOf('Dinghy')
  const cell = { row: dinghy?.id, column: columns['fee'], value: 99, seen: dinghy?.version }
  expect((await member.visitor.call('POST', path('/cells'), { cells: [cell] })).status).toBe(200)
  expect(verdicts(await bringIn(owner, table, body.at))).toEqual(['wrong', 'changes'])
  expect((await cellsOf('Dinghy'))?.cells[columns['fee'] ?? '']).toBe(99)
  expect((await cellsOf('Canoe'))?.cells[columns['fee'] ?? '']).toBe(8)
})

test('each brings in what they may, and what they do not see is not there', async () => {
  const { owner, member, guest } = world
  const table: Table = {
    columns: [as('name'), as('state')],
    key: 0,
    rows: [
      ['Dinghy', 'Back'],
      ['Kayak', 'Out'],
    ],
  }
  // Who may only look is told so of each row, and of columns that they do not see nothing.
  const looked = await judge(guest.visitor, table)
  expect(looked.body.rows.map(each => each.says)).toEqual([
    ['You cannot change this row.'],
    ['You cannot add rows here.'],
  ])
  await bringIn(guest.visitor, table)
  expect(await cellsOf('Kayak')).toBeUndefined()
  const secret = await judge(member.visitor, { ...table, columns: [as('name'), as('secret')] })
  const absent = await judge(member.visitor, {
    ...table,
    columns: [as('name'), { ...as('secret'), column: 'no-such-column' }],
  })
  expect([secret.status, secret.body]).toEqual([404, absent.body])
  // A row apart is not found by those who do not see it: for them it is a new one.
  const dinghy = await cellsOf('Dinghy')
  await owner.change({ kind: 'node.break', node: dinghy?.id, mode: 'empty' })
  expect(verdicts(await judge(member.visitor, table))).toEqual(['new', 'new'])
})

test('columns have to be what they are said to be', async () => {
  const { owner } = world
  const rows = [['a', 'b']]
  const filled = await judge(owner, { columns: [as('name'), as('no')], key: 0, rows })
  expect([filled.status, filled.body.type]).toMatchObject([400, expect.stringContaining('bad-input')])
  const byState = await judge(owner, { columns: [as('name'), as('state')], key: 1, rows })
  expect(byState.body.faults?.[0]?.message).toBe(
    'Rows are told apart by their name, a text, a number or a link.',
  )
  // A column that is still to be made is only read.
  const coming = { ...as('day'), column: null }
  const both = await judge(owner, {
    columns: [as('name'), coming],
    key: null,
    rows: [
      ['x', '1.2.2026'],
      ['y', 'soon'],
    ],
  })
  expect(verdicts(both)).toEqual(['new', 'wrong'])
})

test('who may add and not change makes rows, and changes none', async () => {
  const { owner, member } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:b', parent: world.ids.folder, as: 'board', name: 'Own' },
    { kind: 'node.create', node: 'new:r', parent: 'new:b', as: 'row', name: 'Theirs' },
    share('new:b', member.id, adder),
  )
  const own = body.made['new:b'] ?? ''
  const table = { columns: [as('name')], key: 0, rows: [['Theirs'], ['Mine']] }
  const answer = await member.visitor.call<JudgedRowsView>(
    'POST',
    `${at}/nodes/${own}/board/judged-rows`,
    table,
  )
  expect(verdicts(answer)).toEqual(['as it is', 'new'])
})
