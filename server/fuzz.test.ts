import { plainView } from '#core/boards/view.ts'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type Operation, operationNames, operations } from '#contract/operations.ts'
import type { Route } from '#contract/route.ts'
import { routes } from '#contract/routes.ts'
import type { AccessView } from '#contract/views/access.ts'
import type { AddressView, OnboardingView } from '#contract/views/onboarding.ts'
import { type Visitor, welcome } from './tests/client.ts'
import { holdToContract } from './tests/contract.ts'
import { at, type Coast, coast, editor, reader, share, steward, teamOf, onboarding } from './tests/coast.ts'
import { valueFor } from './tests/fuzz.ts'
import { pdf } from './tests/samples.ts'
import { fileIn } from './tests/uploads.ts'

/**
 * Whatever is sent, as whomever: nothing that it holds breaks the server. FUZZ says how many requests
 * (`FUZZ=20000 npx vitest run --project api server/fuzz.test.ts`).
 */

const many = Number(process.env.FUZZ ?? 2000)

let world: Coast
let lead: Visitor
let ids: Record<string, readonly string[]>

beforeAll(async () => {
  world = await coast({ triesPerMinute: 1e6 })
  const { server, owner, ownerId, member, guest } = world
  const came = await welcome(server, owner, { name: 'Lea', role: 'role-people-lead' })
  lead = came.visitor
  const { body } = await owner.change(
    ...teamOf(ownerId, { name: 'T', welcomesGuests: true }),
    share(world.ids.folder, member.id, editor),
    share(world.ids.folder, guest.id, reader),
    ...onboarding,
    { kind: 'channel.create', channel: 'new:channel', team: 'new:team', name: 'C', note: '', only: null },
  )
  const of = (name: string) => body.made[`new:${name}`] ?? ''
  const column = (name: string, as: string, settings: object) => ({
    kind: 'column.create',
    ...{ column: `new:${name}`, board: 'new:board', name, as, settings, order: 1 },
    ...{ viewers: null, editors: null },
  })
  const { body: boards } = await owner.change(
    { kind: 'node.create', node: 'new:board', parent: world.ids.folder, as: 'board', name: 'B' },
    { kind: 'node.create', node: 'new:row', parent: 'new:board', as: 'row', name: 'R' },
    { kind: 'section.create', section: 'new:section', board: 'new:board', name: 'S', order: 1 },
    { kind: 'view.create', view: 'new:view', board: 'new:board', name: 'V', order: 1, state: plainView },
    column('text', 'text', {}),
    column('number', 'number', { places: 2, unit: '', foot: 'sum' }),
    column('day', 'date', { withTime: true }),
    column('who', 'person', { isSeveral: true }),
  )
  const ofBoard = (...names: string[]) => names.map(name => boards.made[`new:${name}`] ?? '')
  const { body: access } = await owner.get<AccessView & { detail: 'all' }>(
    `${at}/nodes/${world.ids.folder}/access`,
  )
  const { body: ways } = await owner.get<OnboardingView>(`${at}/onboarding`)
  ids = {
    nodes: [
      ...Object.values(world.ids),
      ...ofBoard('board', 'row'),
      await fileIn(server, owner, { name: 'f.pdf', bytes: pdf('By boat'), place: world.ids.folder }),
    ],
    persons: [ownerId, member.id, guest.id, came.id],
    teams: [of('team')],
    columns: ofBoard('text', 'number', 'day', 'who'),
    sections: ofBoard('section'),
    boardViews: ofBoard('view'),
    channels: [of('channel')],
    joinLinks: ways.joinLinks.map(each => each.id),
    welcomeSets: [of('welcome')],
    roles: ['role-owner', 'role-member', 'role-guest', 'role-people-lead'],
    grants: access.grants.map(each => each.id),
  }
})
afterAll(() => world.server.stop())

interface Asking {
  readonly operation: Operation
  readonly method: string
  readonly path: string
  readonly body?: object
  readonly query?: object
}

/** What would end the sign-ins of those who ask, opens a stream, or takes no JSON. */
const leftOut: ReadonlySet<Operation> = new Set([
  ...(['signOut', 'endSignIn', 'endOtherSignIns', 'endTheirSignIns', 'changePassword'] as const),
  ...(['live', 'keepPicture'] as const),
])

