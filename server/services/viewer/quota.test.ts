import { deflateSync } from 'node:zlib'
import sharp from 'sharp'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { DraftsView } from '#contract/views/drafts.ts'
import type { RequestsView } from '#contract/views/requests.ts'
import { openDatabase } from '../../store/database.ts'
import { perHour, type Quota } from './quota.ts'
import { invite, type Visitor, welcome } from '../../tests/client.ts'
import { at, type Coast, coast, editor, reader, share } from '../../tests/coast.ts'

/** What one person may do only so often in an hour: past that it is refused, nothing of it is done, and others go on. */

let world: Coast
let owner: Visitor
let member: Visitor
beforeEach(async () => {
  world = await coast()
  owner = world.owner
  member = world.member.visitor
})
afterEach(() => world.server.stop())

const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })

/** As if it had been done so often that one time is left. */
async function allButOne(who: string, what: Quota): Promise<void> {
  const database = await openDatabase(world.server.dataDir)
  await database.query('UPDATE uses SET times = ? WHERE who = ? AND what = ?', {
    replacements: [perHour[what] - 1, who, what],
  })
  await database.close()
}

test('requests made and taken back; in the next hour they go on', async () => {
  const asking = (node: string) => ({
    kind: 'request.make',
    wants: { of: 'access', node, actions: editor },
    reason: '',
  })
  await owner.change(
    share(world.ids.page, world.member.id, reader),
    share(world.ids.inner, world.member.id, reader),
  )
  expect((await member.change(asking(world.ids.page))).status).toBe(200)
  await allButOne(world.member.id, 'requests')
  const [own] = (await member.get<RequestsView>(`${at}/requests`)).body.mine
  expect((await member.change({ kind: 'request.withdraw', request: own?.id })).status).toBe(200)
  const places = async () => (await owner.get(`${at}/requests`)).body
  const before = await places()
  expect((await member.change(asking(world.ids.inner))).body).toMatchObject(problem('many-requests'))
  expect(await places()).toEqual(before)
  world.server.time.now += 3_600_000
  expect((await member.change(asking(world.ids.inner))).status).toBe(200)
  expect(await places()).not.toEqual(before)
})

test('mails: an invitation past the most is not made, and somebody else’s is', async () => {
  await owner.change(invite('first@test.example'))
  await allButOne(world.ownerId, 'mails')
  expect((await owner.change(invite('last@test.example'))).status).toBe(200)
  expect((await owner.change(invite('more@test.example'))).body).toMatchObject(problem('many-mails'))
  const { body } = await owner.get<{ rows: { mail: string }[] }>(`${at}/people`)
  expect(JSON.stringify(body)).not.toContain('more@test.example')
  // What mails nobody goes on.
  expect((await owner.change({ kind: 'node.describe', node: world.ids.folder, note: 'x' })).status).toBe(200)
  world.server.time.now += 3_600_000
  expect((await owner.change(invite('more@test.example'))).status).toBe(200)
})

test('mails that notifications go out as count for who caused them', async () => {
  await owner.change(share(world.ids.page, world.member.id, reader))
  await allButOne(world.ownerId, 'mails')
  const other = await welcome(world.server, owner, { name: 'Vera' })
  expect((await owner.change(share(world.ids.page, other.id, reader))).body).toMatchObject(
    problem('many-mails'),
  )
})

const send = (visitor: Visitor, bytes: Uint8Array) =>
  fetch(`${world.server.address}/api${at}/pictures`, {
    method: 'POST',
    headers: {
      cookie: visitor.cookie,
      'x-noskel-csrf': visitor.csrf,
      'content-type': 'application/octet-stream',
    },
    body: new Uint8Array(bytes),
  })

/** A picture whose head says that it is so large, with next to nothing behind it. */
function claiming(width: number, height: number): Uint8Array {
  const part = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data])
    const length = Buffer.alloc(4)
    length.writeUInt32BE(data.length)
    const sum = Buffer.alloc(4)
    sum.writeUInt32BE(crc(body))
    return Buffer.concat([length, body, sum])
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(height, 4)
  head.set([8, 0, 0, 0, 0], 8)
  const start = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  return Buffer.concat([
    start,
    part('IHDR', head),
    part('IDAT', deflateSync(Buffer.alloc(100))),
    part('IEND', Buffer.alloc(0)),
  ])
}

function crc(bytes: Buffer): number {
  let sum = 0xffffffff
  for (const byte of bytes) {
    sum ^= byte
    for (let bit = 0; bit < 8; bit += 1) sum = (sum >>> 1) ^ (sum & 1 ? 0xedb88320 : 0)
  }
  return (sum ^ 0xffffffff) >>> 0
}

test('pictures: one after another in a process apart, refused by what their head says, and only so many', async () => {
  const small = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#0f665c' } })
    .png()
    .toBuffer()
  const statuses = async (pictures: Uint8Array[]) =>
    Promise.all(pictures.map(async each => (await send(member, each)).status))
  expect(await statuses([small, claiming(20_000, 20_000), Buffer.from('nothing'), small])).toEqual([
    201, 422, 422, 201,
  ])
  await allButOne(world.member.id, 'pictures')
  expect(await statuses([small])).toEqual([201])
  expect(await statuses([small])).toEqual([429])
  expect((await send(owner, small)).status).toBe(201)
})

test('draft changes and kept', async () => {
  const act = { edits: [share(world.ids.page, world.member.id, reader)] }
  const addToDraft = () => owner.call<DraftsView>('POST', `${at}/drafts`, act)
  await addToDraft()
  await allButOne(world.ownerId, 'drafts')
  expect((await addToDraft()).body.draft?.count).toBe(2)
  expect((await addToDraft()).body).toMatchObject(problem('many-drafts'))
  expect((await owner.get<DraftsView>(`${at}/drafts`)).body.draft?.count).toBe(2)
})

test('ten streams of one account are open at once, and those of others beside them', async () => {
  const open = (visitor: Visitor) =>
    fetch(`${world.server.address}/api${at}/live`, { headers: { cookie: visitor.cookie } })
  const streams = []
  for (let count = 0; count < 10; count += 1) streams.push(await open(member))
  expect(streams.map(each => each.status)).toEqual(Array(10).fill(200))
  const refused = await open(member)
  expect([refused.status, await refused.json()]).toEqual([
    429,
    expect.objectContaining(problem('many-streams')),
  ])
  const other = await open(owner)
  expect(other.status).toBe(200)
  for (const stream of [...streams, other]) await stream.body?.cancel()
  for (let status = 429; status === 429;) {
    const again = await open(member)
    status = again.status
    await again.body?.cancel()
  }
})
