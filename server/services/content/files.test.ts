import { createHash, randomBytes } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { Upload, type UploadOptions } from 'tus-js-client'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { AccessView } from '#contract/views/access.ts'
import type { TreeItem } from '#contract/views/content.ts'
import type { FileVersionView, FileView, UploadsView } from '#contract/views/files.ts'
import { actions } from '#core/levels/action.ts'
import { at, type Coast, coast, editor, reader, share } from '../../tests/coast.ts'
import { announce, append, bytesOf, headersOf, upload } from '../../tests/uploads.ts'
import { dropUnnamed } from './sweep.ts'

/** Files come in and out byte for byte, each content once; to whoever may, and to nobody else. */

let world: Coast
beforeEach(async () => {
  world = await coast()
})
afterEach(() => world.server.stop())

const within = async (place: string) =>
  (await world.owner.get<TreeItem[]>(`${at}/nodes/${place}/children`)).body
const named = async (name: string) =>
  (await within(world.ids.folder)).find(each => each.name === name)?.id ?? ''
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
const received = async (response: Response) => sha256(new Uint8Array(await response.arrayBuffer()))
const stored = () =>
  readdirSync(join(world.server.dataDir, 'files'), { recursive: true, withFileTypes: true }).filter(each =>
    each.isFile(),
  ).length

test('what was sent comes back, whole and in parts, under its name', async () => {
  const { owner, server, ids } = world
  const bytes = randomBytes(300_000)
  const done = await upload(server, owner, { name: 'Süd \u2603 map.bin', bytes, place: ids.folder })
  expect([done.status, done.headers.get('upload-offset')]).toEqual([204, '300000'])
  const id = await named('Süd \u2603 map.bin')
  expect((await owner.get<FileView>(`${at}/nodes/${id}/file`)).body).toMatchObject({
    version: 1,
    size: 300_000,
    kind: 'application/octet-stream',
    changedBy: 'Ona',
    mayTake: true,
  })
  const whole = await bytesOf(server, owner, `/nodes/${id}/file/bytes`)
  expect(whole.headers.get('content-disposition')).toBe(
    `attachment; filename="S?d ? map.bin"; filename*=UTF-8''S%C3%BCd%20%E2%98%83%20map.bin`,
  )
  expect(await received(whole)).toBe(sha256(bytes))
  const tag = whole.headers.get('etag') ?? ''
  const part = await bytesOf(server, owner, `/nodes/${id}/file/bytes`, {
    range: 'bytes=100-199',
    'if-range': tag,
  })
  expect([part.status, part.headers.get('content-range')]).toEqual([206, 'bytes 100-199/300000'])
  expect(await received(part)).toBe(sha256(bytes.subarray(100, 200)))
  const same = await bytesOf(server, owner, `/nodes/${id}/file/bytes`, {
    'if-none-match': tag,
    'cache-control': 'max-age=0',
  })
  expect(same.status).toBe(304)
  const beyond = await bytesOf(server, owner, `/nodes/${id}/file/bytes`, { range: 'bytes=400000-' })
  expect([beyond.status, ((await beyond.json()) as { type: string }).type]).toEqual([
    416,
    'urn:noskel:problem:no-range',
  ])
})

test('an empty file is one too, and so is the next', async () => {
  const { owner, server, ids } = world
  for (const name of ['!', 'nothing.txt'])
    expect((await upload(server, owner, { name, bytes: new Uint8Array(0), place: ids.folder })).status).toBe(
      201,
    )
  const id = await named('nothing.txt')
  const { body } = await owner.get<FileView>(`${at}/nodes/${id}/file`)
  expect([
    body.size,
    await received(await bytesOf(server, owner, `/nodes/${id}/file/bytes`)),
    stored(),
  ]).toEqual([0, sha256(new Uint8Array(0)), 1])
})