/** What an id in an address is of, by what stands before it. */
const named: Readonly<Record<string, string>> = {
  nodes: 'nodes',
  people: 'persons',
  why: 'persons',
  columns: 'columns',
  'why-not': 'persons',
  roles: 'roles',
}

/** The whole table; changes and their previews, which hold most, come more often. */
const askings: readonly Asking[] = operationNames
  .filter(operation => !leftOut.has(operation))
  .flatMap(operation => {
    const [method, path] = operations[operation]
    const { body, query }: Route = routes[operation]
    const asking = {
      operation,
      method,
      path,
      ...(body === undefined ? {} : { body }),
      ...(query === undefined ? {} : { query }),
    }
    return Array<Asking>(operation === 'preview' ? 9 : operation === 'change' ? 4 : 1).fill(asking)
  })

const filledIn = (path: string, pick: number): string =>
  path
    .replace('{slug}', 'coast')
    .replaceAll(/([\w-]+)\/\{\w+\}/g, (_, before: string) => {
      const known = [...(ids[named[before] ?? ''] ?? []), 'nothing', '%00', 'a b']
      return `${before}/${encodeURIComponent(known[pick % known.length] ?? '')}`
    })
    .replace('{action}', 'change')

const anyRequest = () =>
  fc.constantFrom(...askings).chain(asking =>
    fc.record({
      asking: fc.constant(asking),
      who: fc.constantFrom('owner', 'member', 'guest', 'lead'),
      body: asking.body === undefined ? fc.constant(undefined) : valueFor(asking.body, ids),
      query: asking.query === undefined ? fc.constant({}) : valueFor(asking.query, ids),
      pick: fc.nat(),
      charset: fc.constantFrom('', '', '', '', '', '', '; charset=utf-16', '; charset=klingon'),
      // What uploads are announced and sent with; nothing else looks at it.
      headers: asking.path.includes('/uploads') ? ofUploads : fc.constant({}),
    }),
  )

const odd = fc.oneof(
  fc.nat({ max: 3000 }).map(String),
  fc.constantFrom('', '-1', '1e3', '0x10', '99999999999999999999', 'filename,place', ', ,', 'a b c d'),
)
const ofUploads = fc.record(
  {
    'upload-length': odd,
    'upload-offset': odd,
    'tus-resumable': odd,
    'content-type': fc.constantFrom('application/offset+octet-stream', 'text/plain'),
    'upload-metadata': fc.oneof(
      odd,
      fc.tuple(fc.string(), fc.nat()).map(([name, pick]) => {
        const encoded = (text: string) => Buffer.from(text).toString('base64')
        return `filename ${encoded(name)},place ${encoded(ids['nodes']?.[pick % 4] ?? '')}`
      }),
    ),
  },
  { requiredKeys: [] },
)

test(`${many} random requests meet answers and refusals, and no fault`, { timeout: 3_000_000 }, async () => {
  const visitors: Record<string, Visitor> = {
    owner: world.owner,
    member: world.member.visitor,
    guest: world.guest.visitor,
    lead,
  }
  const seen = new Map<number, number>()
  await fc.assert(
    fc.asyncProperty(anyRequest(), async ({ asking, who, body, query, pick, charset, headers: more }) => {
      const { operation, method } = asking
      const path = filledIn(asking.path, pick)
      const search = new URLSearchParams(
        Object.entries(Object(query) as object).map(([name, value]): [string, string] => [
          name,
          String(value),
        ]),
      )
      const { status, headers, text } = await sent(visitors[who] as Visitor, {
        method,
        path: search.size === 0 ? path : `${path}?${search.toString()}`,
        body,
        charset,
        more,
      })
      seen.set(status, (seen.get(status) ?? 0) + 1)
      if (status >= 500)
        expect([operation, JSON.stringify({ body, query: [...search] }), status]).toEqual([
          operation,
          'what breaks it',
          'below 500',
        ])
      // An address longer than any that is read: answered before there is a request.
      if (status === 431) return
      if (headers.get('content-type')?.includes('json') === true && method !== 'HEAD')
        holdToContract({ method, path, status, body: JSON.parse(text) })
      // What has no body says no more than that.
      if (status < 400 || method === 'HEAD') return
      expect(headers.get('content-type')).toContain('application/problem+json')
      const problem = JSON.parse(text) as { type: string; title: string; faults?: { message: string }[] }
      expect([problem.type, problem.title.length > 0]).toEqual([
        expect.stringMatching(/^urn:noskel:problem:/),
        true,
      ])
      for (const { message } of problem.faults ?? [])
        expect(message).not.toMatch(/must (be|have|match|NOT)|schema|\bundefined\b|null,/)
    }),
    { numRuns: many },
  )
  expect(seen.get(200) ?? 0).toBeGreaterThan(many / 20)
})

