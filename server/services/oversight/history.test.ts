import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { AccessView } from '#contract/views/access.ts'
import type { TreeView } from '#contract/views/content.ts'
import type { AuditEntryDetailView, AuditEntryView, HistoryView } from '#contract/views/history.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import { type TestServer, type Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, editor, reader, share, steward } from '../../tests/coast.ts'

let server: TestServer
let owner: Visitor
let member: Coast['member']
let guest: Coast['guest']
let ids: Coast['ids']

beforeAll(async () => {
  ;({ server, owner, member, guest, ids } = await coast())
})

afterAll(() => server.stop())

const history = async (visitor: Visitor, query = ''): Promise<readonly AuditEntryView[]> =>
  (await visitor.get<HistoryView>(`${at}/history${query}`)).body.entries

const newest = async (visitor: Visitor) => (await history(visitor))[0] as AuditEntryView
const words = (entries: readonly AuditEntryView[]) =>
  entries.flatMap(entry => entry.events.map(event => event.text))

describe('the history', () => {
  test('tells who did what, why, and what it did to whom', async () => {
    await owner.send('/changes', { edits: [share(ids.folder, member.id, editor)], reason: 'Summer maps' })
    expect(await newest(owner)).toMatchObject({
      author: { name: 'Ona' },
      isMine: true,
      reason: 'Summer maps',
      events: [
        { category: 'sharing', text: 'gave Mika Editor on Dunes in Sites', place: { id: ids.folder } },
      ],
      gains: { people: 1, places: 3 },
      losses: { people: 0, places: 0 },
      mayUndo: true,
      undoneBy: null,
    })
    const { revision } = await newest(owner)
    const { body } = await owner.get<AuditEntryDetailView>(`${at}/history/${revision}`)
    expect(
      body.differences.map(each => [each.person.name, each.place.name, each.before, each.after]),
    ).toEqual(['Dunes', 'Maps', 'Map'].map(place => ['Mika', place, 0, editor]))
  })

  test('shows each reader what they may know, and nothing else of it', async () => {
    await owner.change(share(ids.secret, guest.id, reader))
    await owner.send('/changes', {
      edits: [share(ids.secret, member.id, 0b111), share(ids.page, guest.id, reader)],
      reason: 'about Hidden Nests',
    })
    const last = await newest(guest.visitor)
    expect(words([last])).toEqual(['gave Gus Reader on Map'])
    expect([last.reason, last.gains]).toEqual(['', { people: 1, places: 1 }])
    const { body } = await owner.get<AccessView>(`${at}/nodes/${ids.secret}/access`)
    const own = body.detail === 'all' ? body.grants.filter(each => each.isHere) : []
    await owner.change(...own.map(({ id }) => ({ kind: 'grant.end', grant: id })))
    const seen = JSON.stringify([await history(guest.visitor), await history(member.visitor)])
    expect(seen).toContain('gave Mika Editor on Dunes')
    expect(seen).not.toContain('Hidden')
    const hidden = await newest(owner)
    const refused = await member.visitor.get(`${at}/history/${hidden.revision}`)
    const absent = await member.visitor.get(`${at}/history/99999`)
    expect([refused.status, refused.body]).toEqual([404, absent.body])
    expect((await member.visitor.change({ kind: 'undo', revision: hidden.revision })).status).toBe(404)
  })

  test('is looked through by person, place and act, a part at a time', async () => {
    const byPerson = await history(owner, `?person=${member.id}`)
    expect(
      byPerson.every(each => each.author?.id === member.id || words([each]).join().includes('Mika')),
    ).toBe(true)
    const byPlace = await history(owner, `?place=${ids.inner}`)
    expect(byPlace.length).toBeGreaterThan(1)
    for (const entry of byPlace) expect(words([entry]).join()).toMatch(/Map/)
    await owner.change({ kind: 'node.break', node: ids.secret, mode: 'keep' })
    expect(words(await history(owner, '?category=inheritance'))).toEqual([
      'broke inheritance on Hidden Nests in Sites',
    ])
    for (let index = 0; index < 60; index += 1)
      await owner.change({ kind: 'node.describe', node: ids.page, note: `note ${index}` })
    const { body: first } = await owner.get<HistoryView>(`${at}/history`)
    const { body: rest } = await owner.get<HistoryView>(`${at}/history?before=${first.next}`)
    const revisions = [...first.entries, ...rest.entries].map(entry => entry.revision)
    expect(revisions).toEqual(
      revisions[0] === undefined ? [] : revisions.map((_, index) => (revisions[0] ?? 0) - index),
    )
    expect([revisions.at(-1), rest.next]).toEqual([1, null])
    expect((await owner.get(`${at}/history?category=nonsense`)).status).toBe(400)
  })
})

