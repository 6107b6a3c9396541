import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { editSchemas } from '#contract/edit-requests.ts'
import type { AccessView, PlaceAccessView } from '#contract/views/access.ts'
import type { JoinLinkView, OnboardingView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { RequestView, RequestsView } from '#contract/views/requests.ts'
import { type Answer, open, Visitor, welcome } from './tests/client.ts'
import {
  at,
  type Coast,
  coast,
  editor,
  offer,
  reader,
  share,
  steward,
  teamOf,
  onboarding,
} from './tests/coast.ts'

/**
 * What somebody may not know of answers, to the byte but for the id that was asked for, like what is not there: every
 * kind of edit with every id in it, and every address that names something, as four kinds of people.
 */

type Ids = Readonly<Record<string, string>>

interface Asker {
  readonly visitor: Visitor
  readonly id: string
  /** By what it is, an id that this one may not know of. */
  readonly hidden: Ids
  /** And one that this one knows. */
  readonly known: Ids
}

let world: Coast
let askers: Record<'member' | 'guest' | 'lead' | 'steward', Asker>

const made = async (visitor: Visitor, ...edits: object[]) => {
  const { status, body } = await visitor.change(...edits)
  if (status !== 200) throw new Error(JSON.stringify(body))
  return body.made
}

const roleOf = (id: string, name: string, privileges: string[]) => ({
  kind: 'role.create',
  role: `new:${id}`,
  name,
  note: '',
  rank: 30,
  privileges,
  addressable: false,
  seatExempt: false,
})

beforeAll(async () => {
  world = await coast()
  const { server, owner, ownerId, member, guest, ids } = world
  const lead = await welcome(server, owner, { name: 'Lea', role: 'role-people-lead' })
  const keeper = await welcome(server, owner, { name: 'Sia' })
  const other = await welcome(server, owner, { name: 'Oto' })
  const roles = await made(
    owner,
    roleOf('plain', 'Plain', []),
    roleOf('own', 'Keeper of boats', ['moderate']),
  )
  const everywhere = { scope: { over: 'workspace' }, ...open }
  const things = await made(
    owner,
    ...teamOf(ownerId, { name: 'Steering', joining: 'unlisted' }),
    { kind: 'channel.create', channel: 'new:channel', team: 'new:team', name: 'C', note: '', only: null },
    { kind: 'node.create', node: 'new:board', parent: ids.secret, as: 'board', name: 'B' },
    { kind: 'node.create', node: 'new:seen', parent: ids.folder, as: 'board', name: 'Seen' },
    {
      kind: 'column.create',
      column: 'new:column',
      board: 'new:seen',
      name: 'Fees',
      order: 0,
      viewers: [`person:${ownerId}`],
      editors: null,
    },
    ...onboarding,
    { kind: 'limit.add', node: ids.secret, principal: 'guests', allows: 0, sparesStewards: true, ...open },
    {
      kind: 'limit.add',
      node: ids.folder,
      principal: 'guests',
      allows: reader,
      sparesStewards: true,
      ...open,
    },
    { kind: 'watch.begin', node: ids.home },
    { kind: 'handover.offer', to: other.id, keeps: 'role-member', reason: '' },
    { kind: 'role.assign', person: ownerId, role: roles['new:own'] ?? '', ...everywhere },
    share(ids.secret, other.id, reader),
    share(ids.folder, member.id, editor),
    share(ids.folder, guest.id, reader),
    share(ids.folder, keeper.id, steward),
  )
  const crew = await made(owner, ...teamOf(ownerId, { name: 'Crew' }))
  for (const wants of [
    { of: 'team', team: crew['new:team'] },
    { of: 'access', node: ids.folder, actions: steward },
    { of: 'privilege', privilege: 'suspend' },
  ])
    await made(other.visitor, { kind: 'request.make', wants, reason: '' })
  const access = async (node: string) =>
    (await owner.get<AccessView & { detail: 'all' }>(`${at}/nodes/${node}/access`)).body
  const secret = await access(ids.secret)
  const folder = await access(ids.folder)
  const { body: requests } = await owner.get<RequestsView>(`${at}/requests`)
  const requestFor = (of: string) => requests.toDecide.find(each => each.wants.of === of)?.id ?? ''
  const { body: owners } = await owner.get<{ offered: { id: string }[] }>(`${at}/owners`)
  const { body: ona } = await owner.get<PersonView>(`${at}/people/${ownerId}`)
  const hidden: Ids = {
    holdings: ona.managed?.roles[0]?.id ?? '',
    nodes: ids.secret,
    grants: secret.grants.find(each => each.isHere)?.id ?? '',
    limits: secret.limits.find(each => each.isHere)?.id ?? '',
    teams: things['new:team'] ?? '',
    channels: things['new:channel'] ?? '',
    columns: things['new:column'] ?? '',
    welcomeSets: things['new:welcome'] ?? '',
    joinLinks: things['new:link'] ?? '',
    roles: roles['new:own'] ?? '',
    watches: (await access(ids.home)).watch ?? '',
    'requests to join': requestFor('team'),
    'requests for access': requestFor('access'),
    'requests for a role': requestFor('privilege'),
    handovers: JSON.stringify(owners).match(/"handovers?":.*?"id":"([a-z0-9]+)"/)?.[1] ?? '',
  }
  const ofKeeper = folder.grants.find(each => each.principal === `person:${keeper.id}`)?.id ?? ''
  const known: Ids = { nodes: ids.folder, persons: member.id, roles: 'role-member', teams: 'none' }
  const without = (...names: string[]) =>
    Object.fromEntries(Object.entries(hidden).filter(([name, id]) => id !== '' && !names.includes(name)))
  askers = {
    member: { ...member, hidden: { ...without(), ofFolder: ofKeeper }, known },
    guest: {
      ...guest,
      hidden: { ...without(), persons: other.id, ofFolder: ofKeeper },
      known: { ...known, persons: guest.id },
    },
    lead: {
      ...lead,
      // Who looks after people and teams is told of their roles, and who asks to be let in.
      hidden: without(
        'teams',
        'channels',
        'welcomeSets',
        'joinLinks',
        'roles',
        'holdings',
        'requests to join',
      ),
      known: { ...known, nodes: ids.folder },
    },
    // Who shares at a board sees all its columns, and who asks for access there.
    steward: { ...keeper, hidden: without('columns', 'requests for access'), known },
  }
  expect(Object.values(hidden).filter(id => id === '')).toEqual([])
}, 60_000)

afterAll(() => world.server.stop())

const asking = (node: string) => ({
  kind: 'request.make',
  wants: { of: 'access', node, actions: reader },
  reason: 'Please',
})

/** As long as an id, and nothing's. */
const absent = '0000absent0000000000000000'

interface Schema {
  readonly type?: string
  readonly const?: unknown
  readonly names?: string
  readonly makes?: string
  readonly format?: string
  readonly pattern?: string
  readonly minimum?: number
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly items?: Schema
  readonly anyOf?: readonly Schema[]
}

interface Filling {
  readonly fill: (names: string, path: string) => unknown
  /** Of several forms the one that has this is chosen. */
  readonly aim: string
}

/** A value that fits, all fields said, filled with an id wherever something is named. */
function sample(schema: Schema, fill: Filling, path = ''): unknown {
  if ('const' in schema) return schema.const
  if (schema.names !== undefined) return fill.fill(schema.names, path)
  if (schema.makes !== undefined) return `new:${path.replaceAll(/[^a-z]/g, '') || 'x'}`
  if (schema.anyOf !== undefined) {
    const aimed = schema.anyOf.find(each => namesIn(each, path).some(name => name.path === fill.aim))
    const named = schema.anyOf.find(each => namesIn(each).length > 0)
    return sample(aimed ?? named ?? schema.anyOf.find(each => each.type !== 'null') ?? {}, fill, path)
  }
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).map(([field, each]) => [
          field,
          sample(each, fill, within(path, field)),
        ]),
      )
    case 'array': {
      const item = schema.items === undefined ? undefined : sample(schema.items, fill, path)
      return namesIn(schema.items ?? {}).length > 0 ? [item] : []
    }
    case 'boolean':
      return true
    case 'integer':
    case 'number':
      return Math.max(schema.minimum ?? 0, 1)
    default:
      return schema.format === 'email' ? 'a@test.example' : 'ab'
  }
}

