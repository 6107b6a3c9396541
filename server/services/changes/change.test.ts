import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { AccessView } from '#contract/views/access.ts'
import type { NodeView, PlaceChangeView, TextView, TreeItem, TreeView } from '#contract/views/content.ts'
import type { ExplanationView } from '#contract/views/explanation.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { TeamView } from '#contract/views/teams.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { invite, open, start, type TestServer, tokenFor, Visitor } from '../../tests/client.ts'
import { adder, at, type Coast, coast, editor, reader, share, steward } from '../../tests/coast.ts'

let server: TestServer
let owner: Visitor
let member: Coast['member']
let guest: Coast['guest']
let ids: Coast['ids']

beforeAll(async () => {
  ;({ server, owner, member, guest, ids } = await coast())
})

afterAll(() => server.stop())

describe('a folder shared with a guest through a date', () => {
  const until = start + 86_400_000

  test('is all that the guest finds', async () => {
    const share = {
      kind: 'grant.add',
      node: ids.folder,
      principal: `person:${guest.id}`,
      gives: reader,
      from: null,
      until,
    }
    expect((await owner.change(share)).status).toBe(200)
    const { body: tree } = await guest.visitor.get<TreeView>(`${at}/tree`)
    expect(tree).toMatchObject({ kept: null, homes: [], opened: [{ id: ids.folder, name: 'Dunes' }] })
    const { body: node } = await guest.visitor.get<NodeView>(`${at}/nodes/${ids.inner}`)
    expect(node.path).toEqual([{ id: ids.folder, name: 'Dunes' }])
    expect(node.madeBy).toBe('Ona') // her contact
  })

  test('says nothing of anything else: what is hidden answers as what is not there', async () => {
    for (const path of ['', '/children', '/changes', '/access', '/text', `/why/${guest.id}`]) {
      const hidden = await guest.visitor.get(`${at}/nodes/${ids.secret}${path}`)
      const absent = await guest.visitor.get(`${at}/nodes/nothing${path}`)
      expect([path, hidden.status, hidden.body]).toEqual([path, 404, absent.body])
    }
    const everything = await Promise.all(
      [
        '',
        '/tree',
        '/teams',
        `/nodes/${ids.folder}`,
        `/nodes/${ids.folder}/access`,
        `/nodes/${ids.folder}/why/${guest.id}`,
      ].map(path => guest.visitor.get(`${at}${path}`)),
    )
    expect(JSON.stringify(everything.map(answer => answer.body))).not.toMatch(/Hidden|Sites|Mika/)
  })

  test('tells each reader what they may know of the others', async () => {
    const { body: all } = await owner.get<AccessView>(`${at}/nodes/${ids.folder}/access`)
    expect(all).toMatchObject({ detail: 'all', people: [{ name: 'Ona' }, { name: 'Gus', actions: reader }] })
    const { body: own } = await guest.visitor.get<AccessView>(`${at}/nodes/${ids.folder}/access`)
    expect(own).toEqual({ detail: 'own', mine: reader, readers: 2, contact: 'Ona' })
  })

  test('is explained by the sum, one’s own always and that of others to those who share there', async () => {
    const { body: sum } = await owner.get<ExplanationView>(`${at}/nodes/${ids.page}/why/${guest.id}`)
    expect(sum).toMatchObject({
      person: 'Gus',
      grants: [{ actions: reader, through: 'name', at: { name: 'Dunes' }, isHere: false, by: 'Ona', until }],
      steps: [],
      result: reader,
    })
    expect(
      (await guest.visitor.get<ExplanationView>(`${at}/nodes/${ids.page}/why/${guest.id}`)).body.result,
    ).toBe(reader)
    const { id } = (await owner.get<WorkspaceView>(at)).body.me
    expect((await guest.visitor.get(`${at}/nodes/${ids.page}/why/${id}`)).status).toBe(404)
  })

  test('ends by itself at that instant', async () => {
    server.time.now = until
    expect((await guest.visitor.get(`${at}/nodes/${ids.folder}`)).status).toBe(404)
    expect((await guest.visitor.get<TreeView>(`${at}/tree`)).body.opened).toEqual([])
  })
})