test('the history names things as they were called on its day, to whoever could read that they were renamed', async () => {
  const { server, owner, member, guest, ids } = await coast()
  const at = '/at/coast'
  const events = async (visitor: Visitor) =>
    words((await visitor.get<HistoryView>(`${at}/history`)).body.entries)
  await owner.change(share(ids.page, guest.id, reader))
  await owner.change(share(ids.folder, member.id, steward))
  await owner.change({ kind: 'node.describe', node: ids.page, name: 'Tidal Map' })
  await owner.change({ kind: 'node.describe', node: ids.inner, name: 'Charts' })
  await owner.change({ kind: 'node.describe', node: ids.page, name: 'Sea Map' })
  await member.visitor.change({ kind: 'person.describe', person: member.id, name: 'Mika Strand' })
  expect((await events(owner)).slice(0, 6)).toEqual([
    'changed the name of Mika to Mika Strand',
    'renamed Tidal Map to Sea Map',
    'renamed Maps to Charts',
    'renamed Map to Tidal Map',
    'gave Mika Steward on Dunes in Sites',
    'gave Gus Reader on Map in Maps',
  ])
  // Who shares there reads the same; whom it was given to was told the name of that day, and reads today's.
  expect(await events(member.visitor)).toContain('gave Gus Reader on Map in Maps')
  expect((await events(guest.visitor))[0]).toBe('gave Gus Reader on Sea Map')
  await server.stop()
})

describe('an undo', () => {
  test('is judged, shown before and written down like any change, and told to whose act it was', async () => {
    await member.visitor.change({
      kind: 'node.create',
      node: 'new:n',
      parent: ids.folder,
      as: 'page',
      name: 'Draft',
    })
    const { revision } = await newest(member.visitor)
    const preview = await owner.preview({ kind: 'undo', revision })
    expect(preview.leftOut).toEqual([])
    expect(preview.impact[0]?.differences.map(each => [each.person.name, each.after])).toEqual([
      ['Mika', 0],
      ['Ona', 0],
    ])
    expect((await guest.visitor.change({ kind: 'undo', revision })).status).toBe(404)
    expect((await owner.change({ kind: 'undo', revision })).status).toBe(200)
    expect(await newest(owner)).toMatchObject({
      undoes: revision,
      events: [{ text: 'removed the page Draft' }],
    })
    const undone = (await history(member.visitor)).find(each => each.revision === revision)
    expect(undone?.undoneBy).toBe((await newest(owner)).revision)
    const { body } = await member.visitor.get<NotificationsView>(`${at}/notifications`)
    expect(body.notifications[0]).toMatchObject({ kind: 'undone', isRead: false, revision })
    expect((await owner.change({ kind: 'undo', revision })).body.type).toBe(
      'urn:noskel:problem:nothing-to-undo',
    )
  })

  test('leaves out what changed again since, and says so', async () => {
    await owner.change(
      { kind: 'node.describe', node: ids.folder, name: 'Dune belt' },
      { kind: 'node.describe', node: ids.inner, name: 'Old maps' },
    )
    const { revision } = await newest(owner)
    await owner.change({ kind: 'node.describe', node: ids.inner, name: 'Maps of 1990' })
    const { leftOut } = await owner.preview({ kind: 'undo', revision })
    expect(leftOut).toEqual(['Somebody renamed Maps to Old maps: this was changed again.'])
    await owner.change({ kind: 'undo', revision })
    const { body } = await owner.get<TreeView>(`${at}/tree`)
    expect(JSON.stringify(body)).toContain('Sites')
    expect(words([await newest(owner)])).toEqual(['renamed Dune belt to Dunes'])
  })

  test('unmakes no page that has been written on, and nobody’s coming in', async () => {
    const made = await owner.change({
      kind: 'node.create',
      node: 'new:n',
      parent: ids.folder,
      as: 'page',
      name: 'Log',
    })
    const page = `${at}/nodes/${made.body.made['new:n']}/text`
    await owner.call('PUT', page, { text: 'First day', version: 0 })
    const refused = await owner.change({ kind: 'undo', revision: made.body.revision })
    expect([refused.status, refused.body.type]).toEqual([409, 'urn:noskel:problem:nothing-to-undo'])
    const cameIn = (await history(owner, `?person=${member.id}&category=people`)).find(
      each => words([each])[0] === 'joined the workspace',
    )
    expect(cameIn?.mayUndo).toBe(false)
    expect((await owner.change({ kind: 'undo', revision: cameIn?.revision })).status).toBe(422)
  })
})