interface Sent {
  readonly method: string
  readonly path: string
  readonly body: unknown
  readonly charset: string
  readonly more: Readonly<Record<string, string>>
}

async function sent(visitor: Visitor, { method, path, body, charset, more }: Sent) {
  const response = await fetch(`${world.server.address}/api${path}`, {
    method,
    headers: {
      cookie: visitor.cookie,
      'x-noskel-csrf': visitor.csrf,
      ...(body === undefined ? {} : { 'content-type': `application/json${charset}` }),
      ...more,
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  return { status: response.status, headers: response.headers, text: await response.text() }
}

test.each([
  [
    'a name too long',
    { edits: [{ kind: 'home.create', node: 'new:a', name: 'x'.repeat(201) }] },
    'A name has at most 200 characters.',
  ],
  [
    'a name of blanks',
    { edits: [{ kind: 'home.create', node: 'new:a', name: ' ' }] },
    'A name cannot be blank.',
  ],
  [
    'a NUL',
    { edits: [{ kind: 'home.create', node: 'new:a', name: 'a\u0000' }] },
    'A name has a control character in it.',
  ],
  [
    'half a sign',
    { edits: [{ kind: 'home.create', node: 'new:a', name: 'a\ud83d' }] },
    'A name has a broken character in it.',
  ],
  [
    'two lines',
    { edits: [{ kind: 'home.create', node: 'new:a', name: 'a\nb' }] },
    'A name has to stand on one line.',
  ],
  [
    'a turned name',
    { edits: [{ kind: 'home.create', node: 'new:a', name: 'a\u202eb' }] },
    'A name has a character in it that turns the direction of writing.',
  ],
  ['no name', { edits: [{ kind: 'home.create', node: 'new:a' }] }, 'A name is missing.'],
  [
    'a field too many',
    { edits: [{ kind: 'home.create', node: 'new:a', name: 'a', x: 1 }] },
    '“x” is not known here.',
  ],
])('%s is refused in words', async (_, body, words) => {
  const { status, body: problem } = await world.owner.call('POST', `${at}/changes`, body)
  expect([status, problem.faults?.map(each => each.message)]).toEqual([400, [words]])
})

test('texts are kept in one form, with one kind of line end', async () => {
  const { body } = await world.owner.change(
    { kind: 'home.create', node: 'new:a', name: 'Cafe\u0301' },
    share('new:a', world.ownerId, steward),
    {
      kind: 'node.describe',
      node: 'new:a',
      note: 'a\r\nb\rc',
    },
  )
  const { body: node } = await world.owner.get<{ name: string; note: string }>(
    `${at}/nodes/${body.made['new:a']}`,
  )
  expect([node.name, node.note]).toEqual(['Caf\u00e9', 'a\nb\nc'])
})

test('one bad address sinks no list', async () => {
  const typed = [
    'jörg@küste.example',
    'a\u0000@test.example',
    'no address',
    'new@test.example',
    'a\ud800@b.example',
  ]
  const { status, body } = await world.owner.call<AddressView[]>('POST', `${at}/people/addresses`, {
    as: 'member',
    addresses: typed.map(mail => ({ mail, name: '' })),
  })
  expect([status, body.map(each => each.verdict)]).toEqual([
    200,
    ['new', 'not an address', 'not an address', 'new', 'not an address'],
  ])
  // One whose name not every mail server takes is said to be that.
  expect(body.map(each => each.isOfOtherScript)).toEqual([true, false, false, false, false])
})