/** Where a schema names something, and what. */
function namesIn(schema: Schema, path = ''): { names: string; path: string }[] {
  const { names, anyOf = [], items, properties = {} } = schema
  return [
    ...(names === undefined ? [] : [{ names, path }]),
    ...anyOf.flatMap(each => namesIn(each, path)),
    ...(items === undefined ? [] : namesIn(items, path)),
    ...Object.entries(properties).flatMap(([field, each]) => namesIn(each, within(path, field))),
  ]
}

const within = (path: string, field: string) => (path === '' ? field : `${path}.${field}`)

/** An answer without the id that was asked for, and what no two answers share. */
const textOf = (body: unknown, id: string): string =>
  JSON.stringify(body)
    .replaceAll(id, 'X')
    .replaceAll(/"(at|revision)":\d+|"seen":"[^"]*"|"new:[^}]*/g, '')

const filled = (asker: Asker, names: string) =>
  names === 'principal' ? `person:${asker.known.persons}` : (asker.known[names] ?? absent)

const principals = (id: Ids) => [
  ...(id.persons === undefined ? [] : [`person:${id.persons}`]),
  ...(id.teams === undefined ? [] : [`team:${id.teams}`, `leads:${id.teams}`]),
]

/** The hidden ids that could stand where something is named. */
function hiddenFor(asker: Asker, names: string): string[] {
  if (names === 'principal') return principals(asker.hidden)
  const also = names === 'grants' ? ['ofFolder'] : names === 'requests' ? requestKinds : []
  return [names, ...also].flatMap(each => asker.hidden[each] ?? [])
}

