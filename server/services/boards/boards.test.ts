import { afterAll, beforeAll, expect, test } from 'vitest'
import type {
  BoardInfo,
  RowChangeView,
  RowDetail,
  RowsView,
  TotalsView,
  WrittenCells,
} from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import { levelActions } from '#core/levels/level.ts'
import { sweepGoneColumns } from '../content/gone-columns.ts'
import { type Visitor, welcome } from '../../tests/client.ts'
import { adder, at, type Coast, coast, columnOf, editor, reader, share, steward } from '../../tests/coast.ts'
import { listenAs } from '../../tests/listening.ts'

/** A board is written, looked at and taken back as each may: over HTTP, on a real file. */

let world: Coast
let board: string
let columns: Record<string, string>
let sections: Record<string, string>

const states = [
  { id: 'out', name: 'Out', mark: 'ring', isFinished: false },
  { id: 'back', name: 'Back', mark: 'disc', isFinished: true },
]

beforeAll(async () => {
  world = await coast()
  const { owner, ownerId, member, guest, ids } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Loans' },
    columnOf('no', 'serial number', { prefix: 'L-' }),
    columnOf('state', 'state', { states }),
    columnOf('who', 'person', { isSeveral: true }),
    columnOf('day', 'date', { withTime: false }),
    { ...columnOf('fee', 'number', { places: 2, unit: '€', foot: 'sum' }), viewers: [`person:${ownerId}`] },
    columnOf('kit', 'text'),
    { kind: 'section.create', section: 'new:boats', board: 'new:board', name: 'Boats', order: 1 },
    { kind: 'section.create', section: 'new:tents', board: 'new:board', name: 'Tents', order: 2 },
    share('new:board', member.id, editor),
    share('new:board', guest.id, reader),
  )
  const id = (name: string) => body.made[`new:${name}`] ?? ''
  board = id('board')
  columns = Object.fromEntries(['no', 'state', 'who', 'day', 'fee', 'kit'].map(name => [name, id(name)]))
  sections = { boats: id('boats'), tents: id('tents') }
})
afterAll(() => world.server.stop())

const of = (name: string) => columns[name] ?? name
const path = (rest: string) => `${at}/nodes/${board}/board${rest}`

interface Cell {
  readonly row: string
  readonly column: string
  readonly value: unknown
  readonly seen?: number
}

const write = (visitor: Visitor, cells: readonly Cell[], more: object = {}) =>
  visitor.call<WrittenCells & Problem>('POST', path('/cells'), {
    cells: cells.map(({ seen = 0, column, ...cell }) => ({ ...cell, column: of(column), seen })),
    ...more,
  })

const rowsFor = async (visitor: Visitor, query = '') =>
  (await visitor.get<RowsView>(path(`/rows${query}`))).body
const named = async (visitor: Visitor, name: string) => {
  const row = (await rowsFor(visitor)).rows.find(each => each.name === name)
  if (row === undefined) throw new Error(`there is no row ${name}`)
  return row
}

test('rows are made with their cells, numbered, and stand in sections in the order in which they were made', async () => {
  const { owner, member } = world
  const rows = ['Dinghy', 'Canoe', 'Two-person tent', 'Tarp']
  const { body, status } = await write(
    owner,
    [
      ...rows.map((name, index) => ({ row: `new:r${index}`, column: 'name', value: name })),
      { row: 'new:r0', column: 'state', value: 'out' },
      { row: 'new:r1', column: 'state', value: 'back' },
      { row: 'new:r0', column: 'fee', value: 40.5 },
      { row: 'new:r1', column: 'fee', value: 2 },
      { row: 'new:r2', column: 'who', value: [world.member.id] },
      { row: 'new:r0', column: 'day', value: '2026-12-04' },
    ],
    {
      rows: rows.map((_, index) => ({
        row: `new:r${index}`,
        section: index < 2 ? sections['boats'] : sections['tents'],
      })),
    },
  )
  expect([status, body.left]).toEqual([200, []])
  const found = await rowsFor(member.visitor)
  expect(found.rows.map(({ name, cells }) => [name, cells[of('no')], cells[of('state')]])).toEqual([
    ['Dinghy', 1, 'out'],
    ['Canoe', 2, 'back'],
    ['Two-person tent', 3, undefined],
    ['Tarp', 4, undefined],
  ])
  expect(found.groups).toEqual([
    { key: sections['boats'], count: 2 },
    { key: sections['tents'], count: 2 },
  ])
  expect(found.names[world.member.id]).toBe('Mika')
})

