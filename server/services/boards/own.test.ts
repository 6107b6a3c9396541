import { afterAll, beforeAll, expect, test } from 'vitest'
import type { BoardInfo, EditedCellView, SavedView, WrittenCells } from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import { plainView, type ViewState } from '#core/boards/view.ts'
import type { Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, columnOf, editor, reader, share } from '../../tests/coast.ts'

/** What is only one person's on a board: views, widths and order of columns, and where they write right now. */

let world: Coast
let board: string
let columns: Record<'fee' | 'kit', string>
let row: string

beforeAll(async () => {
  world = await coast()
  const { owner, ownerId, member, guest, ids } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Loans' },
    { ...columnOf('fee', 'number', { places: 2, unit: '€', foot: 'sum' }), viewers: [`person:${ownerId}`] },
    columnOf('kit', 'text'),
    { kind: 'node.create', node: 'new:other', parent: ids.folder, as: 'board', name: 'Other' },
    share('new:board', member.id, editor),
    share('new:board', guest.id, reader),
  )
  const id = (name: string) => body.made[`new:${name}`] ?? ''
  board = id('board')
  columns = { fee: id('fee'), kit: id('kit') }
  const made = await owner.call<WrittenCells>('POST', path('/cells'), {
    cells: [{ row: 'new:r', column: 'name', value: 'Dinghy', seen: 0 }],
    rows: [{ row: 'new:r', section: null }],
  })
  row = made.body.made['new:r'] ?? ''
})
afterAll(() => world.server.stop())

const path = (rest: string) => `${at}/nodes/${board}/board${rest}`
const info = async (visitor: Visitor) => (await visitor.get<BoardInfo>(path(''))).body

const saveView = (visitor: Visitor, view: string | null, more: { name?: string; state?: ViewState } = {}) =>
  visitor.call<SavedView & Problem>('POST', path('/own-views'), {
    view,
    name: 'V',
    state: plainView,
    ...more,
  })

/** Who owes more than ten, of what begins with D; a fee that only the owner sees. */
const byFee = (): ViewState => ({
  ...plainView,
  sort: [{ column: columns.fee, isDown: true }],
  where: {
    join: 'all',
    of: [
      { column: columns.fee, word: '>', given: ['10'] },
      { column: 'name', word: 'begins with', given: ['D'] },
    ],
  },
})

test('a view of one’s own is nobody else’s: not seen, not written over, not deleted', async () => {
  const { owner, member, guest } = world
  const { body: made, status } = await saveView(owner, null, { name: 'Debts', state: byFee() })
  expect(status).toBe(200)
  const kept = { id: made.id, name: 'Debts', state: byFee() }
  expect((await info(owner)).ownViews).toMatchObject([kept])
  for (const { visitor } of [member, guest]) {
    expect((await info(visitor)).ownViews).toEqual([])
    const absent = await saveView(visitor, 'nothing', { name: 'Mine now' })
    const hidden = await saveView(visitor, made.id, { name: 'Mine now' })
    expect([hidden.status, hidden.body]).toEqual([404, absent.body])
    const gone = await visitor.call('DELETE', path(`/own-views/${made.id}`))
    expect(gone.status).toBe(404)
  }
  expect((await info(owner)).ownViews).toMatchObject([kept])
  await saveView(owner, made.id, { name: 'All' })
  expect((await info(owner)).ownViews).toMatchObject([{ id: made.id, name: 'All', state: plainView }])
  expect((await owner.call('DELETE', path(`/own-views/${made.id}`))).status).toBe(204)
  expect((await info(owner)).ownViews).toEqual([])
})

