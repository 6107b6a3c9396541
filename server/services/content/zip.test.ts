import { afterAll, beforeAll, expect, test } from 'vitest'
import { text as textOf } from 'node:stream/consumers'
import { fromBufferPromise } from 'yauzl'
import { actions } from '#core/levels/action.ts'
import { at, type Coast, coast, reader, share } from '../../tests/coast.ts'
import { bytesOf, fileIn } from '../../tests/uploads.ts'

/** A place taken as one ZIP: what its reader may take, as it lies, under names that any system can unpack. */

let world: Coast
beforeAll(async () => {
  world = await coast()
})
afterAll(() => world.server.stop())

/** What is in it, by path; folders have no text. */
async function unpacked(visitor = world.owner): Promise<Record<string, string>> {
  const answer = await bytesOf(world.server, visitor, `/nodes/${world.ids.folder}/zip`)
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/zip'])
  const zip = await fromBufferPromise(Buffer.from(await answer.arrayBuffer()))
  const found: Record<string, string> = {}
  for await (const entry of zip.eachEntry())
    found[entry.fileName] = entry.fileName.endsWith('/')
      ? ''
      : await textOf(await zip.openReadStreamPromise(entry))
  return found
}

test('all that may be taken, under names that are safe and there once; what may only be looked at is named', async () => {
  const { owner, server, ids, guest } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:sub', parent: ids.folder, as: 'folder', name: 'Sub: a/b' },
    { kind: 'node.create', node: 'new:page', parent: 'new:sub', as: 'page', name: 'Con' },
    { kind: 'node.create', node: 'new:empty', parent: ids.folder, as: 'folder', name: '..' },
    { kind: 'node.create', node: 'new:hidden', parent: ids.folder, as: 'folder', name: 'Nests' },
    { kind: 'node.break', node: 'new:hidden', mode: 'empty' },
  )
  const made = (name: string) => body.made[`new:${name}`] ?? ''
  const put = (name: string, place: string, words = name) =>
    fileIn(server, owner, { name, bytes: Buffer.from(words), place })
  await owner.call('PUT', `${at}/nodes/${made('page')}/text`, { text: '# By boat', version: 0 })
  await put('Map.txt', made('sub'), 'one')
  await put('map.TXT', made('sub'), 'two')
  await put('secret.txt', made('hidden'))
  const seen = await put('seen.txt', made('hidden'))
  const shown = await put('shown.txt', ids.folder)
  await owner.change(share(ids.folder, guest.id, reader), share(seen, guest.id, reader), {
    kind: 'limit.add',
    node: shown,
    principal: `person:${guest.id}`,
    allows: actions('see'),
    sparesStewards: false,
    from: null,
    until: null,
  })
  const all = await unpacked()
  const sub = 'Sub_ a_b/'
  expect(all).toMatchObject({
    [sub]: '',
    [`${sub}_Con.md`]: '# By boat',
    [`${sub}Map (2).txt`]: 'one',
    [`${sub}map.TXT`]: 'two',
    '_/': '',
    'Nests/secret.txt': 'secret.txt',
    'shown.txt': 'shown.txt',
  })
  const theirs = await unpacked(guest.visitor)
  expect(JSON.stringify(theirs)).not.toMatch(/Nests|secret/)
  // In a folder that they do not see: it stands where that would.
  expect(theirs['seen.txt']).toBe('seen.txt')
  expect(theirs['Only to look at.txt']).toBe('shown.txt\r\n')
  expect(theirs).toMatchObject({ [`${sub}Map (2).txt`]: 'one' })
  expect(theirs).not.toHaveProperty('shown.txt')
})

test('of what is no folder, or not seen, there is none', async () => {
  const { owner, member, ids } = world
  expect((await owner.get(`${at}/nodes/${ids.page}/zip`)).status).toBe(404)
  expect((await member.visitor.get(`${at}/nodes/${ids.secret}/zip`)).status).toBe(404)
})