describe('what a change would do', () => {
  const preview = (visitor: Visitor, edit: object) =>
    visitor.call<PreviewView>('POST', `${at}/changes/preview`, { edits: [edit] })

  test('is told before it is done, and nothing is changed by asking', async () => {
    const before = (await owner.get<WorkspaceView>(at)).body.revision
    const { body } = await preview(owner, {
      kind: 'grant.add',
      node: ids.inner,
      principal: `person:${member.id}`,
      gives: reader,
      ...open,
    })
    expect(body.impact).toMatchObject([
      {
        differences: [
          { person: { name: 'Mika' }, place: { name: 'Maps' }, before: 0, after: reader },
          { place: { name: 'Map' } },
        ],
        hiddenPlaces: 0,
      },
    ])
    expect((await owner.get<WorkspaceView>(at)).body.revision).toBe(before)
  })

  test('is refused like the change itself', async () => {
    const answer = await preview(guest.visitor, { kind: 'node.break', node: ids.secret, mode: 'empty' })
    expect(answer).toMatchObject({ status: 404, body: { title: 'There is nothing here that you can open.' } })
  })

  test('a break and a limit stand where they are set, and are found from above', async () => {
    await owner.change({
      kind: 'grant.add',
      node: ids.folder,
      principal: `person:${guest.id}`,
      gives: reader,
      ...open,
    })
    await owner.change(
      { kind: 'node.break', node: ids.inner, mode: 'keep' },
      { kind: 'limit.add', node: ids.page, principal: 'guests', allows: 1, sparesStewards: true, ...open },
    )
    const { body } = await owner.get<AccessView>(`${at}/nodes/${ids.folder}/access`)
    expect(body).toMatchObject({
      below: [
        { name: 'Maps', isBroken: true, grants: 2 },
        { name: 'Map', limits: 1 },
      ],
      moreBelow: 0,
      hiddenBelow: 0,
    })
    const limitedFor = async (who: Visitor) =>
      (await who.get<NodeView>(`${at}/nodes/${ids.inner}`)).body.limited
    expect(await limitedFor(owner)).toEqual([ids.page])
    expect(await limitedFor(guest.visitor)).toEqual([])
    const { body: sum } = await owner.get<ExplanationView>(`${at}/nodes/${ids.page}/why/${guest.id}`)
    expect(sum).toMatchObject({
      brokenAt: { name: 'Maps' },
      steps: [{ kind: 'limit', at: { name: 'Map' }, leaves: 1 }],
      result: 1,
    })
  })
})

describe('a team', () => {
  test('is there at once with its home and levels; its lead fills it', async () => {
    const { body } = await owner.change(
      {
        kind: 'team.create',
        team: 'new:team',
        home: 'new:base',
        name: 'Birds',
        note: '',
        joining: 'request',
        welcomesGuests: false,
      },
      { kind: 'member.add', team: 'new:team', person: member.id, lead: true, ...open },
      { kind: 'grant.add', node: 'new:base', principal: 'leads:new:team', gives: steward, ...open },
      {
        kind: 'grant.add',
        node: 'new:base',
        principal: 'team:new:team',
        gives: adder,
        ...open,
      },
    )
    const { body: tree } = await member.visitor.get<TreeView>(`${at}/tree`)
    expect(tree.homes).toMatchObject([
      { id: body.made['new:base'], name: 'Birds', home: 'team', actions: steward },
    ])
    const { body: sum } = await member.visitor.get<ExplanationView>(
      `${at}/nodes/${body.made['new:base']}/why/${member.id}`,
    )
    expect(sum.grants.map(each => [each.through, each.team])).toEqual([
      ['leads', 'Birds'],
      ['team', 'Birds'],
    ])
    const joining = {
      kind: 'member.add',
      team: body.made['new:team'],
      person: guest.id,
      lead: false,
      ...open,
    }
    expect((await member.visitor.change(joining)).body).toMatchObject({
      status: 422,
      title: 'This team does not allow guests.',
    })
    expect((await guest.visitor.get<TeamView[]>(`${at}/teams`)).body).toEqual([])
  })
})

describe('a page', () => {
  test('keeps its versions apart: the second of two writers is told', async () => {
    const path = `${at}/nodes/${ids.page}/text`
    expect((await owner.get<TextView>(path)).body).toEqual({
      text: '',
      version: 0,
      changedAt: null,
      changedBy: null,
    })
    const [one, two] = await Promise.all(
      ['One', 'Two'].map(text => owner.call<TextView & { type: string }>('PUT', path, { text, version: 0 })),
    )
    expect([one?.status, two?.status].sort()).toEqual([200, 409])
    const written = one?.status === 200 ? 'One' : 'Two'
    expect((await owner.get<TextView>(path)).body).toMatchObject({
      text: written,
      version: 1,
      changedBy: 'Ona',
    })
  })
})

