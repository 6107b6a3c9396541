import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { SearchView } from '#contract/views/search.ts'
import type { Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, editor, reader, share, teamOf } from '../../tests/coast.ts'
import { pdf } from '../../tests/samples.ts'
import { fileIn } from '../../tests/uploads.ts'

/** What somebody may see is found by its words, as soon as it is written; what they may not is as if it were not. */

let world: Coast
let made: Record<string, string>

beforeAll(async () => {
  world = await coast()
  const { owner, ids, member } = world
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:sites', parent: ids.folder, as: 'folder', name: 'Sluice Sites' },
    { kind: 'node.create', node: 'new:sluice', parent: 'new:sites', as: 'page', name: 'Sluice' },
    { kind: 'node.create', node: 'new:method', parent: 'new:sites', as: 'page', name: 'Method' },
    { kind: 'node.create', node: 'new:nests', parent: ids.folder, as: 'page', name: 'Secret Sluice Nests' },
    { kind: 'node.break', node: 'new:nests', mode: 'empty' },
    ...teamOf(world.ownerId, { name: 'Sluice Keepers' }),
  )
  made = body.made
  // The owner sees so much that it is not looked at one by one; others do not.
  await owner.change(
    { kind: 'node.create', node: 'new:grid', parent: ids.folder, as: 'folder', name: 'Grid' },
    ...Array.from({ length: 2100 }, (_, at) => ({
      kind: 'node.create',
      node: `new:n${at}`,
      parent: 'new:grid',
      as: 'page',
      name: `Quadrat ${at}`,
    })),
  )
  await write(
    'method',
    'We walk along the dyke.\n\nAt the old sluïce-gate turn left, and count the Grünschenkel.',
  )
  await write('nests', 'Their sluice nests lie behind the reeds')
  await owner.change(share(id('sites'), member.id, reader))
}, 90_000)
afterAll(() => world.server.stop())

const id = (name: string) => made[`new:${name}`] ?? ''
const write = (name: string, text: string, version = 0) =>
  world.owner.call('PUT', `${at}/nodes/${id(name)}/text`, { text, version })

/** Once all that was written is in the index. */
async function find(query: string, visitor: Visitor = world.owner): Promise<SearchView> {
  await world.server.indexed()
  const { status, body } = await visitor.get<SearchView>(`${at}/search?${query}`)
  expect([query, status]).toEqual([query, 200])
  return body
}
const names = ({ hits }: SearchView) => hits.map(each => each.name.text)

test('by its name, by what is written in it, and the person and team of that name: the one that is called so first', async () => {
  const found = await find('find=sluic')
  expect(names(found)).toEqual(['Sluice Keepers', 'Sluice Sites', 'Sluice', 'Secret Sluice Nests', 'Method'])
  expect(names(await find('find=SLUICE'))[0]).toBe('Sluice')
  const [method] = (await find('find=gate+sluice')).hits
  expect(method).toMatchObject({
    id: id('method'),
    part: 'text',
    path: 'Sites › Dunes › Sluice Sites',
    changedBy: 'Ona',
  })
  const { text, marks } = method?.excerpt ?? { text: '', marks: [] }
  expect(marks.map(([from, to]) => text.slice(from, to))).toEqual(['sluïce', 'gate'])
  expect(names(await find('find=grunschenkel'))).toEqual(['Method'])
  expect((await find('find=keepers')).teams).toMatchObject([
    { name: { text: 'Sluice Keepers', marks: [[7, 14]] } },
  ])
  expect((await find('find=mik')).people.map(each => each.name.text)).toEqual(['Mika'])
})

test('nothing is found by what its reader may not see: not as a hit, a count or an order', async () => {
  const { member, guest } = world
  const theirs = await find('find=sluice', member.visitor)
  expect(names(theirs).toSorted()).toEqual(['Method', 'Sluice', 'Sluice Sites'])
  expect(theirs.hits.every(each => !each.path.includes('Dunes'))).toBe(true)
  expect(await find('find=sluice', guest.visitor)).toMatchObject({
    hits: [],
    teams: [],
    people: [],
    next: null,
  })
  expect(JSON.stringify(await find('find=nests', member.visitor))).not.toMatch(/Secret|reeds/)
  // What is opened is found at once, and what is closed is not any more.
  await world.owner.change(share(id('nests'), guest.id, reader))
  expect(names(await find('find=nests', guest.visitor))).toEqual(['Secret Sluice Nests'])
  const hidden = await guest.visitor.get(`${at}/search?find=sluice&in=${id('sites')}`)
  const absent = await guest.visitor.get(`${at}/search?find=sluice&in=nothing-there`)
  expect([hidden.status, JSON.stringify(hidden.body)]).toEqual([404, JSON.stringify(absent.body)])
  expect((await guest.visitor.get(`${at}/search?by=${member.id}`)).status).toBe(404)
  expect((await find('find=test.example', guest.visitor)).people).toEqual([])
})