test('who does not see a column meets nothing of it: no cell, sum, filter, sort, group, change, export or refusal', async () => {
  const { owner, guest, member } = world
  const info = async (visitor: Visitor) =>
    (await visitor.get<BoardInfo>(path(''))).body.columns.map(each => each.name)
  expect([await info(owner), await info(guest.visitor)]).toEqual([
    ['day', 'fee', 'kit', 'no', 'state', 'who'],
    ['day', 'kit', 'no', 'state', 'who'],
  ])
  for (const query of [`?where=${of('fee')}~%3E~10`, `?sort=-${of('fee')}`, `?group=${of('fee')}`]) {
    const [seen, hidden] = [await rowsFor(owner, query), await rowsFor(guest.visitor, query)]
    const none = await rowsFor(guest.visitor, query.replaceAll(of('fee'), 'nothing'))
    expect(hidden).toEqual(none)
    expect([hidden.isPartial, seen.isPartial, hidden.count]).toEqual([true, false, 4])
  }
  expect((await rowsFor(owner, `?where=${of('fee')}~%3E~10`)).count).toBe(1)
  const totals = async (visitor: Visitor) => (await visitor.get<TotalsView>(path('/totals'))).body.totals
  expect((await totals(owner))[of('fee')]).toEqual({
    filled: 2,
    sum: 42.5,
    mean: 21.25,
    least: 2,
    greatest: 40.5,
  })
  expect(Object.keys(await totals(guest.visitor))).not.toContain(of('fee'))
  const row = await named(guest.visitor, 'Dinghy')
  const version = row.version
  await write(owner, [{ row: row.id, column: 'fee', value: 41, seen: 4e12 }])
  expect((await named(guest.visitor, 'Dinghy')).version).toBe(version)
  const history = async (visitor: Visitor) =>
    (await visitor.get<RowChangeView[]>(`${at}/nodes/${row.id}/row/history`)).body
  expect((await history(owner)).map(each => each.changes.map(change => change.column))[0]).toEqual([
    of('fee'),
  ])
  expect(
    (await history(guest.visitor)).flatMap(each => each.changes.map(change => change.column)),
  ).not.toContain(of('fee'))
  const csv = async (visitor: Visitor) => {
    const text = await visitor.text(`${at}/nodes/${board}/board.csv`)
    return text.split('\r\n')[0]
  }
  expect([await csv(owner), await csv(guest.visitor)]).toEqual([
    'Name,day,fee,kit,no,state,who,Section',
    'Name,day,kit,no,state,who,Section',
  ])
  const refused = async (column: string) =>
    (await write(member.visitor, [{ row: row.id, column, value: 1 }])).body.cells
  expect((await refused('fee'))?.map(each => each.why)).toEqual(
    (await refused('nothing'))?.map(each => each.why),
  )
})

test('of two people in one cell the second is told, with what stands there now; other cells of the row are no matter', async () => {
  const { owner, member } = world
  const { id, version } = await named(owner, 'Canoe')
  await write(member.visitor, [{ row: id, column: 'kit', value: 'Paddle', seen: version }])
  const late = await write(owner, [{ row: id, column: 'kit', value: 'Oar', seen: version }])
  expect([late.status, late.body.conflicts]).toEqual([
    409,
    [{ row: id, column: of('kit'), now: 'Paddle', by: 'Mika', at: late.body.conflicts?.[0]?.at }],
  ])
  expect((await write(owner, [{ row: id, column: 'state', value: 'out', seen: version }])).status).toBe(200)
  const at = late.body.conflicts?.[0]?.at
  expect((await write(owner, [{ row: id, column: 'kit', value: 'Oar', seen: at ?? 0 }])).status).toBe(200)
  expect((await named(owner, 'Canoe')).cells).toMatchObject({ [of('kit')]: 'Oar', [of('state')]: 'out' })
})