const requestKinds = ['requests to join', 'requests for access', 'requests for a role']

/** Whoever is in a workspace may know of each of these. */
const hiddenFromNobody: readonly string[] = ['levels', 'pictures']

const cases = Object.entries(editSchemas).flatMap(([kind, schema]) =>
  namesIn(schema as Schema)
    .filter(({ names }) => !hiddenFromNobody.includes(names))
    .map(({ names, path }) => ({ kind, names, path, schema })),
)

describe.each(['member', 'guest', 'lead', 'steward'] as const)('to a %s', who => {
  test.each(cases)('$kind by $path', async ({ names, path, schema }) => {
    const asker = askers[who]
    for (const id of hiddenFor(asker, names)) {
      const withId = (as: string) =>
        sample(schema, { fill: (each, at) => (at === path ? as : filled(asker, each)), aim: path })
      const nothing = id.replace(/[a-z0-9]{20,}$/, absent)
      for (const where of ['/changes/preview', '/changes']) {
        const [one, two] = [
          await asker.visitor.send(where, { edits: [withId(id)] }),
          await asker.visitor.send(where, { edits: [withId(nothing)] }),
        ]
        expect([two.status, textOf(two.body, nothing)]).toEqual([one.status, textOf(one.body, id)])
        expect(one.status).toBeGreaterThanOrEqual(400)
      }
    }
  })

  test('access that is asked for by an address, which names nothing', async () => {
    const { visitor, hidden } = askers[who]
    for (const where of ['/changes/preview', '/changes']) {
      const ask = (node: string) => visitor.send(where, { edits: [asking(node)] })
      const [one, two] = [await ask(hidden.nodes ?? ''), await ask(absent)]
      expect([one.status, textOf(one.body, hidden.nodes ?? '')]).toEqual([200, textOf(two.body, absent)])
    }
  })

  test('every address that names something', async () => {
    const asker = askers[who]
    const self = asker.id
    const now = world.server.time.now
    const addresses: readonly (readonly [names: string, path: (id: string) => string])[] = [
      ...[
        ...['', '/children', '/changes', '/access', '/text', '/text/versions', '/text/versions/1'],
        ...['/people', '/own-access', '/move-targets?find=a', '/columns'],
      ].map(part => ['nodes', (id: string) => `/nodes/${id}${part}`] as const),
      ['nodes', id => `/nodes/${id}/people?at=${now - 5}`],
      ['nodes', id => `/nodes/${id}/why/${self}`],
      ['nodes', id => `/nodes/${id}/why-not/${self}/change`],
      ['nodes', id => `/nodes/${id}/access-to-copy?from=${world.ids.folder}&what=people`],
      ['nodes', id => `/nodes/${world.ids.folder}/access-to-copy?from=${id}&what=people`],
      ['nodes', id => `/history?place=${id}`],
      ['nodes', id => `/diff?from=0&to=${now}&place=${id}`],
      ['nodes', id => `/grants?places=${id}`],
      ['nodes', id => `/check/places?find=${id}`],
      ['nodes', id => `/places?find=${id}`],
      ['columns', id => `/nodes/${world.ids.folder}/columns/${id}/people`],
      ['persons', id => `/history?person=${id}`],
      ['persons', id => `/diff?from=0&to=${now}&person=${id}`],
      ['persons', id => `/grants?principal=person:${id}`],
      ['persons', id => `/nodes/${world.ids.folder}/why/${id}`],
      ['persons', id => `/nodes/${world.ids.folder}/why-not/${id}/change`],
      ...['', '/places', '/access', '/offboarding', '/roles-to-assign'].map(
        part => ['persons', (id: string) => `/people/${id}${part}`] as const,
      ),
      ['persons', id => `/people/${id}/places?at=${now - 5}`],
      ['teams', id => `/grants?principal=team:${id}`],
      ['teams', id => `/people?team=${id}`],
      ['roles', id => `/people?role=${id}`],
      ['roles', id => `/roles/${id}/holders`],
    ]
    for (const [names, path] of addresses) {
      const id = asker.hidden[names]
      if (id === undefined) continue
      const [one, two] = [
        await asker.visitor.get(`${at}${path(id)}`),
        await asker.visitor.get(`${at}${path(absent)}`),
      ]
      expect([path(id), two.status, textOf(two.body, absent)]).toEqual([
        path(id),
        one.status,
        textOf(one.body, id),
      ])
    }
    const questions = (id: string) => ({ questions: [{ person: self, place: id }] })
    const [one, two] = [
      await asker.visitor.send('/check', questions(world.ids.secret)),
      await asker.visitor.send('/check', questions(absent)),
    ]
    expect([one.status, one.body]).toEqual([two.status, two.body])
  })

  test('what an offer names', async () => {
    const asker = askers[who]
    const offers: Readonly<Record<string, (id: string) => object>> = {
      roles: id => ({ ...offer, role: id }),
      teams: id => ({ ...offer, teams: [id] }),
      nodes: id => ({ ...offer, places: [{ node: id, gives: reader }] }),
    }
    for (const [names, offerOf] of Object.entries(offers)) {
      const id = asker.hidden[names]
      if (id === undefined) continue
      const look = (as: string) => asker.visitor.send('/people/offer-preview', { offer: offerOf(as) })
      const [one, two] = [await look(id), await look(absent)]
      expect([one.status, one.body]).toEqual([two.status, two.body])
    }
  })
})

