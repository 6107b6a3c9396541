import { request } from 'node:http'
import { gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type AccessCast, accessCast, did } from '../tests/access.ts'
import { at, reader, share, steward } from '../tests/coast.ts'
import { open, type Visitor } from '../tests/client.ts'

/** What the server keeps in memory between requests and writes, and how what it answers is packed. */
const day = 86_400_000
let { world, owner } = {} as AccessCast

beforeAll(async () => {
  ;({ world, owner } = await accessCast())
})
afterAll(() => world.server.stop())

test('a membership begins and ends, and a person’s time ends, also between writes that say nothing of people', async () => {
  const { time } = world.server
  const { 'new:team': team = '', 'new:home': home = '' } = await did(
    owner,
    {
      kind: 'team.create',
      team: 'new:team',
      home: 'new:home',
      name: 'Terns',
      note: '',
      joining: 'request',
      welcomesGuests: false,
    },
    { kind: 'member.add', team: 'new:team', person: world.ownerId, lead: true, ...open },
    share('new:home', world.ownerId, steward),
    { ...share('new:home', '', reader), principal: 'team:new:team' },
  )
  const span = { from: time.now + day, until: time.now + 2 * day }
  await did(owner, { kind: 'member.add', team, person: world.member.id, lead: false, ...span })
  await did(owner, share(world.ids.page, world.guest.id, reader), {
    kind: 'person.end',
    person: world.guest.id,
    until: time.now + day,
  })
  const opens = async (visitor: Visitor, node: string) =>
    (await visitor.get(`${at}/nodes/${node}`)).status === 200
  /** Asked, and asked again after a write. */
  const both = async () => {
    const now = async () => [
      await opens(world.member.visitor, home),
      await opens(world.guest.visitor, world.ids.page),
    ]
    const before = await now()
    await did(owner, { kind: 'node.describe', node: world.ids.home, note: `${time.now}` })
    expect(await now()).toEqual(before)
    return before
  }
  expect(await both()).toEqual([false, true])
  time.now += day
  expect(await both()).toEqual([true, false])
  time.now += day
  expect(await both()).toEqual([false, false])
})

test('an answer of a middling size is packed as the browser can unpack it, a small one not', async () => {
  const made = await did(owner, {
    kind: 'node.create',
    node: 'new:n',
    parent: world.ids.folder,
    as: 'folder',
    name: 'Full',
  })
  for (let round = 0; round < 2; round += 1)
    await did(
      owner,
      ...Array.from({ length: 60 }, (_, index) => ({
        kind: 'node.create',
        node: `new:p${index}`,
        parent: made['new:n'],
        as: 'page',
        name: `Page ${round} ${index}`,
      })),
    )
  const path = `${at}/nodes/${made['new:n']}/children`
  const plain = await raw(path, 'identity')
  expect([plain.packed, plain.body.length > 14 * 1024]).toEqual([undefined, true])
  const packed = await raw(path, 'br, gzip')
  expect(packed.packed).toBe('gzip')
  expect(gunzipSync(packed.body)).toEqual(plain.body)
  expect([packed.type, packed.length]).toEqual([plain.type, String(packed.body.length)])
  expect((await raw(at, 'gzip')).packed).toBeUndefined()
})

interface Raw {
  readonly packed: string | undefined
  readonly type: string | undefined
  readonly length: string | undefined
  readonly body: Buffer
}

/** As it comes, since fetch unpacks by itself. */
function raw(path: string, accepted: string) {
  const headers = { cookie: owner.cookie, 'accept-encoding': accepted }
  return new Promise<Raw>((resolve, reject) => {
    request(`${world.server.address}/api${path}`, { headers }, response => {
      const chunks: Buffer[] = []
      const { 'content-encoding': packed, 'content-type': type, 'content-length': length } = response.headers
      response.on('data', (chunk: Buffer) => chunks.push(chunk))
      response.on('end', () => resolve({ packed, type, length, body: Buffer.concat(chunks) }))
    })
      .on('error', reject)
      .end()
  })
}