test('a column that others edit is read, and not written; its stewards always may', async () => {
  const { owner, member, guest } = world
  const { id } = await named(owner, 'Canoe')
  const settle = (editors: readonly string[] | null) =>
    owner.change({ kind: 'column.change', column: of('kit'), editors })
  expect((await settle([`person:${guest.id}`])).status).toBe(200)
  const { body } = await member.visitor.get<BoardInfo>(path(''))
  expect(body.columns.find(each => each.id === of('kit'))).toMatchObject({ isMine: false, mine: 'see' })
  const cells = [
    { row: id, column: 'kit', value: 'Two paddles', seen: Date.now() },
    { row: id, column: 'state', value: 'out', seen: Date.now() },
  ]
  const refused = await write(member.visitor, cells)
  expect([refused.status, refused.body.cells?.map(each => [each.column, each.why])]).toEqual([
    409,
    [[of('kit'), 'You cannot change the column kit.']],
  ])
  const { body: part } = await write(member.visitor, cells, { isPartial: true })
  expect(part.left.map(each => each.column)).toEqual([of('kit')])
  // Whoever is named and may not change the row writes nothing either.
  expect((await write(guest.visitor, cells.slice(0, 1))).status).toBe(409)
  expect((await write(owner, cells.slice(0, 1))).status).toBe(200)
  const { cells: now } = await named(member.visitor, 'Canoe')
  expect([now[of('kit')], now[of('state')]]).toEqual(['Two paddles', 'out'])
  await settle(null)
})

test('who may only look takes no copy, and who may not arrange the board puts no row elsewhere', async () => {
  const { server, owner, guest } = world
  const pia = await welcome(server, owner, { name: 'Pia' })
  await owner.change(share(board, pia.id, levelActions('Preview')))
  expect((await rowsFor(pia.visitor)).count).toBe(4)
  const [absent, csv] = [await pia.visitor.text(`${at}/nodes/nothing/board.csv`), path('.csv')]
  expect(await pia.visitor.text(csv)).toBe(absent)
  expect(await guest.visitor.text(csv)).toContain('Canoe')
  const { id } = await named(owner, 'Canoe')
  const order = { rows: [id], before: null, section: sections['boats'] }
  const put = (visitor: Visitor) => visitor.call('POST', path('/order'), order)
  expect([(await put(guest.visitor)).status, (await put(owner)).status]).toEqual([404, 200])
})

test('that a restricted cell was written is told to who sees its column alone', async () => {
  const { server, owner, guest } = world
  const { id } = await named(owner, 'Canoe')
  const [own, other] = [await listenAs(owner, server), await listenAs(guest.visitor, server)]
  const seen = Date.now()
  await write(owner, [{ row: id, column: 'fee', value: 7, seen }])
  await write(owner, [{ row: id, column: 'kit', value: 'Three paddles', seen }])
  await own.until(2)
  const topics = [`within:${board}`, `document:${id}`]
  expect([own, other].map(({ heard }) => heard.map(each => each.data.topics))).toEqual([
    [topics, topics],
    [topics],
  ])
  own.stop()
  other.stop()
})

