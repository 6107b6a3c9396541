import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { ColumnAccessView } from '#contract/views/access.ts'
import type { ColumnView } from '#contract/views/boards.ts'
import type { BinnedView, NodeView, TextView } from '#contract/views/content.ts'
import type { CheckedView } from '#contract/views/explanation.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { open, type TestServer, type Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, editor, reader, share, steward } from '../../tests/coast.ts'

/** What was made, written and deleted, and who came and went, over HTTP and after a restart. */
let server: TestServer
let owner: Visitor
let ownerId: string
let member: Coast['member']
let guest: Coast['guest']
let ids: Coast['ids']

beforeAll(async () => {
  ;({ server, owner, ownerId, member, guest, ids } = await coast())
})

afterAll(() => server.stop())

const node = async (id: string) => (await owner.get<NodeView>(`${at}/nodes/${id}`)).body
const text = async (id: string) => (await owner.get<TextView>(`${at}/nodes/${id}/text`)).body
const write = (id: string, words: string, version = 0) =>
  owner.call('PUT', `${at}/nodes/${id}/text`, { text: words, version })

describe('a duplicate', () => {
  test('has the newest text of every page, as its own first', async () => {
    await write(ids.page, 'old')
    await write(ids.page, 'Here be dunes', 1)
    const copying = { kind: 'node.duplicate', node: ids.inner, parent: ids.home, name: 'Maps, copy' }
    // What is seen first is what is done, though each asking makes new ids.
    const { digest: preview } = await owner.preview(copying)
    const done = await owner.call('POST', `${at}/changes`, { preview, edits: [copying] })
    expect(done.status).toBe(200)
    const copy = (await node(ids.home)).children.find(each => each.name === 'Maps, copy')
    const [page] = (await node(copy?.id ?? '')).children
    expect([page?.name, page?.kind]).toEqual(['Map', 'page'])
    expect(await text(page?.id ?? '')).toMatchObject({ text: 'Here be dunes', version: 1, changedBy: 'Ona' })
    await write(page?.id ?? '', 'Another', 1)
    expect((await text(ids.page)).text).toBe('Here be dunes')
  })

  test('needs copy there and add where it goes', async () => {
    const copying = { kind: 'node.duplicate', node: ids.inner, parent: ids.home, name: 'Maps' }
    expect((await member.visitor.change(copying)).status).toBe(404)
  })
})

describe('the bin', () => {
  const bin = async (visitor = owner) => (await visitor.get<BinnedView[]>(`${at}/bin`)).body

  test('tells since when and until when, and is emptied for good with all that is written', async () => {
    const made = await owner.change({
      kind: 'node.create',
      node: 'new:old',
      parent: ids.home,
      as: 'page',
      name: 'Old',
    })
    const old = made.body.made['new:old'] ?? ''
    await write(old, 'gone soon')
    await owner.change({ kind: 'node.state', node: old, binned: true })
    const [binned] = await bin()
    expect(binned).toMatchObject({ id: old, by: 'Ona', mayDelete: true })
    expect(((binned?.until ?? 0) - (binned?.at ?? 0)) / 86_400_000).toBe(30)
    expect((await owner.change({ kind: 'node.delete', node: old })).status).toBe(200)
    expect(await bin()).toEqual([])
    const undoing = await owner.change({ kind: 'undo', revision: made.body.revision + 2 })
    expect(undoing.status).toBe(422)
  })

  test('empties itself after thirty days, as an entry of the history by the workspace', async () => {
    const made = await owner.change(
      { kind: 'node.create', node: 'new:f', parent: ids.home, as: 'folder', name: 'Driftwood' },
      { kind: 'node.create', node: 'new:p', parent: 'new:f', as: 'page', name: 'Log' },
    )
    await write(made.body.made['new:p'] ?? '', 'words')
    await owner.change({ kind: 'node.state', node: made.body.made['new:f'], binned: true })
    server.time.now += 30 * 86_400_000
    await server.restart()
    await expect.poll(async () => (await bin()).length, { timeout: 5000 }).toBe(0)
    const { body } = await owner.get(`${at}/history`)
    expect(JSON.stringify(body)).toContain('deleted the folder Driftwood for good')
    expect((await owner.get(`${at}/nodes/${made.body.made['new:p']}`)).status).toBe(404)
  })
})

