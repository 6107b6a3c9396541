import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { editSchemas } from '#contract/edit-requests.ts'
import type { PlaceAccessView } from '#contract/views/access.ts'
import type { JoinLinkView, OnboardingView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { RequestView, RequestsView } from '#contract/views/requests.ts'
import { absent, type Asker, type Askers, askersOf, type Ids, made, textOf } from './tests/askers.ts'
import type { Answer } from './tests/client.ts'
import { at, type Coast, coast, offer, reader } from './tests/coast.ts'

/**
 * What somebody may not know of answers, to the byte but for the id that was asked for, like what is not there: every
 * kind of edit with every id in it, and every address that names something, as four kinds of people.
 */

let world: Coast
let askers: Askers

beforeAll(async () => {
  world = await coast()
  askers = await askersOf(world)
}, 90_000)

afterAll(() => world.server.stop())

const asking = (node: string) => ({
  kind: 'request.make',
  wants: { of: 'access', node, actions: reader },
  reason: 'Please',
})

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
        ...['/people', '/own-access', '/move-targets?find=a', '/columns', '/board', '/board/rows'],
        ...['/board/totals', '/board/edited-cells', '/board.csv', '/row', '/row/history', '/comments'],
      ].map(part => ['nodes', (id: string) => `/nodes/${id}${part}`] as const),
      ...['', '/rows', '/totals', '/edited-cells'].map(
        part => ['boards', (id: string) => `/nodes/${id}/board${part}`] as const,
      ),
      ...['/row', '/row/history', '/comments'].map(
        part => ['rows', (id: string) => `/nodes/${id}${part}`] as const,
      ),
      ...['/board/rows?sort=', '/board/rows?columns='].map(
        part => ['columns', (id: string) => `/nodes/${asker.known.boards}${part}${id}`] as const,
      ),
      ['columns', id => `/nodes/${asker.known.boards}/board/rows?where=${id}%7Ehas%7Ea`],
      ['nodes', id => `/zip?places=${world.ids.folder},${id}`],
      ['rows', id => `/zip?places=${id}`],
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
    const table = (column: string) =>
      asker.visitor.text(`${at}/nodes/${asker.known.boards}/board.csv?columns=name,${column}`)
    if (asker.hidden.columns !== undefined)
      expect(await table(asker.hidden.columns)).toBe(await table(absent))
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
