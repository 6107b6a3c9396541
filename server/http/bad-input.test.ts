import { afterAll, beforeAll, expect, test } from 'vitest'
import type { PlaceAccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import type { PageView } from '#contract/views/page.ts'
import { open, type TestServer, type Visitor } from '../tests/client.ts'
import { at, type Coast, coast, reader, share } from '../tests/coast.ts'

let server: TestServer
let owner: Visitor
let guest: Coast['guest']
let ids: Coast['ids']

beforeAll(async () => {
  ;({ server, owner, guest, ids } = await coast())
})

afterAll(() => server.stop())

const creating = (node: string, parent: string, name = node) => ({
  kind: 'node.create',
  node,
  parent,
  as: 'folder',
  name,
})

const granting = (more: object) => ({
  kind: 'grant.add',
  node: ids.folder,
  principal: `person:${guest.id}`,
  gives: reader,
  ...open,
  ...more,
})

test.each<[string, () => object, number, string]>([
  ['an unknown bit', () => granting({ gives: 1024 }), 400, 'bad-input'],
  ['a mask without what it needs', () => granting({ gives: 2 }), 400, 'bad-input'],
  ['a level that is not there', () => granting({ gives: 'nothing' }), 404, 'unknown'],
  ['a principal that hangs in the air', () => granting({ principal: 'team:nothing' }), 404, 'unknown'],
  ['a principal of no kind', () => granting({ principal: 'robot:x' }), 400, 'bad-input'],
  ['an end before its start', () => granting({ from: 2e12 + 10, until: 2e12 }), 422, 'start-after-end'],
  ['an end in the past', () => granting({ until: 5 }), 422, 'end-in-past'],
  ['a place that is not there', () => granting({ node: 'nothing' }), 404, 'unknown'],
  ['a cycle', () => ({ kind: 'node.move', node: ids.folder, parent: ids.inner }), 422, 'fixed-place'],
  ['an edit that says nothing', () => ({ kind: 'node.state', node: ids.folder }), 400, 'bad-input'],
  ['a change that changes nothing named', () => ({ kind: 'grant.change', grant: 'x' }), 400, 'bad-input'],
  ['a time zone of no place', () => ({ kind: 'workspace.change', timeZone: 'Moon/Sea' }), 400, 'bad-input'],
  ['a revision that was never', () => ({ kind: 'undo', revision: 999_999 }), 404, 'not-found'],
])('%s is refused clearly', async (_, edit, status, type) => {
  const refused = await owner.change(edit())
  expect([refused.status, refused.body.type]).toEqual([status, `urn:noskel:problem:${type}`])
  expect(refused.body.title).toMatch(/^[A-Z].*\.$/)
})

test('ten thousand edits in one set are refused before anything is read', async () => {
  const edits = Array.from({ length: 10_000 }, (_, index) => creating(`new:n${index}`, ids.folder))
  const refused = await owner.change(...edits)
  expect([refused.status, refused.body.faults?.[0]?.at]).toEqual([400, 'edits'])
})

test('a tree 500 deep is made, walked and answered', async () => {
  const edits = Array.from({ length: 500 }, (_, depth) =>
    creating(`new:d${depth}`, depth === 0 ? ids.folder : `new:d${depth - 1}`),
  )
  const made = await owner.change(...edits, share('new:d0', guest.id, reader))
  expect(made.status).toBe(200)
  const { body } = await guest.visitor.get<NodeView>(`${at}/nodes/${made.body.made['new:d499']}`)
  expect([body.actions, body.path.length]).toEqual([reader, 499])
  const { body: places } = await guest.visitor.get<PageView<PlaceAccessView>>(
    `${at}/people/${guest.id}/places`,
  )
  expect([places.total, places.items.length, places.next]).toEqual([500, 200, 200])
})

test('what somebody reached is answered at any instant, before they joined and to come', async () => {
  const statusAt = async (instant: number | string) =>
    (await owner.get(`${at}/people/${guest.id}/places?at=${instant}`)).status
  // Nobody reached anything before they were there, and what comes is not known: that is an answer.
  for (const instant of [0, 1, 1e12, 4e12, 8.64e15])
    expect([instant, await statusAt(instant)]).toEqual([instant, 404])
  expect(await statusAt(server.time.now)).toBe(200)
  for (const instant of ['-1', 1e17, 'now', ''])
    expect([instant, await statusAt(instant)]).toEqual([instant, 400])
})

test('names keep every sign of Unicode that is seen, in one form', async () => {
  for (const [name, kept] of [
    ['𝔘𝔫𝔦 🪺 nest'],
    ['ملاحظات'],
    ['e\u0301té', 'été'],
    ['"<b>&amp;\\\''],
    ['\u{1F468}\u200D\u{1F33E}'],
  ] as const) {
    const made = await owner.change(creating('new:n', ids.folder, name))
    const { body } = await owner.get<NodeView>(`${at}/nodes/${made.body.made['new:n']}`)
    expect(body.name).toBe(kept ?? name)
  }
  expect((await owner.change(creating('new:n', ids.folder, '\u202Eright to left'))).status).toBe(400)
})