describe('restricted columns', () => {
  test('are known to those named and to stewards only, and are part of the effect of a change', async () => {
    await owner.change(share(ids.folder, member.id, editor))
    const made = await owner.change(
      { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Permits' },
      {
        kind: 'column.create',
        column: 'new:date',
        board: 'new:board',
        name: 'Date',
        as: 'text',
        settings: {},
        order: 0,
        viewers: null,
        editors: null,
      },
      {
        kind: 'column.create',
        column: 'new:fees',
        board: 'new:board',
        name: 'Fees',
        as: 'text',
        settings: {},
        order: 1,
        viewers: [],
        editors: null,
      },
    )
    expect(made.status).toBe(200)
    const [board = '', fees = ''] = [made.body.made['new:board'], made.body.made['new:fees']]
    const seen = async (visitor: Visitor) =>
      (await visitor.get<ColumnView[]>(`${at}/nodes/${board}/columns`)).body.map(each => each.name)
    expect([await seen(owner), await seen(member.visitor)]).toEqual([['Date', 'Fees'], ['Date']])
    const asking = async (visitor: Visitor) => {
      const questions = [{ person: member.id, place: board, column: fees }]
      const { body } = await visitor.call<CheckedView>('POST', `${at}/check`, { questions })
      return body.answers[0]?.column
    }
    expect([await asking(owner), await asking(member.visitor)]).toEqual(['none', 'none'])
    const opening = { kind: 'column.change', column: fees, viewers: [`person:${member.id}`] }
    const preview = await owner.preview(opening)
    expect(preview.impact[0]?.columns).toMatchObject([
      { person: { name: 'Mika' }, column: { name: 'Fees' }, before: 'none', after: 'edit' },
    ])
    expect((await member.visitor.change(opening)).body).toMatchObject({ status: 404 })
    expect((await owner.change(opening)).status).toBe(200)
    expect(await seen(member.visitor)).toEqual(['Date', 'Fees'])
    const people = `${at}/nodes/${board}/columns/${fees}/people`
    const { body } = await owner.get<PageView<ColumnAccessView>>(people)
    expect(body.items).toEqual([
      { id: member.id, name: 'Mika', access: 'edit' },
      { id: ownerId, name: 'Ona', access: 'edit' },
    ])
    expect((await member.visitor.get(people)).status).toBe(404)
    await server.restart()
    expect(await seen(member.visitor)).toEqual(['Date', 'Fees'])
  })
})

describe('roles, channels and seats', () => {
  test('a role of one’s own is made, given over a team, and gone from its holder when it is taken', async () => {
    const made = await owner.change(
      {
        kind: 'team.create',
        team: 'new:t',
        home: 'new:h',
        name: 'Boats',
        note: '',
        joining: 'open',
        welcomesGuests: false,
      },
      { kind: 'member.add', team: 'new:t', person: ownerId, lead: true, from: null, until: null },
      { kind: 'grant.add', node: 'new:h', principal: 'leads:new:t', gives: steward, from: null, until: null },
      { kind: 'channel.create', channel: 'new:c', team: 'new:t', name: 'general', note: '', only: null },
      {
        kind: 'channel.create',
        channel: 'new:d',
        team: 'new:t',
        name: 'engines',
        note: '',
        only: [`person:${ownerId}`],
      },
      {
        kind: 'role.create',
        role: 'new:r',
        name: 'Helper',
        note: '',
        rank: 20,
        privileges: ['remove'],
        addressable: false,
        seatExempt: false,
      },
      {
        kind: 'role.assign',
        person: member.id,
        role: 'new:r',
        scope: { over: 'team', team: 'new:t' },
        from: null,
        until: null,
      },
    )
    expect([made.status, made.body]).toMatchObject([200, {}])
    const { body: mika } = await owner.get<PersonView>(`${at}/people/${member.id}`)
    expect(mika.managed?.roles.map(({ name, over }) => [name, over])).toContainEqual(['Helper', 'Boats'])
    await member.visitor.change({
      kind: 'member.add',
      team: made.body.made['new:t'],
      person: member.id,
      lead: false,
      from: null,
      until: null,
    })
    const teams = async (visitor: Visitor) => (await visitor.get<TeamView[]>(`${at}/teams`)).body
    const channels = async (visitor: Visitor) =>
      (await teams(visitor)).flatMap(team => team.channels.map(each => each.name))
    expect([await channels(owner), await channels(member.visitor)]).toEqual([
      ['engines', 'general'],
      ['general'],
    ])
    const deleting = { kind: 'role.delete', role: made.body.made['new:r'] }
    expect((await owner.change(deleting)).body).toMatchObject({ type: 'urn:noskel:problem:in-use' })
    const holding = mika.managed?.roles.find(each => each.name === 'Helper')?.id
    expect((await owner.change({ kind: 'role.unassign', holding })).status).toBe(200)
    expect((await owner.change(deleting)).status).toBe(200)
  })

  test('past the last seat nobody is invited, and it is said', async () => {
    await owner.change({ kind: 'seats.change', seats: 2 })
    const inviting = {
      kind: 'person.invite',
      person: 'new:i',
      mail: 'i@test.example',
      name: '',
      as: 'member',
      role: null,
      scope: { over: 'workspace' },
      until: null,
      message: '',
    }
    expect((await owner.change(inviting)).body).toMatchObject({
      status: 409,
      title: 'This needs 1 seat, and 0 are free.',
    })
    expect((await owner.change({ ...inviting, as: 'guest' })).status).toBe(200)
    await owner.change({ kind: 'seats.change', seats: null })
  })
})

describe('leaving', () => {
  test('the only steward leaves: all Owners are told, access is recovered, and that is told too', async () => {
    const made = await owner.change(
      { kind: 'home.create', node: 'new:home', name: 'Alone' },
      share('new:home', member.id, steward),
    )
    const home = made.body.made['new:home'] ?? ''
    const recovering = { kind: 'access.recover', node: home, taker: ownerId, limits: [] }
    expect((await owner.change(recovering)).body).toMatchObject({ type: 'urn:noskel:problem:has-steward' })
    expect((await owner.change({ kind: 'person.remove', person: member.id })).status).toBe(200)
    const notifications = async () =>
      JSON.stringify((await owner.get<NotificationsView>(`${at}/notifications`)).body)
    expect(await notifications()).toContain(
      'There is no active steward any more on 1 place that you do not see.',
    )
    expect((await member.visitor.get(`${at}/tree`)).status).toBe(404)
    expect((await owner.get(`${at}/nodes/${home}`)).status).toBe(404)
    expect((await owner.change(recovering)).status).toBe(200)
    expect((await node(home)).name).toBe('Alone')
    expect(await notifications()).toContain('Ona recovered access to Alone.')
    const { body: history } = await owner.get(`${at}/history`)
    expect(JSON.stringify(history)).toContain('removed Mika from the workspace')
  })

  test('a guest becomes a member with a private folder, and a guest again without it', async () => {
    const turning = (as: string) => ({ kind: 'person.convert', person: guest.id, as, taker: null })
    const kept = async () => (await guest.visitor.get<{ kept: unknown }>(`${at}/tree`)).body.kept
    expect(await kept()).toBe(null)
    expect((await owner.change(turning('member'))).status).toBe(200)
    expect(await kept()).toMatchObject({ name: 'My private folder' })
    expect((await owner.change(turning('guest'))).status).toBe(200)
    expect(await kept()).toBe(null)
    expect((await owner.change(share(ids.folder, guest.id, reader))).status).toBe(200)
    expect((await guest.visitor.get(`${at}/nodes/${ids.folder}`)).status).toBe(200)
  })
})

test('a team is deleted thirty days after it was archived, with its home and what is written there', async () => {
  const { body } = await owner.change(
    {
      kind: 'team.create',
      team: 'new:team',
      home: 'new:teamhome',
      name: 'Old campaign',
      note: '',
      joining: 'open',
      welcomesGuests: false,
    },
    { kind: 'member.add', team: 'new:team', person: ownerId, lead: true, ...open },
    { kind: 'grant.add', node: 'new:teamhome', principal: 'leads:new:team', gives: steward, ...open },
    { kind: 'node.create', node: 'new:teampage', parent: 'new:teamhome', as: 'page', name: 'Old words' },
  )
  const team = body.made['new:team']
  const page = body.made['new:teampage'] ?? ''
  expect((await write(page, 'Words')).status).toBe(200)
  await owner.change({ kind: 'team.archive', team, archived: true })
  expect((await owner.change({ kind: 'team.delete', team })).body.type).toBe('urn:noskel:problem:too-early')
  server.time.now += 31 * 864e5
  expect((await owner.change({ kind: 'team.delete', team })).status).toBe(200)
  expect((await owner.get(`${at}/nodes/${page}`)).status).toBe(404)
  await server.restart()
  expect(JSON.stringify((await owner.get(`${at}/teams`)).body)).not.toContain('Old campaign')
})
