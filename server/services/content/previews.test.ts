import { promisify } from 'node:util'
import { deflate } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { operationNames, operations } from '#contract/operations.ts'
import type { FileView, PageWordView, PreviewView } from '#contract/views/files.ts'
import { actions } from '#core/levels/action.ts'
import { at, type Coast, coast, share } from '../../tests/coast.ts'
import { hugePicture, pdf, pdfOf, photograph } from '../../tests/samples.ts'
import { type Announced, bytesOf, fileIn } from '../../tests/uploads.ts'

/** What is shown of files: made of them, never they themselves; and nothing that is sent takes the server down. */

let world: Coast
beforeAll(async () => {
  world = await coast()
  // All in here are looked at by somebody who may not take them.
  await world.owner.change(share(world.ids.folder, world.guest.id, actions('see')))
})
afterAll(() => world.server.stop())

const put = (name: string, bytes: Buffer) =>
  fileIn(world.server, world.owner, { name, bytes, place: world.ids.folder })
const shown = async (id: string, visitor = world.owner) =>
  (await visitor.get<PreviewView>(`${at}/nodes/${id}/file/preview`)).body
const page = async (
  id: string,
  { visitor = world.owner, at: number = '1?size=large', headers = {} } = {},
) => {
  const answer = await bytesOf(world.server, visitor, `/nodes/${id}/file/preview/${number}`, headers)
  return { answer, bytes: Buffer.from(await answer.arrayBuffer()) }
}

test('a picture is shown upright, as large as a screen needs, without what a camera wrote into it', async () => {
  const id = await put('dune.jpg', await photograph(2400, 1600))
  expect(await shown(id)).toMatchObject({ form: 'picture', pages: 1, fault: null })
  const large = await page(id)
  expect([large.answer.status, large.answer.headers.get('content-type')]).toEqual([200, 'image/webp'])
  const { width, height, exif } = await sharp(large.bytes).metadata()
  expect([width, height, exif]).toEqual([1200, 1800, undefined])
  const small = await page(id, { at: '1?size=small' })
  expect((await sharp(small.bytes).metadata()).height).toBe(320)
  // The dark corner was at the top left before it was turned.
  const { data } = await sharp(small.bytes).raw().toBuffer({ resolveWithObject: true })
  expect([data[0], data[(213 - 10) * 3]].map(each => (each ?? 0) > 40)).toEqual([true, false])
  const again = await page(id, {
    headers: { 'if-none-match': large.answer.headers.get('etag') ?? '', 'cache-control': 'max-age=0' },
  })
  expect(again.answer.status).toBe(304)
})

test('of a PDF each page, with its words where they stand', async () => {
  const id = await put('report.pdf', pdf('Sluice repairs', 'Second page'))
  expect(await shown(id)).toMatchObject({ form: 'pages', pages: 2, fault: null })
  const { bytes } = await page(id, { at: '2?size=large' })
  const { width, height } = await sharp(bytes).metadata()
  expect([width, height]).toEqual([1272, 1800])
  const { body } = await world.owner.get<PageWordView[]>(`${at}/nodes/${id}/file/preview/1/words`)
  expect(body.map(each => each.text).join('')).toBe('Sluice repairs')
  expect(body[0]?.x).toBeCloseTo(72 / 595, 2)
  expect((body[0]?.y ?? 0) + (body[0]?.height ?? 0)).toBeCloseTo(100 / 842, 2)
  for (const wrong of ['0', '3', '-1', '1e9', 'x'])
    expect((await page(id, { at: wrong })).answer.status).toBe(422)
})

test('texts and tables by their start, whatever letters they are written in', async () => {
  const latin = await put('Läufe.csv', Buffer.from('Ort;H\u00f6he\nD\u00fcne;3,5\n', 'latin1'))
  expect(await shown(latin)).toMatchObject({
    form: 'rows',
    rows: [
      ['Ort', 'Höhe'],
      ['Düne', '3,5'],
    ],
    isWhole: true,
  })
  const wide = await put(
    'wide.txt',
    Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('tide \u2603', 'utf16le')]),
  )
  expect(await shown(wide)).toMatchObject({ form: 'text', text: 'tide \u2603' })
  const note = await put('note.md', Buffer.from('# Tides\n'))
  expect(await shown(note)).toMatchObject({ form: 'document', text: '# Tides\n' })
  const long = await put('long.csv', Buffer.from('a,b\n'.repeat(200_000)))
  const rows = await shown(long)
  expect([rows.rows?.length, rows.isWhole]).toEqual([1000, false])
})

