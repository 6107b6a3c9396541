import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { DraftItemsView, DraftsView } from '#contract/access-views.ts'
import type { ForeseenView } from '#contract/effect-views.ts'
import type { Problem } from '#contract/problem.ts'
import type { AppliedView, TreeItem } from '#contract/views.ts'
import type { Visitor } from './tests/client.ts'
import { did } from './tests/access.ts'
import { at, type Coast, coast, editor, share } from './tests/coast.ts'

/** What costs most of all that is taken from anybody is worked out between what others ask, one after another. */

let world: Coast
let owner: Visitor
beforeAll(async () => {
  world = await coast()
  owner = world.owner
  await did(owner, share(world.ids.folder, world.member.id, editor))
})
afterAll(() => world.server.stop())

/** Folders in one another, as deep as is allowed, over and over. */
const nested = (count: number, name = 'n') =>
  Array.from({ length: count }, (_, index) => ({
    kind: 'node.create',
    node: `new:${name}${index}`,
    parent: index % 400 === 0 ? world.ids.folder : `new:${name}${index - 1}`,
    as: 'folder',
    name: `${name}${index}`,
  }))

const many = 1500

/** How often somebody else is answered until `going` is. */
async function answersDuring(going: Promise<unknown>): Promise<number> {
  const state = { isGoing: true }
  void going.finally(() => (state.isGoing = false))
  let answers = 0
  while (state.isGoing) {
    const { status } = await world.guest.visitor.get(at)
    expect(status).toBe(200)
    answers += 1
  }
  return answers
}

const foreseeing = (edits: object[], signal?: AbortSignal) =>
  fetch(`${world.server.address}/api${at}/changes/foresee`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: owner.cookie, 'x-noskel-csrf': owner.csrf },
    body: JSON.stringify({ edits }),
    ...(signal === undefined ? {} : { signal }),
  })

const children = async () =>
  (await owner.get<TreeItem[]>(`${at}/nodes/${world.ids.folder}/children`)).body.map(each => each.name)

describe('a large change', { timeout: 120_000 }, () => {
  test('is foreseen while others are answered, and comes to what it comes to', async () => {
    const foreseen = foreseeing(nested(many))
    expect(await answersDuring(foreseen)).toBeGreaterThan(10)
    const response = await foreseen
    expect(response.status).toBe(200)
    const [now] = ((await response.json()) as ForeseenView).impact
    expect(now?.counted?.gains.places ?? now?.differences.length).toBeGreaterThanOrEqual(many)
  })

  test('is made while others are answered, and is written whole', async () => {
    const made = owner.call<AppliedView>('POST', `${at}/changes`, { edits: nested(many, 'm') })
    expect(await answersDuring(made)).toBeGreaterThan(10)
    const { status, body } = await made
    expect([status, Object.keys(body.made).length]).toEqual([200, many])
    await world.server.restart()
    expect((await children()).filter(name => name.startsWith('m'))).toHaveLength(Math.ceil(many / 400))
  })

  test('is worked out anew where others write meanwhile, and holds none of them up', async () => {
    const made = owner.call<AppliedView | Problem>('POST', `${at}/changes`, { edits: nested(many, 'w') })
    const state = { isGoing: true }
    void made.finally(() => (state.isGoing = false))
    let written = 0
    for (; state.isGoing && written < 3; written += 1) {
      const page = {
        kind: 'node.create',
        node: 'new:p',
        parent: world.ids.folder,
        as: 'page',
        name: 'Between',
      }
      expect((await world.member.visitor.change(page)).status).toBe(200)
    }
    expect(written).toBe(3)
    expect((await made).status).toBe(200)
    const names = await children()
    expect(names.filter(name => name === 'Between')).toHaveLength(3)
    expect(names.filter(name => name.startsWith('w'))).toHaveLength(Math.ceil(many / 400))
  })

  test('of which nobody waits for the answer any more is given up, and the next one goes on', async () => {
    const stopping = new AbortController()
    const stopped = foreseeing(nested(many), stopping.signal).catch((error: unknown) => (error as Error).name)
    await world.guest.visitor.get(at)
    stopping.abort()
    expect(await stopped).toBe('AbortError')
    expect((await foreseeing(nested(many))).status).toBe(200)
  })

  test('is the third of one person at a time: that one is refused, and the others are not', async () => {
    const answers = await Promise.all([1, 2, 3].map(() => foreseeing(nested(many))))
    const types = await Promise.all(
      answers.map(async answer => ((await answer.json()) as Partial<Problem>).type ?? 'foreseen'),
    )
    expect(types.sort()).toEqual(['foreseen', 'foreseen', 'urn:noskel:problem:busy-with-yours'])
  })

  test('copies no more than 5,000 places in all, however often they are said', async () => {
    const pages = Array.from({ length: 900 }, (_, index) => ({
      kind: 'node.create',
      node: `new:a${index}`,
      parent: 'new:all',
      as: 'page',
      name: `a${index}`,
    }))
    const all = { kind: 'node.create', node: 'new:all', parent: world.ids.folder, as: 'folder', name: 'All' }
    const { body } = await owner.change(all, ...pages)
    const node = body.made['new:all']
    const copy = { kind: 'node.duplicate', node, parent: world.ids.folder, name: 'Copy' }
    const copies = (count: number) => owner.call('POST', `${at}/changes`, { edits: Array(count).fill(copy) })
    expect((await copies(6)).body.title).toContain('more than 5,000 places')
    expect((await copies(2)).status).toBe(200)
  })
})

test('a request with a fault in each of its thousands of fields is answered with the first of them, at once', async () => {
  const edits = Array.from({ length: 6000 }, () => ({
    kind: 'node.create',
    node: 'x',
    parent: 7,
    as: 'y',
    name: '',
  }))
  const refused = owner.call('POST', `${at}/changes`, { edits })
  const { status, body } = await refused
  expect([status, body.faults?.length]).toEqual([400, 20])
})

test('kept change sets are worked out when they are looked at: their list tells what they are called alone', async () => {
  const { body } = await owner.call<DraftsView>('POST', `${at}/drafts`, { edits: nested(many, 'k') })
  const id = body.gathered?.id ?? ''
  expect(body.gathered).not.toHaveProperty('edits')
  expect((await owner.call('POST', `${at}/drafts`, { edits: nested(6000, 'l') })).body.type).toBe(
    'urn:noskel:problem:not-gathered',
  )
  const looked = owner.get<DraftItemsView>(`${at}/drafts/${id}/items`)
  expect(await answersDuring(looked)).toBeGreaterThan(1)
  const [item] = (await looked).body.items
  expect([item?.lines.length, item?.more]).toEqual([50, many - 50])
  await owner.call('DELETE', `${at}/drafts/${id}`)
})