test('a list of places tells who changed each last, as far as its reader knows them', async () => {
  const { server, owner, member, guest, ids } = await coast()
  const changes = async (visitor: Visitor, id: string) => {
    const { body } = await visitor.get<PlaceChangeView[]>(`/at/coast/nodes/${id}/changes`)
    return body.map(each => ({ ...each, at: Math.floor((each.at - start) / 60_000) }))
  }
  await owner.change(share(ids.folder, member.id, editor), share(ids.inner, guest.id, reader))
  expect(await changes(owner, ids.home)).toEqual([
    { id: ids.folder, at: 0, by: 'Ona', file: null },
    { id: ids.secret, at: 0, by: 'Ona', file: null },
  ])
  server.time.now += 60_000
  await member.visitor.change({ kind: 'node.describe', node: ids.inner, note: 'All of them' })
  expect(await changes(owner, ids.folder)).toEqual([{ id: ids.inner, at: 1, by: 'Mika', file: null }])
  server.time.now += 60_000
  await member.visitor.call('PUT', `/at/coast/nodes/${ids.page}/text`, { text: 'Sand', version: 0 })
  // A guest who does not know the member is told the day alone; access is no change of a place.
  expect(await changes(guest.visitor, ids.inner)).toEqual([{ id: ids.page, at: 2, by: null, file: null }])
  // What is deleted for good leaves nothing behind.
  await owner.change({ kind: 'node.state', node: ids.folder, binned: true })
  expect((await owner.change({ kind: 'node.delete', node: ids.folder })).status).toBe(200)
  expect((await changes(owner, ids.home)).map(each => each.id)).toEqual([ids.secret])
  await server.stop()
})

test('who is not let in now is told why; who was removed, no more than a stranger', async () => {
  const { server, owner, member, guest } = await coast()
  const refusal = async (visitor: Visitor) => {
    const { status, body } = await visitor.get<{ title: string }>('/at/coast/tree')
    return [status, body.title]
  }
  await owner.change({ kind: 'person.suspend', person: member.id })
  expect(await refusal(member.visitor)).toEqual([403, 'Your access to this workspace is suspended.'])
  await owner.change({ kind: 'person.end', person: guest.id, until: server.time.now + 1000 })
  server.time.now += 2000
  expect(await refusal(guest.visitor)).toEqual([403, 'Your access to this workspace has ended.'])
  await owner.change({ kind: 'person.remove', person: member.id })
  const stranger = await member.visitor.get('/at/nowhere/tree')
  const removed = await member.visitor.get('/at/coast/tree')
  expect([removed.status, removed.body]).toEqual([404, stranger.body])
  await server.stop()
})

test('people choose about the notifications that can reach them, and not all come by mail', async () => {
  const { server, owner, guest } = await coast()
  const choices = async (visitor: Visitor) =>
    (await visitor.get<NotificationsView>('/at/coast/notifications')).body.choices
  const [owners, guests] = [await choices(owner), await choices(guest.visitor)]
  expect(guests.map(each => each.kind)).toEqual(
    expect.arrayContaining(['opened', 'changed', 'ending', 'contact']),
  )
  for (const kind of [
    'alone',
    'recovered',
    'role requested',
    'handover offered',
    'team requested',
    'access requested',
  ])
    expect([kind, guests.some(each => each.kind === kind)]).toEqual([kind, false])
  expect(owners.some(each => each.kind === 'alone')).toBe(true)
  expect(owners.some(each => each.kind === 'contact')).toBe(false)
  expect(owners.find(each => each.kind === 'opened')?.choice).toBe('by mail too')
  expect(owners.find(each => each.kind === 'changed')?.choice).toBe('here only')
  await server.stop()
})