const deflated = promisify(deflate)

interface Hostile extends Pick<Announced, 'name'> {
  readonly bytes: () => Buffer | Promise<Buffer>
  /** What it is taken for, and what is shown of it. */
  readonly is: Partial<PreviewView> & { readonly kind: string }
  readonly called?: string
}

const script = '<script>fetch("/api/session",{method:"DELETE"})</script>'
const hostile: Readonly<Record<string, Hostile>> = {
  'a picture that unpacks to a billion pixels': {
    name: 'bomb.png',
    bytes: () => hugePicture(30_000, 30_000),
    is: { kind: 'image/png', form: 'none', fault: 'too-large' },
  },
  'a picture cut in the middle': {
    name: 'half.jpg',
    bytes: async () => (await photograph()).subarray(0, 300),
    is: { kind: 'image/jpeg', form: 'none', fault: 'broken' },
  },
  'a picture that is a page as well': {
    name: 'both.gif',
    bytes: () => Buffer.from(`GIF89a/*${script}*/=1;`),
    is: { kind: 'image/gif', form: 'none', fault: 'broken' },
  },
  'a drawing with a script in it': {
    name: 'map.svg',
    bytes: () => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg">${script}</svg>`),
    is: { kind: 'text/plain', form: 'text', fault: null },
  },
  'a page that is called a picture': {
    name: 'dune.png',
    bytes: () => Buffer.from(`<!doctype html><html>${script}</html>`),
    is: { kind: 'text/plain', form: 'text', fault: null },
  },
  'a broken PDF': {
    name: 'report.pdf',
    bytes: () => Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(5000, 'no object')]),
    is: { kind: 'application/pdf', form: 'none', fault: 'broken' },
  },
  'a PDF with a page of fifty million steps': {
    name: 'plan.pdf',
    bytes: async () => pdfOf(await deflated(Buffer.alloc(100_000_000, 'q Q '))),
    // It has a page; that page is not to be had.
    is: { kind: 'application/pdf', form: 'pages', pages: 1, fault: null },
  },
  'a packed file of packed files': {
    name: 'many.zip',
    bytes: () => Buffer.from('504b0506' + '0'.repeat(36), 'hex'),
    is: { kind: 'application/zip', form: 'none', fault: 'kind' },
  },
  'a name that leads elsewhere': {
    name: '../../../etc/cron.d/x\u0000\u202e\r\nSet-Cookie: a=b',
    bytes: () => Buffer.from('words'),
    is: { kind: 'text/plain', form: 'text', fault: null },
    called: 'x Set-Cookie: a=b',
  },
  'a table with a formula and no end of quotes': {
    name: 'open.csv',
    bytes: () => Buffer.from('a,b\n=HYPERLINK("x"),"never closed\n1,2\n'),
    is: { kind: 'text/csv', form: 'rows' },
  },
}

test.each(Object.entries(hostile))(
  '%s',
  async (_, { name, bytes, is: { kind, ...is }, called = name }) => {
    const { server, owner } = world
    const before = await owner.get<{ children: { id: string }[] }>(`${at}/nodes/${world.ids.folder}`)
    const old = new Set(before.body.children.map(each => each.id))
    await put(name, await bytes())
    const { body } = await owner.get<{ children: { id: string; name: string }[] }>(
      `${at}/nodes/${world.ids.folder}`,
    )
    const made = body.children.find(each => !old.has(each.id))
    const id = made?.id ?? ''
    expect(made?.name).toBe(called)
    expect((await owner.get<FileView>(`${at}/nodes/${id}/file`)).body.kind).toBe(kind)
    expect(await shown(id)).toMatchObject(is)
    // Once more, of what was kept.
    expect(await shown(id)).toMatchObject(is)
    const { answer } = await page(id)
    expect(answer.status).toBe(422)
    const { headers, status } = await bytesOf(server, owner, `/nodes/${id}/file/bytes`)
    const isPicture = kind.startsWith('image/')
    expect([status, headers.get('content-security-policy'), headers.get('x-content-type-options')]).toEqual([
      200,
      "default-src 'none'; sandbox",
      'nosniff',
    ])
    expect(headers.get('content-disposition')).toMatch(
      isPicture ? /^inline; filename/ : /^attachment; filename/,
    )
    expect(headers.get('set-cookie')).toBe(null)
  },
  90_000,
)