test('it is all of it or nothing, with every cell that is wrong; or what can be', async () => {
  const { owner, guest, member, ids } = world
  const dinghy = await named(owner, 'Dinghy')
  const cells = [
    { row: dinghy.id, column: 'kit', value: 'Anchor', seen: 4e12 },
    { row: dinghy.id, column: 'state', value: 'lost', seen: 4e12 },
    { row: dinghy.id, column: 'no', value: 9, seen: 4e12 },
    { row: dinghy.id, column: 'fee', value: 1.234, seen: 4e12 },
    { row: dinghy.id, column: 'who', value: ['nobody'], seen: 4e12 },
    { row: ids.page, column: 'kit', value: 'x', seen: 4e12 },
    { row: dinghy.id, column: 'name', value: '  ', seen: 4e12 },
  ]
  const none = await write(owner, cells)
  expect([none.status, none.body.refused]).toEqual([409, 6])
  expect((await named(owner, 'Dinghy')).cells[of('kit')]).toBeUndefined()
  const some = await write(owner, cells, { isPartial: true })
  expect([some.status, some.body.left.length]).toEqual([200, 6])
  expect((await named(owner, 'Dinghy')).cells[of('kit')]).toBe('Anchor')
  for (const visitor of [guest.visitor]) {
    const own = await write(visitor, [{ row: dinghy.id, column: 'kit', value: 'x', seen: 4e12 }])
    expect([own.status, own.body.cells?.[0]?.why]).toEqual([409, 'You cannot change this row.'])
  }
  // Whom a row cannot be opened by is not named in it.
  const { body } = await write(owner, [
    { row: dinghy.id, column: 'who', value: [member.id, guest.id], seen: 4e12 },
  ])
  expect(body.left).toEqual([])
})

test('a row that has access of its own is there for exactly those for whom it is opened', async () => {
  const { owner, guest, member } = world
  const { id } = await named(owner, 'Tarp')
  await owner.change({ kind: 'node.break', node: id, mode: 'empty' }, share(id, guest.id, editor))
  expect((await rowsFor(member.visitor)).rows.map(each => each.name)).not.toContain('Tarp')
  expect([(await rowsFor(member.visitor)).all, (await rowsFor(guest.visitor)).all]).toEqual([3, 4])
  const own = await named(guest.visitor, 'Tarp')
  expect([own.mayEdit, own.isOwnAccess]).toEqual([true, true])
  expect(
    (await write(guest.visitor, [{ row: id, column: 'kit', value: 'Pegs', seen: own.version }])).status,
  ).toBe(200)
  await owner.change({ kind: 'grant.end', grant: await grantOn(board, guest.id) })
  expect((await guest.visitor.get(path('/rows'))).status).toBe(404)
  const alone = (await guest.visitor.get<RowDetail>(`${at}/nodes/${id}/row`)).body
  expect([alone.seesBoard, alone.board, alone.row.name, alone.row.cells[of('kit')]]).toEqual([
    false,
    { id: '', name: '' },
    'Tarp',
    'Pegs',
  ])
  expect(
    (await write(member.visitor, [{ row: id, column: 'kit', value: 'x', seen: 4e12 }])).body.cells?.[0]?.why,
  ).toBe('There is no such row that you know of.')
})

const grantOn = async (node: string, person: string) => {
  const { body } = await world.owner.get<{ grants: { id: string; principal: string }[] }>(
    `${at}/nodes/${node}/access`,
  )
  return body.grants.find(each => JSON.stringify(each).includes(person))?.id
}

test('an adder makes rows and writes in their own', async () => {
  const { owner, guest } = world
  await owner.change(share(board, guest.id, adder))
  const { body } = await write(
    guest.visitor,
    [
      { row: 'new:x', column: 'name', value: 'Raft' },
      { row: 'new:x', column: 'kit', value: 'Rope' },
    ],
    { rows: [{ row: 'new:x', section: null }] },
  )
  const id = body.made['new:x'] ?? ''
  expect((await write(guest.visitor, [{ row: id, column: 'kit', value: 'Line', seen: 4e12 }])).status).toBe(
    200,
  )
  const other = await named(owner, 'Canoe')
  expect(
    (await write(guest.visitor, [{ row: other.id, column: 'kit', value: 'x', seen: 4e12 }])).status,
  ).toBe(409)
})