test('conditions combine: in, by, of a kind, since', async () => {
  const { member, ownerId, owner, server } = world
  await owner.change(share(id('method'), member.id, editor))
  const before = server.time.now
  server.time.now += 60_000
  await member.visitor.call('PUT', `${at}/nodes/${id('method')}/text`, {
    text: 'By boat to the sluice',
    version: 1,
  })
  expect(names(await find(`find=sluice&in=${id('sites')}&kind=page`)).toSorted()).toEqual([
    'Method',
    'Sluice',
  ])
  expect(names(await find(`find=sluice&by=${member.id}`))).toEqual(['Method'])
  expect(names(await find(`find=sluice&by=${ownerId}&kind=folder`))).toEqual([
    'Sluice Keepers',
    'Sluice Sites',
  ])
  expect(names(await find(`since=${before + 1}`))).toEqual(['Method'])
  expect(names(await find(`find=nests&since=${before + 1}`))).toEqual([])
  const all = await find('kind=page')
  expect(all.hits.length).toBeGreaterThan(3)
})

test('follows what is renamed, written anew, put into files, duplicated and deleted for good', async () => {
  const { owner, server, ids } = world
  await owner.change({ kind: 'node.describe', node: id('sluice'), name: 'Weir', note: 'Rusty' })
  expect(names(await find('find=weir'))).toEqual(['Weir'])
  expect(names(await find('find=rusty'))).toEqual(['Weir'])
  await write('method', 'By foot', 2)
  expect(names(await find('find=boat'))).toEqual([])
  const file = await fileIn(server, owner, {
    name: 'plan.pdf',
    bytes: pdf('Tidal barrage'),
    place: ids.folder,
  })
  const [hit] = (await find('find=barrage')).hits
  expect(hit).toMatchObject({
    id: file,
    part: 'file',
    excerpt: { text: expect.stringContaining('Tidal barrage') as string },
  })
  await fileIn(server, owner, { name: 'plan.csv', bytes: Buffer.from('a,b\nculvert,1\n'), place: ids.folder })
  expect(names(await find('find=culvert'))).toEqual(['plan.csv'])
  await owner.change({ kind: 'node.duplicate', node: id('method'), parent: ids.folder, name: 'Copy' })
  expect(names(await find('find=foot')).toSorted()).toEqual(['Copy', 'Method'])
  await owner.change({ kind: 'node.state', node: file, binned: true })
  expect(names(await find('find=barrage'))).toEqual([])
  await owner.change({ kind: 'node.delete', node: file })
  await server.indexed()
  // Nor do its words lie in the index any more.
  const left = server.parts.index.matches({
    workspace: server.parts.writer.states.bySlug.get('coast') as never,
    words: ['barrage'],
    where: 'texts',
  })
  for await (const numbers of left) expect([...numbers]).toEqual([])
})

test('goes on where it was when the server stopped, and is made anew where there is none', async () => {
  const { server, owner, ids } = world
  await server.restart()
  await owner.change({ kind: 'node.describe', node: ids.folder, note: 'Marram' })
  expect(names(await find('find=marram'))).toEqual(['Dunes'])
  await server.restart(() => rmSync(join(server.dataDir, 'search.sqlite')))
  expect(names(await find('find=culvert'))).toEqual(['plan.csv'])
  await server.restart(() => {
    const env = { PATH: process.env['PATH'], DATA_DIR: server.dataDir }
    const made = spawnSync('node', ['--import', 'tsx', 'server/reindex.ts'], { env, encoding: 'utf8' })
    expect([made.stderr, made.stdout]).toEqual(['', expect.stringMatching(/can be searched: .* 1 files/)])
  })
  expect(names(await find('find=foot')).toSorted()).toEqual(['Copy', 'Method'])
  expect(names(await find('find=culvert'))).toEqual(['plan.csv'])
  expect(await find('find=marram', world.guest.visitor)).toMatchObject({ hits: [], indexed: 1 })
})

test('how long it takes is the same with and without what is hidden', async () => {
  const { guest } = world
  const took = async (find: string) => {
    const began = performance.now()
    await guest.visitor.get(`${at}/search?find=${find}`)
    return performance.now() - began
  }
  // No answer leaves between two ticks.
  for (const find of ['sluice', 'zzz-nowhere']) expect(await took(find)).toBeGreaterThan(18)
})

test('many hits come in pages, each once; odd questions have no hits', async () => {
  const { owner, ids } = world
  await owner.change(
    ...Array.from({ length: 45 }, (_, at) => ({
      kind: 'node.create',
      node: `new:n${at}`,
      parent: ids.folder,
      as: 'page',
      name: `Transect ${at}`,
    })),
  )
  const seen: string[] = []
  for (let from: number | null = 0; from !== null;) {
    const page: SearchView = await find(`find=transect&from=${from}`)
    seen.push(...names(page))
    from = page.next
  }
  expect([seen.length, new Set(seen).size]).toEqual([45, 45])
  for (const odd of ['"', '*', 'a OR', '%22)%20OR%20(', '-', 'NEAR(', '\u00df', 'x'.repeat(200), ''])
    expect((await find(`find=${encodeURIComponent(odd)}`)).hits.length).toBeLessThan(2)
})
