import { afterAll, beforeAll, expect, test } from 'vitest'
import type { SearchView } from '#contract/views/search.ts'
import type { WrittenCells } from '#contract/views/boards.ts'
import type { Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, columnOf, editor, reader, share } from '../../tests/coast.ts'

/** What stands in cells is found by those who see the row and the column, and tells nobody else that it is there. */

let world: Coast
let board: string
let columns: Record<string, string>
let row: string

const kinds = {
  note: ['long text', {}],
  state: ['state', { states: [{ id: 's1', name: 'Postponed', mark: 'ring', isFinished: false }] }],
  no: ['serial number', { prefix: 'PERM ' }],
  contact: ['text', {}],
  who: ['person', { isSeveral: true }],
} as const

beforeAll(async () => {
  world = await coast()
  const { owner, ownerId, member, guest, ids } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Permits' },
    ...Object.entries(kinds).map(([name, [as, settings]]) => ({
      ...columnOf(name, as, settings),
      viewers: name === 'contact' ? [`person:${ownerId}`] : null,
    })),
    share('new:board', member.id, editor),
    share('new:board', guest.id, reader),
  )
  const id = (name: string) => body.made[`new:${name}`] ?? ''
  board = id('board')
  columns = Object.fromEntries(Object.keys(kinds).map(name => [name, id(name)]))
  const cell = (column: string, value: unknown) => ({
    row: 'new:r',
    column: columns[column] ?? column,
    value,
    seen: 0,
  })
  const written = await owner.call<WrittenCells>('POST', `${at}/nodes/${board}/board/cells`, {
    rows: [{ row: 'new:r', section: null }],
    cells: [
      cell('name', 'Gate'),
      cell('note', 'The hinge squeaks'),
      cell('state', 's1'),
      cell('contact', 'Mrs Quillfeather'),
      cell('who', [ownerId]),
    ],
  })
  row = written.body.made['new:r'] ?? ''
  await world.server.indexed()
})
afterAll(() => world.server.stop())

const find = async (visitor: Visitor, words: string) => {
  const { body } = await visitor.get<SearchView>(`${at}/search?find=${encodeURIComponent(words)}`)
  return body.hits.map(({ id, part, excerpt }) =>
    id === row && part === 'cells' ? (excerpt?.text ?? '') : `${id} ${part}`,
  )
}

test('a row is found by what stands in its cells', async () => {
  const { member } = world
  expect(await find(member.visitor, 'squeaks')).toEqual(['The hinge squeaks · Postponed · PERM 01'])
  expect(await find(member.visitor, 'gate postponed')).toEqual(['The hinge squeaks · Postponed · PERM 01'])
  expect(await find(member.visitor, 'perm 01')).toEqual(['The hinge squeaks · Postponed · PERM 01'])
})

test('a restricted column is found by those who see it, and is nothing to all others', async () => {
  const { owner, member, guest } = world
  expect(await find(owner, 'quillfeather')).toEqual(['Mrs Quillfeather'])
  for (const visitor of [member.visitor, guest.visitor]) {
    expect(await find(visitor, 'quillfeather')).toEqual([])
    // The name is there for all, and says nothing of it.
    expect(await find(visitor, 'gate quillfeather')).toEqual([])
    expect(JSON.stringify(await find(visitor, 'gate'))).not.toContain('Quillfeather')
  }
  // Whom a cell names is not looked for: not all who see it may know them.
  const { body } = await member.visitor.get<SearchView>(
    `${at}/search?find=${encodeURIComponent(world.ownerId)}`,
  )
  expect(body.hits).toEqual([])
})

test('what is restricted later is gone at once, and what is opened comes', async () => {
  const { owner, member, ownerId } = world
  const change = (column: string, part: object) =>
    owner.change({ kind: 'column.change', column: columns[column], ...part })
  await change('note', { viewers: [`person:${ownerId}`] })
  // Whether the index knows of it yet or not.
  expect(await find(member.visitor, 'squeaks')).toEqual([])
  await world.server.indexed()
  expect(await find(member.visitor, 'squeaks')).toEqual([])
  expect(await find(owner, 'squeaks')).toEqual(['The hinge squeaks'])
  expect(await find(member.visitor, 'postponed')).toEqual(['Postponed · PERM 01'])
  await change('note', { viewers: null })
  await change('contact', { viewers: null })
  await world.server.indexed()
  expect(await find(member.visitor, 'squeaks')).toHaveLength(1)
  expect(await find(member.visitor, 'quillfeather')).toHaveLength(1)
})

test('a column that is renamed within, becomes another kind, or is deleted is found as it is now', async () => {
  const { owner } = world
  const states = [{ id: 's1', name: 'Shelved', mark: 'ring', isFinished: false }]
  await owner.change({ kind: 'column.change', column: columns['state'], settings: { states } })
  await world.server.indexed()
  expect(await find(owner, 'postponed')).toEqual([])
  expect(await find(owner, 'shelved')).toHaveLength(1)
  const { body } = await owner.change({ kind: 'column.delete', column: columns['contact'] })
  await world.server.indexed()
  expect(await find(owner, 'quillfeather')).toEqual([])
  await owner.change({ kind: 'undo', revision: body.revision })
  await world.server.indexed()
  expect(await find(owner, 'quillfeather')).toHaveLength(1)
  await owner.call('POST', `${at}/nodes/${board}/board/cells`, {
    cells: [{ row, column: columns['contact'], value: null, seen: Date.now() }],
  })
  await world.server.indexed()
  expect(await find(owner, 'quillfeather')).toEqual([])
})
