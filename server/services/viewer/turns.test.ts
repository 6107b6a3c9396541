import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { PlaceAccessView } from '#contract/views/access.ts'
import type { TreeItem } from '#contract/views/content.ts'
import type { DraftItemsView, DraftsView } from '#contract/views/drafts.ts'
import type { AuditEntryView, HistoryView } from '#contract/views/history.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import type { Visitor } from '../../tests/client.ts'
import { did } from '../../tests/access.ts'
import { at, type Coast, coast, editor, offer, share } from '../../tests/coast.ts'

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

const sending = (path: string, edits: object[], signal?: AbortSignal) =>
  fetch(`${world.server.address}/api${at}${path}`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      accept: 'application/x-ndjson, application/json',
      cookie: owner.cookie,
      'x-noskel-csrf': owner.csrf,
    },
    body: JSON.stringify({ edits }),
    ...(signal === undefined ? {} : { signal }),
  })

const previewing = async (edits: object[], signal?: AbortSignal) => {
  const response = await sending('/changes/preview', edits, signal)
  const last = JSON.parse((await response.text()).trimEnd().split('\n').at(-1) ?? '') as unknown
  const isInLines = response.headers.get('content-type')?.includes('ndjson') === true
  return (isInLines ? last : response.ok ? { answer: last } : { problem: last }) as {
    readonly answer?: PreviewView
    readonly problem?: Problem
  }
}

const children = async () =>
  (await owner.get<TreeItem[]>(`${at}/nodes/${world.ids.folder}/children`)).body.map(each => each.name)

describe('a large change', { timeout: 120_000 }, () => {
  test('is previewed while others are answered, and comes to what it comes to', async () => {
    const preview = previewing(nested(many))
    expect(await answersDuring(preview)).toBeGreaterThan(10)
    const [now] = (await preview).answer?.impact ?? []
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
    const stopped = previewing(nested(many), stopping.signal).catch((error: unknown) => (error as Error).name)
    await world.guest.visitor.get(at)
    stopping.abort()
    expect(await stopped).toBe('AbortError')
    expect((await previewing(nested(many))).answer).toBeDefined()
  })

  test('that is being made can be stopped once it says how far it is: then nothing is changed', async () => {
    const stopping = new AbortController()
    const before = await children()
    const response = await sending('/changes', nested(many, 's'), stopping.signal)
    const reader = response.body?.getReader()
    const { value } = (await reader?.read()) ?? {}
    expect(new TextDecoder().decode(value)).toMatch(/^\{"done":0[.\d]*\}\n/)
    stopping.abort()
    // The next one of hers comes after it has been given up.
    expect((await previewing(nested(many))).answer).toBeDefined()
    expect(await children()).toEqual(before)
  })

  test('is the third of one person at a time: that one is refused, and the others are not', async () => {
    const answers = await Promise.all([1, 2, 3].map(() => previewing(nested(3000))))
    const types = answers.map(({ problem }) => problem?.type ?? 'previewed')
    expect(types.sort()).toEqual(['previewed', 'previewed', 'urn:noskel:problem:busy-with-yours'])
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

test('a fault far down a long list is told where it is', async () => {
  const edits = nested(1000, 'f').map((edit, index) => (index === 777 ? { ...edit, name: '\u202E' } : edit))
  const { status, body } = await owner.call('POST', `${at}/changes`, { edits })
  expect([status, body.faults?.map(fault => fault.at)]).toEqual([400, ['edits.777.name']])
})

test('history and past with large changes in them are told while others are answered, and in short', async () => {
  const before = world.server.time.now
  const flat = nested(6000, 'h').map(edit => ({ ...edit, parent: world.ids.inner }))
  expect((await owner.change(...flat)).status).toBe(200)
  const listed = owner.get<HistoryView>(`${at}/history?place=${world.ids.folder}`)
  expect(await answersDuring(listed)).toBeGreaterThan(1)
  const [entry] = (await listed).body.entries
  expect([entry?.events.length, entry?.eventCount]).toEqual([20, 6000])
  const { body: detail } = await owner.get<AuditEntryView>(`${at}/history/${entry?.revision}`)
  expect([detail.events.length, detail.eventCount]).toEqual([200, 6000])
  const reached = owner.get<PageView<PlaceAccessView>>(`${at}/people/${world.ownerId}/places?at=${before}`)
  expect(await answersDuring(reached)).toBeGreaterThan(1)
  const { body: now } = await owner.get<PageView<PlaceAccessView>>(`${at}/people/${world.ownerId}/places`)
  expect((await reached).body.total).toBe(now.total - 6000)
}, 90_000)

test('a table of ten thousand people of one name is judged while others are answered', async () => {
  const rows = Array.from({ length: 10_000 }, (_, index) => ({ mail: `n${index}@new.example`, name: 'Ona' }))
  const judged = owner.call<ImportedRowView[]>('POST', `${at}/imports`, { rows, offer, welcome: null })
  expect(await answersDuring(judged)).toBeGreaterThan(5)
  const { body } = await judged
  expect(body.filter(each => each.verdict === 'new')).toHaveLength(10_000)
  const handles = body.flatMap(({ edits: [invite] }) =>
    invite?.kind === 'person.invite' ? invite.profile?.handle : [],
  )
  expect(new Set(handles).size).toBe(10_000)
}, 90_000)

test('kept change sets are worked out when they are looked at: their list tells what they are called alone', async () => {
  const { body } = await owner.call<DraftsView>('POST', `${at}/drafts`, { edits: nested(many, 'k') })
  const id = body.draft?.id ?? ''
  expect(body.draft).not.toHaveProperty('edits')
  expect((await owner.call('POST', `${at}/drafts`, { edits: nested(6000, 'l') })).body.type).toBe(
    'urn:noskel:problem:not-draftable',
  )
  const looked = owner.get<DraftItemsView>(`${at}/drafts/${id}/items`)
  expect(await answersDuring(looked)).toBeGreaterThan(1)
  const [item] = (await looked).body.items
  expect([item?.lines.length, item?.more]).toEqual([50, many - 50])
  await owner.call('DELETE', `${at}/drafts/${id}`)
})
