import { afterEach, beforeEach, expect, test } from 'vitest'
import type { NodeView, TreeView } from '#contract/views/content.ts'
import type { AppliedView, WorkspaceView } from '#contract/views/workspace.ts'
import type { HistoryView } from '#contract/views/history.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { readAnew } from './store/writer.ts'
import { putAwayUnused } from './services/changes/scheduled.ts'
import { founded, invite, type TestServer, tokenFor, Visitor, welcome } from './tests/client.ts'
import { share, steward } from './tests/coast.ts'
import { listenAs } from './tests/listening.ts'

/** A workspace is read when somebody asks about it, and put away when nobody does: whoever asks notices nothing. */

const hour = 3_600_000
const others = 11
let server: TestServer
let owner: Visitor

beforeEach(async () => {
  ;({ server, owner } = await founded())
  for (let count = 1; count <= others; count += 1)
    await owner.call('POST', '/workspaces', { name: `Isle ${count}`, timeZone: 'UTC' })
})
afterEach(() => server.stop())

const inMemory = () => {
  const { heads, published } = server.parts.writer.states
  return [...published.keys()].map(each => heads.get(each)?.slug ?? '').toSorted()
}
const changeIn = (slug: string, ...edits: object[]) =>
  owner.call<AppliedView>('POST', `/at/${slug}/changes`, { edits })

/** A home that its maker keeps. */
async function homeIn(slug: string): Promise<object[]> {
  const { body } = await owner.get<WorkspaceView>(`/at/${slug}`)
  return [{ kind: 'home.create', node: 'new:home', name: 'Landing' }, share('new:home', body.me.id, steward)]
}

const tree = async (slug: string, visitor = owner) => (await visitor.get<TreeView>(`/at/${slug}/tree`)).body

test('at the start a few are read, the others when somebody of them asks', async () => {
  const before = await Promise.all([tree('coast'), tree('isle-3')])
  const { body: session } = await owner.get<{ workspaces: unknown[] }>('/session')
  expect(session.workspaces).toHaveLength(others + 1)
  await server.restart()
  expect(inMemory()).toHaveLength(8)
  // Those that were written last.
  expect(inMemory()).not.toContain('coast')
  expect((await owner.get('/session')).body).toEqual(session)
  expect(inMemory()).toHaveLength(8)
  expect(await Promise.all([tree('coast'), tree('isle-3'), tree('coast')])).toEqual([
    before[0],
    before[1],
    before[0],
  ])
  expect(inMemory()).toContain('coast')
})

test('nobody else has one read, and is answered as of none', async () => {
  const { visitor: mika } = await welcome(server, owner, { name: 'Mika' })
  await server.restart()
  const read = inMemory()
  const slug = Array.from({ length: others }, (_, index) => `isle-${index + 1}`).find(
    each => !read.includes(each),
  )
  const [theirs, none] = [await mika.get(`/at/${slug}`), await mika.get('/at/nowhere')]
  expect([theirs.status, theirs.body]).toEqual([404, none.body])
  expect(inMemory()).not.toContain(slug)
})

test('those that nobody asks about are put away, but for those whose pages are open', async () => {
  await owner.get('/at/isle-1')
  const before = await tree('isle-2')
  await owner.get('/at/isle-2/search?find=isle')
  const { documentNodes } = server.parts
  expect(documentNodes.size).toBeGreaterThan(0)
  const listening = await listenAs(owner, server)
  server.time.now += hour
  await owner.get('/at/isle-1')
  putAwayUnused(server.parts)
  expect(inMemory()).toEqual(['coast', 'isle-1'])
  expect(documentNodes.size).toBe(0)
  expect(await tree('isle-2')).toEqual(before)
  expect((await changeIn('isle-3', ...(await homeIn('isle-3')))).status).toBe(200)
  listening.stop()
})

test('what begins and ends in one that nobody uses passes all the same', async () => {
  const ending = { ...share('new:home', '', 1, server.time.now + hour), principal: 'everyone' }
  expect((await changeIn('isle-4', ...(await homeIn('isle-4')), ending)).status).toBe(200)
  const { bySlug, heads } = server.parts.writer.states
  const revision = () => heads.get(bySlug.get('isle-4') as never)?.revision ?? 0
  const before = revision()
  server.time.now += hour * 0.9
  putAwayUnused(server.parts)
  expect(inMemory()).not.toContain('isle-4')
  server.time.now += hour
  await expect.poll(revision, { timeout: 5000 }).toBe(before + 1)
  const { body: history } = await owner.get<HistoryView>('/at/isle-4/history')
  expect(JSON.stringify(history.entries[0])).toContain('ended')
})

test('an invitation and a link lead into one that nobody uses', async () => {
  const mail = 'nils@test.example'
  expect((await changeIn('isle-5', invite(mail))).status).toBe(200)
  const token = await tokenFor(owner, mail)
  server.time.now += hour
  putAwayUnused(server.parts)
  expect(inMemory()).toEqual([])
  const nils = new Visitor(server)
  const read = await nils.call<{ workspace: string }>('POST', '/invitations/read', { token })
  expect(read.body.workspace).toBe('Isle 5')
  expect(
    (await nils.enter('/invitations/accept', { token, name: 'Nils', password: 'a long enough secret' }))
      .status,
  ).toBe(200)
  expect((await nils.get('/at/isle-5')).status).toBe(200)
})

test('one is read anew while others change it: nothing is lost, and it says the same', async () => {
  const { writer } = server.parts
  const id = writer.states.bySlug.get('coast') as WorkspaceId
  const { body } = await owner.change(...(await homeIn('coast')))
  const home = body.made['new:home']
  const writing = Array.from({ length: 40 }, (_, index) =>
    owner.change({ kind: 'node.create', node: 'new:n', parent: home, as: 'page', name: `Page ${index}` }),
  )
  await Promise.all([readAnew(writer, id), ...writing, readAnew(writer, id)])
  const readAt = () => writer.states.published.get(id)?.readAt ?? 0
  expect(readAt()).toBeGreaterThan(1)
  const { revision } = (await owner.change({ kind: 'node.describe', node: home, note: 'Sand' })).body
  const before = await tree('coast')
  const names = before.homes.map(each => each.name)
  await readAnew(writer, id)
  expect([readAt(), await tree('coast'), names]).toEqual([revision, before, ['Landing']])
  const { body: node } = await owner.get<NodeView>(`/at/coast/nodes/${home}`)
  expect([node.note, node.children.length]).toEqual(['Sand', 40])
})