test('whoever may look and not take gets pictures and words with their name across, and no byte of a file by any route', async () => {
  const { owner, server, guest, ids } = world
  await owner.change({ kind: 'workspace.change', marksPreviews: true })
  const secret = 'taken at the secret nest'
  const original = await photograph(800, 600)
  const files = {
    picture: await put('nest.jpg', original),
    report: await put('nests.pdf', pdf(secret)),
    table: await put('nests.csv', Buffer.from(`a,b\n${secret},2\n`)),
    sound: await put('call.wav', Buffer.from(`RIFF\u0024\u0000\u0000\u0000WAVEfmt ${secret}`)),
  }
  const looker = guest.visitor
  const seen = await shown(files.picture, looker)
  expect(seen).toMatchObject({
    form: 'picture',
    mark: expect.stringMatching(/^Gus, \d+ \w+ \d{4}$/) as string,
  })
  expect(await shown(files.table, looker)).toMatchObject({
    form: 'rows',
    rows: [
      ['a', 'b'],
      [secret, '2'],
    ],
  })
  expect(await shown(files.sound, looker)).toMatchObject({ form: 'sound', fault: 'look-only' })
  // The owner's has no mark; that of the looker has much of it.
  const [plain, marked] = await Promise.all(
    [owner, looker].map(async visitor =>
      sharp((await page(files.picture, { visitor })).bytes)
        .raw()
        .toBuffer(),
    ),
  )
  const changed = (plain ?? Buffer.alloc(0)).reduce(
    (sum, value, index) => sum + (Math.abs(value - (marked?.[index] ?? 0)) > 12 ? 1 : 0),
    0,
  )
  expect(changed / (plain?.length ?? 1)).toBeGreaterThan(0.02)
  // Every question of the API, about each of them: the bytes, or what a camera wrote into them, are in no answer.
  const whole = original.subarray(0, 200).toString('latin1')
  for (const operation of operationNames) {
    const [method, path] = operations[operation]
    if (!path.startsWith('/at/') || operation === 'live') continue
    for (const id of Object.values(files)) {
      const address = path
        .replace('/at/{slug}', '')
        .replace('{id}', id)
        .replaceAll(/\{(version|page)\}/g, '1')
        .replaceAll(/\{\w+\}/g, guest.id)
      for (const range of ['', 'bytes=0-99'] as const) {
        const answer = await fetch(`${server.address}/api${at}${address}`, {
          method,
          headers: {
            cookie: looker.cookie,
            'x-noskel-csrf': looker.csrf,
            ...(range === '' ? {} : { range }),
          },
        })
        const text = Buffer.from(await answer.arrayBuffer()).toString('latin1')
        expect([operation, text.includes(whole), text.includes('%PDF'), text.includes('RIFF$')]).toEqual([
          operation,
          ...[false, false, false],
        ])
        // The words of a text are for the screen, and only there.
        const isForScreen = operation === 'filePreview' || operation === 'filePreviewWords'
        expect([operation, !isForScreen && text.includes(secret)]).toEqual([operation, false])
      }
    }
  }
  expect((await looker.get(`${at}/nodes/${files.report}/file/preview?version=1`)).status).toBe(404)
  const copy = await looker.change({
    kind: 'node.duplicate',
    node: files.picture,
    parent: ids.folder,
    name: 'mine',
  })
  expect(copy.status).not.toBe(200)
}, 90_000)
