import { afterAll, beforeAll, expect, test } from 'vitest'
import type { TextVersionView, TextView } from '#contract/views/content.ts'
import { at, type Coast, coast, editor, reader, share } from '../../tests/coast.ts'

/** What is written on a page: each version is kept, goes along with a copy, and goes with the page for good. */

let world: Coast
beforeAll(async () => {
  world = await coast()
  const { owner, ids, member, guest } = world
  await owner.change(share(ids.page, member.id, editor), share(ids.page, guest.id, reader))
})
afterAll(() => world.server.stop())

const write = (visitor: Coast['owner'], text: string, version: number) =>
  visitor.call<TextView>('PUT', `${at}/nodes/${world.ids.page}/text`, { text, version })
const versions = async (visitor: Coast['owner'], node = world.ids.page) =>
  visitor.get<TextVersionView[]>(`${at}/nodes/${node}/text/versions`)

test('stands in the history of the page, version by version, for whoever may write on', async () => {
  const { owner, member, guest } = world
  await write(owner, 'By boat', 0)
  await write(member.visitor, 'By boat, at high water', 1)
  expect((await write(owner, 'On foot', 1)).status).toBe(409)
  const { body } = await versions(member.visitor)
  expect(body.map(({ version, changedBy }) => [version, changedBy])).toEqual([
    [2, 'Mika'],
    [1, 'Ona'],
  ])
  const path = `${at}/nodes/${world.ids.page}/text/versions`
  expect((await member.visitor.get<TextView>(`${path}/1`)).body.text).toBe('By boat')
  expect((await member.visitor.get(`${path}/3`)).status).toBe(404)
  expect((await member.visitor.get(`${path}/x`)).status).toBe(404)
  // Who only reads is shown the newest one.
  expect([(await versions(guest.visitor)).status, (await guest.visitor.get(`${path}/1`)).status]).toEqual([
    404, 404,
  ])
  expect((await guest.visitor.get<TextView>(`${at}/nodes/${world.ids.page}/text`)).body.version).toBe(2)
})

test('a copy begins with the newest version; for good, all of them go with the page', async () => {
  const { owner, ids, server } = world
  const { body } = await owner.change({
    kind: 'node.duplicate',
    node: ids.inner,
    parent: ids.folder,
    name: 'Again',
  })
  const copies = await server.parts.writer.tables.texts.findAll({ raw: true })
  const copy = copies.find(each => (each as unknown as { node: string }).node !== ids.page)
  expect(body.revision).toBeGreaterThan(0)
  expect(copy).toMatchObject({ version: 1, text: 'By boat, at high water' })
  await owner.change({ kind: 'node.state', node: ids.page, binned: true })
  await owner.change({ kind: 'node.delete', node: ids.page })
  const left = await server.parts.writer.tables.texts.findAll({ raw: true })
  expect(left).toEqual([copy])
})

test('one that is too long is refused, and nothing of it is kept', async () => {
  const { owner, ids } = world
  const { body } = await owner.change({
    kind: 'node.create',
    node: 'new:n',
    parent: ids.folder,
    as: 'page',
    name: 'Long',
  })
  const path = `${at}/nodes/${body.made['new:n']}/text`
  expect((await owner.call('PUT', path, { text: 'x'.repeat(200_001), version: 0 })).status).toBe(400)
  expect((await owner.get<TextView>(path)).body.version).toBe(0)
})
