import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { DraftItemsView, DraftView, DraftsView, RecipientsView } from '#contract/views/drafts.ts'
import type { HistoryView } from '#contract/views/history.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { RequestsView } from '#contract/views/requests.ts'
import { levelActions } from '#core/levels/level.ts'
import { at, editor, reader, share, steward } from '../../tests/coast.ts'
import { type Visitor, welcome } from '../../tests/client.ts'
import { type AccessCast, accessCast, did, everything, see } from '../../tests/access.ts'
import { notifications } from '../../tests/roles.ts'

/** Access in daily use: asked for, told of, and drafted before it is changed. */
const day = 86_400_000
const commenter = levelActions('Commenter')
let { world, owner, warden } = {} as AccessCast

beforeAll(async () => {
  ;({ world, owner, warden } = await accessCast())
})
afterAll(() => world.server.stop())

const requestsOf = (visitor: Visitor) => see<RequestsView>(visitor, '/requests')
const asking = (node: string, actions = reader, reason = 'For the count') => ({
  kind: 'request.make',
  wants: { of: 'access', node, actions },
  reason,
})
describe('asking for access', () => {
  test('tells nothing of whether there is a place: all answers are alike to the byte', async () => {
    const { visitor } = await welcome(world.server, owner, { name: 'Noor' })
    const tell = async (node: string) => {
      const preview = await visitor.preview(asking(node))
      const done = await visitor.change(asking(node))
      const again = await visitor.change(asking(node))
      const [mine] = (await requestsOf(visitor)).mine
      const [entry] = (await see<HistoryView>(visitor, '/history')).entries
      await did(visitor, { kind: 'request.withdraw', request: mine?.id })
      const of = { impact: preview.impact.map(each => ({ ...each, at: 0 })), leftOut: preview.leftOut }
      const listed = { ...mine, id: '', at: 0 }
      const events = entry?.events
      return JSON.stringify({
        of,
        status: done.status,
        made: done.body.made,
        again: again.body,
        listed,
        events,
      }).replaceAll(node, 'X')
    }
    expect(await tell(world.ids.secret)).toBe(await tell('nothing-there'))
    expect(await tell(world.ids.secret)).toContain('requested Reader on a place, by its address')
  })

  test('reaches who gives access nearest, reminds, goes on to the others, and is answered in one act', async () => {
    const { visitor, id } = await welcome(world.server, owner, { name: 'Pia' })
    await did(visitor, asking(world.ids.page))
    const words = 'Pia requests Reader on Map: “For the count”.'
    expect(
      [await notifications(warden.visitor), await notifications(owner)].map(each => each.includes(words)),
    ).toEqual([true, false])
    const wait = async (days: number) => {
      world.server.time.now += days * day
      await did(owner, { kind: 'node.describe', node: world.ids.home, note: `${days}` })
    }
    await wait(2)
    expect(await notifications(warden.visitor)).toContain(
      'Pia still waits for an answer to their request for Reader on Map: “For the count”.',
    )
    expect(await notifications(owner)).not.toContain(words)
    await wait(3)
    expect(await notifications(owner)).toContain(words)
    const request = (await requestsOf(warden.visitor)).toDecide.find(each => each.person.id === id)
    expect(request).toMatchObject({ wants: { place: { name: 'Map' }, actions: reader, has: 0 } })
    expect((await everything(warden.visitor, world.ids.page)).requests).toHaveLength(1)
    const answer = {
      kind: 'request.accept',
      request: request?.id,
      gives: { of: 'access', gives: commenter, until: null },
      comment: 'Welcome',
    }
    const preview = await warden.visitor.preview(answer)
    expect(preview.impact[0]?.differences).toMatchObject([{ person: { id }, before: 0, after: commenter }])
    await did(warden.visitor, answer)
    expect(await notifications(visitor)).toContain(
      'Wim accepted your request. You now have Commenter on Map: “Welcome”.',
    )
    // It is told once: not that it was opened besides.
    expect(await notifications(visitor)).not.toContainEqual(expect.stringContaining('shared'))
    expect(await notifications(owner)).not.toContain(words)
    expect([(await requestsOf(owner)).toDecide, (await requestsOf(visitor)).mine]).toEqual([[], []])
  })

  test('is declined with a word; at a place that stays hidden in silence, as if nothing were there', async () => {
    const { visitor, id } = await welcome(world.server, owner, { name: 'Quin' })
    await did(owner, share(world.ids.page, id, reader))
    for (const node of [world.ids.secret, world.ids.page]) {
      await did(visitor, asking(node, editor, 'Please'))
      const request = (await requestsOf(owner)).toDecide.find(
        ({ wants }) => wants.of === 'access' && wants.place.id === node,
      )
      await did(owner, { kind: 'request.decline', request: request?.id, comment: 'Not now' })
    }
    const declined = (await notifications(visitor)).filter(each => each.includes('declined'))
    expect(declined).toEqual(['Ona declined your request for Editor on Map: “Not now”.'])
    expect((await requestsOf(visitor)).mine).toMatchObject([
      { wants: { place: { name: 'Map' } }, declined: { by: 'Ona', comment: 'Not now' } },
      { wants: { place: null, address: world.ids.secret }, declined: null },
    ])
  })

  test('is what a refused act leads to', async () => {
    const { visitor, id } = await welcome(world.server, owner, { name: 'Rhea' })
    await did(owner, share(world.ids.page, id, reader))
    const { body } = await visitor.change({ kind: 'node.describe', node: world.ids.page, name: 'x' })
    expect(body.asks).toEqual({ place: world.ids.page, level: 'Editor', action: 'change' })
  })
})