test('it goes on where it stopped: after a broken line, and after the server stopped', async () => {
  const { owner, server, ids } = world
  const bytes = randomBytes(200_000)
  const announced = await announce(server, owner, { name: 'film', bytes, place: ids.folder })
  const path = announced.headers.get('location') ?? ''
  const offset = async () => {
    const { headers } = await fetch(`${server.address}${path}`, { method: 'HEAD', headers: headersOf(owner) })
    return Number(headers.get('upload-offset'))
  }
  await append(server, owner, { path, offset: 0, bytes: bytes.subarray(0, 70_000) })
  // A line that breaks in the middle of a request: what had come counts.
  const breaking = new AbortController()
  const halfway = fetch(`${server.address}${path}`, {
    method: 'PATCH',
    headers: headersOf(owner, {
      'content-type': 'application/offset+octet-stream',
      'upload-offset': '70000',
    }),
    body: new ReadableStream({
      pull: async controller => {
        controller.enqueue(new Uint8Array(bytes.subarray(70_000, 120_000)))
        await new Promise(resolve => setTimeout(resolve, 50))
        breaking.abort()
      },
    }),
    duplex: 'half',
    signal: breaking.signal,
  } as RequestInit)
  await expect(halfway).rejects.toThrow()
  const come = await offset()
  expect(come).toBeGreaterThanOrEqual(70_000)
  await server.restart()
  expect(await offset()).toBe(come)
  const wrong = await append(server, owner, { path, offset: come + 1, bytes: bytes.subarray(come + 1) })
  expect(wrong.status).toBe(409)
  const { uploads: open } = (await owner.get<UploadsView>(`${at}/uploads`)).body
  expect(open).toMatchObject([{ name: 'film', place: ids.folder, received: come, size: 200_000 }])
  expect((await append(server, owner, { path, offset: come, bytes: bytes.subarray(come) })).status).toBe(204)
  expect(await received(await bytesOf(server, owner, `/nodes/${await named('film')}/file/bytes`))).toBe(
    sha256(bytes),
  )
  expect((await owner.get(`${at}/uploads`)).body).toMatchObject({ uploads: [], left: null })
  expect(readdirSync(join(server.dataDir, 'uploads'))).toEqual([])
})

test('the protocol says which part of it is understood', async () => {
  const { owner, server } = world
  const { status, headers } = await fetch(`${server.address}/api${at}/uploads`, {
    method: 'OPTIONS',
    headers: headersOf(owner),
  })
  const values = ['tus-version', 'tus-extension', 'tus-max-size'].map(each => headers.get(each))
  expect([status, ...values]).toEqual([204, '1.0.0', 'creation,termination', String(5 * 1024 ** 3)])
})

test('a client that others wrote sends a file in pieces, is stopped, and goes on', async () => {
  const { owner, server, ids } = world
  const bytes = randomBytes(150_000)
  const options = {
    endpoint: `${server.address}/api${at}/uploads`,
    headers: { cookie: owner.cookie, 'x-noskel-csrf': owner.csrf },
    metadata: { filename: 'by others', place: ids.folder },
    chunkSize: 40_000,
    retryDelays: null,
  }
  const sent = (more: Partial<UploadOptions>) =>
    new Promise<Upload>((resolve, reject) => {
      const going = new Upload(bytes, {
        ...options,
        onSuccess: () => resolve(going),
        onError: reject,
        onChunkComplete: (_, come) => {
          if (more.uploadUrl !== undefined || come < 80_000) return
          void going.abort().then(() => resolve(going))
        },
        ...more,
      })
      going.start()
    })
  const { url } = await sent({})
  expect((await owner.get(`${at}/uploads`)).body).toMatchObject({ uploads: [{ received: 80_000 }] })
  await sent({ uploadUrl: url })
  expect(await received(await bytesOf(server, owner, `/nodes/${await named('by others')}/file/bytes`))).toBe(
    sha256(bytes),
  )
})

test('the same bytes are kept once, and go when nobody’s row names them any more', async () => {
  const { owner, server, ids } = world
  const bytes = randomBytes(1000)
  for (const name of ['one', 'two']) await upload(server, owner, { name, bytes, place: ids.folder })
  const one = await named('one')
  await owner.change({ kind: 'node.duplicate', node: one, parent: ids.folder, name: 'copy' })
  expect(stored()).toBe(1)
  const gone = async (name: string) => {
    const node = await named(name)
    await owner.change({ kind: 'node.state', node, binned: true })
    expect((await owner.change({ kind: 'node.delete', node })).status).toBe(200)
    await dropUnnamed(server.parts)
  }
  for (const name of ['one', 'two']) await gone(name)
  expect([
    stored(),
    await received(await bytesOf(server, owner, `/nodes/${await named('copy')}/file/bytes`)),
  ]).toEqual([1, sha256(bytes)])
  await gone('copy')
  expect(stored()).toBe(0)
})