describe('somebody without the right', () => {
  const refusals: [string, () => object, string][] = [
    ['inviting', () => invite('x@test.example'), 'None of your roles has the privilege “invite members”.'],
    [
      'inviting a guest',
      () => invite('x@test.example', { as: 'guest' }),
      'None of your roles has the privilege “invite guests”.',
    ],
    [
      'making a team',
      () => ({
        kind: 'team.create',
        team: 'new:t',
        home: 'new:h',
        name: 'T',
        note: '',
        joining: 'open',
        welcomesGuests: true,
      }),
      'None of your roles has the privilege “create teams”.',
    ],
    [
      'making a home',
      () => ({ kind: 'home.create', node: 'new:h', name: 'H' }),
      'None of your roles has the privilege “create homes”.',
    ],
    [
      'adding where nothing is open',
      () => ({ kind: 'node.create', node: 'new:n', parent: ids.home, as: 'page', name: 'P' }),
      'There is nothing here that you can open.',
    ],
    [
      'sharing where nothing is open',
      () => ({ kind: 'grant.add', node: ids.secret, principal: 'everyone', gives: reader, ...open }),
      'There is nothing here that you can open.',
    ],
  ]

  test.each(refusals)(
    'is refused %s, in a clear sentence, and nothing changes',
    async (_act, edit, title) => {
      const before = (await owner.get<WorkspaceView>(at)).body.revision
      const answer = await member.visitor.change(edit())
      expect(answer.body).toMatchObject({ title, edit: 0 })
      expect(answer.headers.get('content-type')).toContain('application/problem+json')
      expect((await owner.get<WorkspaceView>(at)).body.revision).toBe(before)
    },
  )

  test('does not take part of a change set: all of it is applied or none', async () => {
    const fine = { kind: 'node.create', node: 'new:n', parent: ids.home, as: 'page', name: 'Half' }
    const answer = await owner.change(fine, {
      kind: 'grant.add',
      node: 'new:n',
      principal: 'guests',
      gives: reader,
      ...open,
    })
    expect(answer.body).toMatchObject({ status: 422, edit: 1 })
    const { body } = await owner.get<TreeItem[]>(`${at}/nodes/${ids.home}/children`)
    expect(body.map(child => child.name)).toEqual(['Dunes', 'Hidden Nests'])
  })
})

test('200 writes sent at once all succeed, or are refused for a reason of their own', async () => {
  const writes = Array.from({ length: 200 }, (_, index) =>
    index % 4 === 0
      ? owner.change({
          kind: 'node.create',
          node: 'new:n',
          parent: ids.page,
          as: 'row',
          name: `Row ${index}`,
        })
      : owner.change({
          kind: 'node.create',
          node: 'new:n',
          parent: ids.secret,
          as: 'page',
          name: `Page ${index}`,
        }),
  )
  const answers = await Promise.all(writes)
  const wrong = answers.filter(answer => answer.status !== 200)
  expect(wrong.map(answer => answer.body.type)).toEqual(
    Array<string>(50).fill('urn:noskel:problem:wrong-place'),
  )
  const revisions = answers.flatMap(answer => (answer.status === 200 ? answer.body.revision : []))
  expect(new Set(revisions).size).toBe(150)
  const { body } = await owner.get<TreeItem[]>(`${at}/nodes/${ids.secret}/children`)
  expect(body).toHaveLength(150)
})

test('everything is as it was after a restart', async () => {
  const read = async () => {
    const paths = ['', '/people', '/teams', '/tree', `/nodes/${ids.folder}/access`, `/nodes/${ids.page}/text`]
    return Promise.all(paths.map(async path => (await owner.get(`${at}${path}`)).body))
  }
  const before = await read()
  await server.restart()
  expect(await read()).toEqual(before)
})

test('an invitation can be taken back or sent anew; then its earlier link is dead', async () => {
  const invited = await owner.change(invite('late@test.example', { name: 'Late Comer' }))
  const id = invited.body.made['new:person'] ?? ''
  const first = await tokenFor(owner, 'late@test.example')
  const stranger = new Visitor(server)
  const look = (token: string) => stranger.call('POST', '/invitations/read', { token })
  expect(await look(first)).toMatchObject({
    status: 200,
    body: { by: 'Ona', workspace: 'Coast', as: 'member', hasAccount: false },
  })
  await owner.change({ kind: 'invitation.renew', person: id })
  expect(await look(first)).toMatchObject({ status: 404, body: { type: 'urn:noskel:problem:dead-link' } })
  await owner.change({ kind: 'invitation.withdraw', person: id })
  const { body: people } = await owner.get<PageView<PersonView>>(`${at}/people`)
  expect(people.items.map(each => each.name)).toEqual(['Gus', 'Mika', 'Ona'])
})