test('what is asked for, declined and asked again is answered alike whether its place is there or not', async () => {
  const { owner, ids } = world
  const { visitor } = askers.member
  const ask = (node: string) => visitor.change(asking(node))
  const both = async (act: (node: string) => Promise<Answer>) => {
    const [one, two] = [await act(ids.secret), await act(absent)]
    expect([one.status, textOf(one.body, ids.secret)]).toEqual([two.status, textOf(two.body, absent)])
    return one.status
  }
  const waiting = async () => (await owner.get<RequestsView>(`${at}/requests`)).body.toDecide
  // It was asked for once above.
  expect(await both(ask)).toBe(409)
  const isMine = (each: RequestView) => each.person.id === askers.member.id && each.wants.of === 'access'
  const decline = { kind: 'request.decline', request: (await waiting()).find(isMine)?.id, comment: 'No' }
  expect((await owner.change(decline)).status).toBe(200)
  for (const part of ['/requests', '/notifications', '/me/access', '/history']) {
    const { body } = await visitor.get(`${at}${part}`)
    expect([part, JSON.stringify(body).includes('Hidden Nests')]).toEqual([part, false])
  }
  expect(await both(ask)).toBe(409)
})

test('of an earlier instant nobody is told more than now', async () => {
  const { server, owner, member, ids } = world
  const other = await made(
    owner,
    { kind: 'node.create', node: 'new:once', parent: ids.folder, as: 'folder', name: 'Once open' },
    { kind: 'node.create', node: 'new:gone', parent: ids.folder, as: 'folder', name: 'Gone by now' },
  )
  const once = other['new:once'] ?? ''
  const gone = other['new:gone'] ?? ''
  const then = server.time.now
  server.time.now += 1000
  await made(owner, { kind: 'node.break', node: once, mode: 'empty' })
  await made(owner, { kind: 'node.describe', node: once, name: 'Closed since' })
  await made(owner, { kind: 'node.state', node: gone, binned: true })
  await made(owner, { kind: 'node.delete', node: gone })
  // What is made now takes the place that has become free.
  await made(owner, {
    kind: 'node.create',
    node: 'new:later',
    parent: ids.folder,
    as: 'folder',
    name: 'Later',
  })
  const { body } = await member.visitor.get<PageView<PlaceAccessView>>(
    `${at}/people/${member.id}/places?at=${then}`,
  )
  const names = body.items.map(each => each.name)
  expect([names.includes('Dunes'), body.total]).toEqual([true, names.length])
  const { body: history } = await member.visitor.get(`${at}/history`)
  const { body: diff } = await member.visitor.get(`${at}/diff?from=0&to=${server.time.now}`)
  const { body: people } = await member.visitor.get(`${at}/nodes/${once}/people?at=${then}`)
  for (const text of [names.join(), JSON.stringify([history, diff, people])])
    for (const secret of ['Once open', 'Closed since', 'Gone by now', 'Later,', once, gone])
      expect([text.includes(secret), secret]).toEqual([false, secret])
  const { body: own } = await owner.get<PageView<PlaceAccessView>>(
    `${at}/people/${member.id}/places?at=${then}`,
  )
  expect(own.items.map(each => each.name)).toContain('Closed since')
})

test('a link that is not one’s own to pass on has no address', async () => {
  const { body } = await askers.lead.visitor.get<OnboardingView>(`${at}/onboarding`)
  const links: readonly JoinLinkView[] = body.joinLinks
  expect(links.map(each => each.mayChange)).toEqual([false])
})