test('a version over another one; an earlier one brought back; as many as are kept', async () => {
  const { owner, server, ids, member } = world
  await owner.change({ kind: 'workspace.change', versionsKept: 3 })
  const versions = [1, 2, 3, 4].map(each => Buffer.from(`version ${each}`))
  await upload(server, owner, { name: 'map.txt', bytes: versions[0] as Buffer, place: ids.folder })
  const id = await named('map.txt')
  await owner.change(share(id, member.id, editor))
  for (const bytes of versions.slice(1))
    expect((await upload(server, member.visitor, { name: 'other', bytes, versionOf: id })).status).toBe(204)
  const { body } = await owner.get<FileVersionView[]>(`${at}/nodes/${id}/file/versions`)
  expect(body.map(each => [each.version, each.changedBy, each.kind])).toEqual([
    [4, 'Mika', 'text/plain'],
    [3, 'Mika', 'text/plain'],
    [2, 'Mika', 'text/plain'],
  ])
  const back = await owner.call<FileView>('POST', `${at}/nodes/${id}/file/versions/2/restore`)
  expect(back.body).toMatchObject({ version: 5, changedBy: 'Ona' })
  const text = async (path: string) => (await bytesOf(server, owner, `/nodes/${id}/file${path}`)).text()
  expect([await text('/bytes'), await text('/versions/4/bytes')]).toEqual(['version 2', 'version 4'])
  expect((await owner.get(`${at}/nodes/${id}/file/versions/2/bytes`)).status).toBe(404)
})

test('refused before its first byte: too large, no room, no right, nothing there', async () => {
  const { owner, server, ids, member } = world
  const bytes = randomBytes(2000)
  const type = async (visitor: typeof owner, more: object = {}) => {
    const answer = await announce(server, visitor, { name: 'f', bytes, place: ids.folder, ...more })
    return answer.status === 201 ? 201 : ((await answer.json()) as { type: string }).type.split(':').at(-1)
  }
  expect([await type(member.visitor), await type(member.visitor, { place: 'nothing-there' })]).toEqual(
    Array(2).fill('unknown'),
  )
  await owner.change(share(ids.folder, member.id, reader))
  expect(await type(member.visitor)).toBe('action-missing')
  expect(await type(owner, { place: ids.page, versionOf: ids.page })).toBe('unknown')
  await owner.change({ kind: 'workspace.change', largestFile: 1999 })
  expect(await type(owner)).toBe('file-too-large')
  await owner.change({ kind: 'workspace.change', largestFile: 5000, storageQuota: 3000 })
  expect([await type(owner), await type(owner)]).toEqual([201, 'storage-full'])
  expect((await within(ids.folder)).map(each => each.kind)).toEqual(['folder'])
})

test('a right that ends while a file is on its way ends the file', async () => {
  const { owner, server, ids, member } = world
  await owner.change(share(ids.folder, member.id, editor))
  const { body: access } = await owner.get<AccessView & { detail: 'all' }>(`${at}/nodes/${ids.folder}/access`)
  const grant = access.grants.find(each => each.principal === `person:${member.id}`)?.id
  const bytes = randomBytes(1000)
  const announced = await announce(server, member.visitor, { name: 'late', bytes, place: ids.folder })
  const path = announced.headers.get('location') ?? ''
  await append(server, member.visitor, { path, offset: 0, bytes: bytes.subarray(0, 400) })
  await owner.change({ kind: 'grant.end', grant })
  // Not its last bytes: no more of it is taken, long before it would become a file.
  const refused = await append(server, member.visitor, { path, offset: 400, bytes: bytes.subarray(400, 700) })
  expect([refused.status, ((await refused.json()) as { type: string }).type]).toEqual([
    404,
    'urn:noskel:problem:unknown',
  ])
  expect(await named('late')).toBe('')
  // Nor does somebody else go on with it.
  expect((await append(server, owner, { path, offset: 400, bytes: bytes.subarray(400) })).status).toBe(404)
})

test('whoever may only look gets no byte of it, by any address', async () => {
  const { owner, server, ids, guest } = world
  await upload(server, owner, { name: 'report', bytes: Buffer.from('secret words'), place: ids.folder })
  const id = await named('report')
  await owner.change(share(id, guest.id, actions('see')))
  const looker = guest.visitor
  expect((await looker.get<FileView>(`${at}/nodes/${id}/file`)).body).toMatchObject({
    version: 1,
    mayTake: false,
  })
  for (const [path, status] of [
    ['bytes', 403],
    ['versions/1/bytes', 404],
    ['versions', 404],
  ] as const)
    for (const headers of [{}, { range: 'bytes=0-3' }]) {
      const answer = await bytesOf(server, looker, `/nodes/${id}/file/${path}`, headers)
      expect([path, answer.status, await answer.text()]).toEqual([
        path,
        status,
        expect.not.stringContaining('secret'),
      ])
    }
  const copying = await looker.change({ kind: 'node.duplicate', node: id, parent: ids.folder, name: 'mine' })
  expect(copying.status).not.toBe(200)
})