describe('a change set that carries what its author saw', () => {
  test('is refused with the new effect and what others did, if it would now do something else', async () => {
    const edits = [share(ids.inner, guest.id, 0b111)]
    const { digest: preview } = await owner.preview(...edits)
    await owner.change({ kind: 'node.describe', node: ids.home, note: 'nothing to do with it' })
    const same = await owner.send('/changes/preview', { edits })
    expect(same.body).toMatchObject({ impact: [{ differences: [{ person: { name: 'Gus' } }, {}] }] })
    await member.visitor.change({
      kind: 'node.create',
      node: 'new:n',
      parent: ids.inner,
      as: 'page',
      name: 'New map',
    })
    const refused = await owner.send('/changes', { edits, preview })
    expect([refused.status, refused.body.type]).toEqual([409, 'urn:noskel:problem:preview-changed'])
    expect(refused.body.meanwhile).toEqual(['Mika created the page New map in Maps of 1990.'])
    expect(refused.body.preview?.impact[0]?.differences).toHaveLength(3)
    const again = await owner.send('/changes', { edits, preview: refused.body.preview?.digest })
    expect(again.status).toBe(200)
  })

  test('is applied if it still does the same, whatever new things are called inside', async () => {
    const edits = [
      { kind: 'node.create', node: 'new:n', parent: ids.folder, as: 'page', name: 'Tides' },
      share('new:n', guest.id, reader),
    ]
    const { digest: preview } = await owner.preview(...edits)
    await owner.change({ kind: 'node.describe', node: ids.home, note: 'again nothing to do with it' })
    expect((await owner.send('/changes', { edits, preview })).status).toBe(200)
  })
})

describe('a start or an end that passes', () => {
  test('takes effect by itself, stands in the history by the workspace, and is told a week before', async () => {
    const until = server.time.now + 30 * 86_400_000
    await owner.change(share(ids.inner, member.id, 0b1111, until))
    server.time.now = until - 6 * 86_400_000
    await owner.change({ kind: 'node.describe', node: ids.home, note: 'a write like any other' })
    const { body: notifications } = await member.visitor.get<NotificationsView>(`${at}/notifications`)
    expect(notifications.notifications[0]).toMatchObject({ kind: 'ending', place: { id: ids.inner } })
    expect((await owner.get<NotificationsView>(`${at}/notifications`)).body.notifications[0]?.text).toMatch(
      /^The access of Mika to Maps of 1990 ends after /,
    )
    server.time.now = until
    await owner.change({ kind: 'node.describe', node: ids.home, note: 'and another' })
    const [, passed] = await history(owner)
    expect(passed).toMatchObject({ author: null, at: until, mayUndo: false, losses: { people: 0 } })
    expect(words([passed as AuditEntryView])[0]).toMatch(/^ended the Adder grant of Mika on/)
    await server.restart()
    expect((await history(owner)).filter(each => each.author === null)).toHaveLength(1)
  })
})