test('a view that somebody kept tells nothing of a column that they may not see any more', async () => {
  const { owner, ownerId, member } = world
  const see = (...people: string[]) =>
    owner.change({
      kind: 'column.change',
      column: columns.fee,
      viewers: people.map(each => `person:${each}`),
    })
  await see(ownerId, member.id)
  await saveView(member.visitor, null, { name: 'Debts', state: byFee() })
  await member.visitor.call('PUT', path('/own-columns'), {
    columns: {
      shown: [
        { column: columns.fee, width: 90 },
        { column: columns.kit, width: null },
      ],
      hidden: [],
    },
  })
  expect((await info(member.visitor)).ownViews).toMatchObject([{ state: byFee() }])
  await see(ownerId)
  const { ownViews, ownColumns } = await info(member.visitor)
  expect(ownViews).toMatchObject([
    { name: 'Debts', state: { sort: [], where: { of: [{ column: 'name', given: ['D'] }] } } },
  ])
  expect(ownColumns).toEqual({ shown: [{ column: columns.kit, width: null }], hidden: [] })
  expect(JSON.stringify([ownViews, ownColumns])).not.toContain(columns.fee)
  // It is all there again for whom the column is.
  await see(ownerId, member.id)
  expect((await info(member.visitor)).ownViews).toMatchObject([{ state: byFee() }])
  await see(ownerId)
})

test('a hundred views are kept on a board, also where two are sent at once', async () => {
  const { visitor } = world.guest
  for (let count = 0; count < 99; count += 1) await saveView(visitor, null, { name: `V ${count}` })
  const both = await Promise.all([saveView(visitor, null), saveView(visitor, null)])
  expect(both.map(each => each.status).toSorted()).toEqual([200, 409])
  expect(both.find(each => each.status === 409)?.body.title).toContain('a hundred views')
  const { ownViews } = await info(visitor)
  expect(ownViews).toHaveLength(100)
  // One that is there is still saved.
  expect((await saveView(visitor, ownViews[0]?.id ?? '', { name: 'Another' })).status).toBe(200)
})

test('widths and order are each person’s own, and let go of', async () => {
  const { owner, member } = world
  const own = { shown: [{ column: columns.kit, width: 300 }], hidden: [columns.fee] }
  await owner.call('PUT', path('/own-columns'), { columns: own })
  expect((await info(owner)).ownColumns).toEqual(own)
  expect((await info(member.visitor)).ownColumns).not.toEqual(own)
  await owner.call('PUT', path('/own-columns'), { columns: null })
  expect((await info(owner)).ownColumns).toBe(null)
  const wide = { shown: [{ column: columns.kit, width: 100_000 }], hidden: [] }
  expect((await owner.call('PUT', path('/own-columns'), { columns: wide })).status).toBe(400)
})

test('where somebody writes is told to those who see the cell, by name to who knows them, and for a minute', async () => {
  const { owner, member, guest, server } = world
  const write = (visitor: Visitor, cell: object | null) =>
    visitor.call('PUT', path('/edited-cells'), { cell })
  const seen = async (visitor: Visitor) => (await visitor.get<EditedCellView[]>(path('/edited-cells'))).body
  expect((await write(owner, { row, column: columns.kit })).status).toBe(204)
  const told = { row, column: columns.kit }
  expect(await seen(owner)).toEqual([])
  expect(await seen(member.visitor)).toEqual([{ ...told, person: 'Ona' }])
  expect(await seen(guest.visitor)).toMatchObject([told])
  // A cell that they do not see is none for them, and one that they may not write in is not theirs to mark.
  await write(owner, { row, column: columns.fee })
  expect(await seen(member.visitor)).toEqual([])
  for (const { visitor } of [member, guest]) {
    const absent = await write(visitor, { row, column: 'nothing' })
    const hidden = await write(visitor, { row, column: columns.fee })
    expect([hidden.status, hidden.body]).toEqual([404, absent.body])
  }
  expect((await write(guest.visitor, { row, column: columns.kit })).status).toBe(404)
  await write(owner, { row, column: 'name' })
  expect(await seen(member.visitor)).toMatchObject([{ row, column: 'name' }])
  server.time.now += 60_001
  expect(await seen(member.visitor)).toEqual([])
  await write(owner, { row, column: 'name' })
  await write(owner, null)
  expect(await seen(member.visitor)).toEqual([])
})
