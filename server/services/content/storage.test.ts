import { afterAll, beforeAll, expect, test } from 'vitest'
import type { StorageView } from '#contract/views/storage.ts'
import { password } from '../../tests/client.ts'
import { at, type Coast, coast, editor, share } from '../../tests/coast.ts'
import { giving, making } from '../../tests/roles.ts'
import { announce, bytesOf, fileIn } from '../../tests/uploads.ts'

/** What takes the room, for whoever sees storage: sizes of all, names of what they see. */

let world: Coast
beforeAll(async () => {
  world = await coast()
})
afterAll(() => world.server.stop())

const year = 366 * 86_400_000

test('by kind, person and home; the largest, and what nobody uses', async () => {
  const { owner, member, server, ids } = world
  await owner.change(share(ids.folder, member.id, editor))
  const put = (name: string, bytes: number, visitor = owner) =>
    fileIn(server, visitor, { name, bytes: Buffer.alloc(bytes, `${name} `), place: ids.folder })
  const old = await put('old.txt', 100)
  const used = await put('used.txt', 300)
  server.time.now += year
  for (const [visitor, name] of [
    [owner, 'ona'],
    [member.visitor, 'mika'],
    [world.guest.visitor, 'gus'],
  ] as const)
    await visitor.enter('/session', { mail: `${name}@test.example`, password })
  await bytesOf(server, owner, `/nodes/${used}/file/bytes`)
  await put('twin', 50, member.visitor)
  await put('twin', 50, member.visitor)
  await announce(server, owner, { name: 'coming', bytes: Buffer.alloc(1000), place: ids.folder })
  // That a file was used is written behind the answer.
  const storage = async () => (await owner.get<StorageView>(`${at}/storage`)).body
  await expect.poll(storage).toMatchObject({ unused: { files: 1 } })
  const view = await storage()
  expect(view).toMatchObject({
    used: 1500,
    coming: 1000,
    stored: 450,
    quota: null,
    files: 4,
    kinds: [{ kind: 'texts', bytes: 500, files: 4 }],
    people: [
      { name: 'Ona', bytes: 400, files: 2 },
      { name: 'Mika', bytes: 100, files: 2 },
    ],
    homes: [{ name: 'Sites', of: 'shared', bytes: 500, files: 4 }],
    unused: { bytes: 100, files: 1, largest: [{ place: { id: old } }] },
  })
  expect(view.largest.map(each => each.place?.name)).toEqual(['used.txt', 'old.txt', 'twin', 'twin'])
})

test('whoever sees storage and not the places is told sizes and no names; nobody else is told anything', async () => {
  const { owner, member, guest, server, ids } = world
  const { body } = await owner.change(making('Store keeper', 30, ['see storage']))
  expect((await owner.change(giving(member.id, body.made['new:role']))).status).toBe(200)
  const secret = await fileIn(server, owner, {
    name: 'secret.txt',
    bytes: Buffer.alloc(5000, 'a'),
    place: ids.secret,
  })
  const { body: view } = await member.visitor.get<StorageView>(`${at}/storage`)
  expect(view.largest[0]).toMatchObject({ place: null, bytes: 5000 })
  expect(JSON.stringify(view)).not.toMatch(new RegExp(`secret|${secret}`))
  expect((await guest.visitor.get(`${at}/storage`)).status).toBe(404)
})