describe('being told', () => {
  test('what is opened for one comes with the word that was sent along', async () => {
    const { visitor, id } = await welcome(world.server, owner, { name: 'Sami' })
    const edits = [share(world.ids.page, id, reader)]
    await owner.send('/changes', { edits, message: 'The old map is there' })
    expect(await notifications(visitor)).toContain(
      'Ona shared Map with you: “The old map is there”. You have Reader.',
    )
  })

  test('whoever watches a place hears of changes there and below, as long as they give access', async () => {
    const { id } = await welcome(world.server, owner, { name: 'Tove' })
    await did(warden.visitor, { kind: 'watch.begin', node: world.ids.folder })
    expect((await everything(warden.visitor, world.ids.folder)).watch).not.toBeNull()
    await did(owner, share(world.ids.inner, id, reader))
    const text = 'Ona changed who has access to Dunes. 1 person gains access on 2 places.'
    expect(await notifications(warden.visitor)).toContain(text)
    expect(await notifications(owner)).not.toContain(text)
    const grant = (await everything(owner, world.ids.folder)).grants.find(
      each => each.principal === `person:${warden.id}`,
    )
    await did(owner, { kind: 'grant.change', grant: grant?.id, gives: reader })
    expect(await notifications(warden.visitor)).not.toContain(text)
    await did(owner, { kind: 'grant.change', grant: grant?.id, gives: steward })
  })

  test('an end that comes near is put off in one act, by who may', async () => {
    const { visitor, id } = await welcome(world.server, owner, { name: 'Ugo' })
    const until = world.server.time.now + 8 * day
    await did(owner, share(world.ids.page, id, reader, until))
    world.server.time.now += 2 * day
    await did(owner, { kind: 'node.describe', node: world.ids.home, note: 'later' })
    const ending = async (of: Visitor) =>
      (await see<NotificationsView>(of, '/notifications')).notifications.find(each => each.kind === 'ending')
    expect((await ending(visitor))?.offer).toBeNull()
    const offer = (await ending(owner))?.offer
    expect(offer?.label).toMatch(/^Extend until /)
    await did(owner, ...(offer?.edits ?? []))
    const grant = (await everything(owner, world.ids.page)).grants.find(
      each => each.principal === `person:${id}`,
    )
    expect(grant?.until).toBe(until + 30 * day)
    expect(await ending(owner)).toBeUndefined()
  })
})