test('a column becomes another kind, says before what that empties, and is as it was when it is taken back', async () => {
  const { owner } = world
  const [canoe, dinghy] = [await named(owner, 'Canoe'), await named(owner, 'Dinghy')]
  await write(owner, [
    { row: canoe.id, column: 'kit', value: '12', seen: 4e12 },
    { row: dinghy.id, column: 'kit', value: 'Anchor', seen: 4e12 },
  ])
  const as = { as: 'number', settings: { places: 0, unit: '', foot: 'sum' } }
  const { body } = await owner.call<{ filled: number; emptied: number; examples: string[] }>(
    'POST',
    `${at}/nodes/${board}/columns/${of('kit')}/conversion`,
    as,
  )
  expect(body).toEqual({ filled: 4, emptied: 3, examples: body.examples })
  expect(body.examples).toContain('Anchor')
  const { body: applied } = await owner.change({ kind: 'column.change', column: of('kit'), ...as })
  expect([
    (await named(owner, 'Canoe')).cells[of('kit')],
    (await named(owner, 'Dinghy')).cells[of('kit')],
  ]).toEqual([12, undefined])
  await write(owner, [{ row: dinghy.id, column: 'kit', value: 7, seen: 4e12 }])
  await owner.change({ kind: 'undo', revision: applied.revision })
  expect([
    (await named(owner, 'Canoe')).cells[of('kit')],
    (await named(owner, 'Dinghy')).cells[of('kit')],
  ]).toEqual(['12', '7'])
})

test('a row’s number is never given again, and a column’s cells are back when the column is', async () => {
  const { owner } = world
  const numbers = async () => (await rowsFor(owner)).rows.map(each => Number(each.cells[of('no')]))
  const most = Math.max(...(await numbers()))
  const making = await owner.change({
    kind: 'node.create',
    node: 'new:n',
    parent: board,
    as: 'row',
    name: 'Gone',
  })
  await owner.change({ kind: 'undo', revision: making.body.revision })
  await owner.change({ kind: 'node.create', node: 'new:n', parent: board, as: 'row', name: 'Next' })
  expect((await named(owner, 'Next')).cells[of('no')]).toBe(most + 2)
  const deleting = await owner.change({ kind: 'column.delete', column: of('day') })
  expect((await named(owner, 'Dinghy')).cells[of('day')]).toBeUndefined()
  await owner.change({ kind: 'undo', revision: deleting.body.revision })
  expect((await named(owner, 'Dinghy')).cells[of('day')]).toBe('2026-12-04')
  // After thirty days without it they are gone.
  const { parts, time } = world.server
  const again = await owner.change({ kind: 'column.delete', column: of('day') })
  const stored = async () =>
    JSON.stringify(await parts.writer.tables.rowCells.findAll({ raw: true })).includes('2026-12-04')
  time.now += 29 * 86_400_000
  await sweepGoneColumns(parts)
  expect(await stored()).toBe(true)
  time.now += 2 * 86_400_000
  await sweepGoneColumns(parts)
  expect(await stored()).toBe(false)
  await owner.change({ kind: 'undo', revision: again.body.revision })
  expect((await named(owner, 'Dinghy')).cells[of('day')]).toBeUndefined()
})

test('a copy of a board has its sections, views and cells, as far as whoever copies may copy them', async () => {
  const { owner, member, ids } = world
  await owner.change(share(ids.folder, member.id, steward))
  const copyBy = async (visitor: Visitor) => {
    const { body } = await visitor.change({
      kind: 'node.duplicate',
      node: board,
      parent: ids.folder,
      name: `Copy by ${visitor === owner ? 'owner' : 'member'}`,
    })
    const { body: tree } = await visitor.get<{ id: string; name: string }[]>(
      `${at}/nodes/${ids.folder}/children`,
    )
    expect(body.revision).toBeGreaterThan(0)
    return tree.find(each => each.name.startsWith('Copy by'))?.id ?? ''
  }
  const copy = await copyBy(owner)
  const { body: info } = await owner.get<BoardInfo>(`${at}/nodes/${copy}/board`)
  const fee = info.columns.find(each => each.name === 'fee')?.id ?? ''
  const { body: rows } = await owner.get<RowsView>(`${at}/nodes/${copy}/board/rows`)
  const dinghy = rows.rows.find(each => each.name === 'Dinghy')
  expect([info.sections.map(each => each.name), dinghy?.cells[fee]]).toEqual([['Boats', 'Tents'], 41])
  expect(info.sections.map(each => each.id)).toContain(dinghy?.section)
  await owner.change({ kind: 'node.state', node: copy, binned: true })
})