describe('draft changes', () => {
  const post = <T = DraftsView>(visitor: Visitor, path: string, body: object) =>
    visitor.call<T>('POST', `${at}${path}`, body)
  const itemsOf = async (visitor: Visitor, id = '') =>
    (await see<DraftItemsView>(visitor, `/drafts/${id}/items`)).items
  const editsOf = async (visitor: Visitor, id = '') => (await see<DraftView>(visitor, `/drafts/${id}`)).edits

  test('are told as the history would, left out, kept, and change nothing until they are applied', async () => {
    const page = {
      kind: 'node.create',
      node: 'new:page',
      parent: world.ids.folder,
      as: 'page',
      name: 'Tides',
    }
    await post(owner, '/drafts', { edits: [page, share('new:page', world.member.id, editor)] })
    await post(owner, '/drafts', { edits: [{ ...page, name: 'Winds' }] })
    const { body } = await post(owner, '/drafts', { edits: [share(world.ids.inner, world.guest.id, reader)] })
    expect(body.draft?.count).toBe(3)
    expect((await itemsOf(owner, body.draft?.id)).map(each => each.lines)).toEqual([
      ['created the page Tides in Dunes', 'gave Mika Editor on Tides in Dunes'],
      ['created the page Winds in Dunes'],
      ['gave Gus Reader on Maps in Dunes'],
    ])
    const id = body.draft?.id ?? ''
    const put = (what: object) => owner.call<DraftsView>('PUT', `${at}/drafts/${id}`, what)
    expect((await put({ without: 1 })).body.draft?.count).toBe(2)
    expect((await put({ name: 'For spring' })).body).toMatchObject({
      draft: null,
      kept: [{ name: 'For spring' }],
    })
    for (const other of [warden.visitor, world.guest.visitor]) {
      expect(await see<DraftsView>(other, '/drafts')).toEqual({ draft: null, kept: [] })
      expect((await other.call('PUT', `${at}/drafts/${id}`, { name: 'Mine' })).status).toBe(404)
      for (const path of [`/drafts/${id}`, `/drafts/${id}/items`, `/drafts/${id}/recipients`])
        expect((await other.call('GET', `${at}${path}`)).status).toBe(404)
    }
    const [kept] = (await see<DraftsView>(owner, '/drafts')).kept
    const edits = await editsOf(owner, kept?.id)
    const preview = await owner.preview(...edits)
    expect(
      preview.impact[0]?.differences.filter(each => each.person.name !== 'Ona' && each.person.name !== 'Wim'),
    ).toHaveLength(3)
    const applied = await owner.send('/changes', { edits, preview: preview.digest, draft: id })
    expect(applied.status).toBe(200)
    expect((await see<DraftsView>(owner, '/drafts')).kept).toEqual([])
  })

  test('are handed to who may apply them alone; they see what they may know of, and who handed them is told', async () => {
    const helper = await welcome(world.server, owner, { name: 'Vera' })
    await did(owner, share(world.ids.folder, helper.id, reader))
    const edits = [share(world.ids.page, helper.id, editor)]
    const { body } = await post(helper.visitor, '/drafts', { edits })
    const id = body.draft?.id ?? ''
    const { recipients, mayI } = await see<RecipientsView>(helper.visitor, `/drafts/${id}/recipients`)
    expect([mayI, recipients.map(each => each.name)]).toEqual([false, ['Ona', 'Wim']])
    const hand = (to: string) =>
      helper.visitor.call<DraftsView & Problem>('POST', `${at}/drafts/${id}/handover`, {
        to,
        comment: 'Please look',
      })
    expect((await hand(world.member.id)).body.type).toBe('urn:noskel:problem:not-a-recipient')
    expect((await hand(warden.id)).status).toBe(200)
    expect((await see<DraftsView>(helper.visitor, '/drafts')).draft).toBeNull()
    expect(await notifications(warden.visitor)).toContain(
      'Vera handed over draft changes to you, to preview and apply: “Please look”.',
    )
    const [kept] = (await see<DraftsView>(warden.visitor, '/drafts')).kept
    expect(kept).toMatchObject({ from: { name: 'Vera' }, count: 1 })
    expect(await itemsOf(warden.visitor, id)).toMatchObject([{ lines: ['gave Vera Editor on Map in Maps'] }])
    const answer = await warden.visitor.send('/changes', {
      edits: await editsOf(warden.visitor, id),
      draft: id,
    })
    expect(answer.status).toBe(200)
    expect(await notifications(helper.visitor)).toContain(
      'Wim applied the draft changes that you handed over.',
    )
  })

  test('tell nothing of what their holder does not know of: nor by who could apply them', async () => {
    const tell = async (node: string) => {
      const edits = [share(node, world.guest.id, reader)]
      const { body } = await post(world.guest.visitor, '/drafts', { edits })
      const id = body.draft?.id ?? ''
      const recipients = await see<RecipientsView>(world.guest.visitor, `/drafts/${id}/recipients`)
      const items = await itemsOf(world.guest.visitor, id)
      await world.guest.visitor.call('DELETE', `${at}/drafts/${id}`)
      return [items, recipients]
    }
    const text = await tell(world.ids.secret)
    expect(text).toEqual([
      [{ lines: ['something that you cannot see, or that was deleted'], more: 0, problem: null }],
      { mayI: false, recipients: [] },
    ])
    expect(await tell('nothing-there')).toEqual(text)
  })

  test('are applied as what was handed over only if they are that', async () => {
    const { body } = await post(owner, '/drafts', { edits: [share(world.ids.page, world.member.id, reader)] })
    const id = body.draft?.id
    const other = [share(world.ids.page, world.guest.id, reader)]
    expect((await owner.send('/changes', { edits: other, draft: id })).body.type).toBe(
      'urn:noskel:problem:preview-changed',
    )
    await owner.call('DELETE', `${at}/drafts/${id}`)
  })

  test('never hold what is decided at once', async () => {
    const { body } = await post<Problem>(owner, '/drafts', { edits: [asking(world.ids.page)] })
    expect(body.type).toBe('urn:noskel:problem:not-draftable')
  })
})
