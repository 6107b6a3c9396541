import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pino } from 'pino'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { CheckedView } from '#contract/views/explanation.ts'
import type { HistoryView } from '#contract/views/history.ts'
import { allRows, rowsBy } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { applyChanges, type Snapshot } from '#core/state/state.ts'
import { demoAccounts } from '#demo/generate.ts'
import { operationNames, operations } from '#contract/operations.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { type Running, startServer } from '#server/assemble.ts'
import { readConfig } from '#server/config.ts'
import { judged } from '../core/tests/judge.ts'
import { Visitor } from '../server/tests/client.ts'
import { operationOf } from '../server/tests/contract.ts'
import { seedDemo } from './seed-demo.ts'

/** Every question, asked as every person of the demo: nothing hidden is in any answer. */
const at = '/at/marram-coast-survey'
const dataDir = mkdtempSync(join(tmpdir(), 'noskel-everybody-'))
const now = Date.now()
let running: Running
let snapshot: Snapshot
/** The same as if nothing lay in the bin. */
let withoutBin: Snapshot

beforeAll(async () => {
  const config = readConfig({ DATA_DIR: dataDir, PORT: '0' }, true)
  await seedDemo(config, now)
  const log = pino({ level: 'silent' })
  const limits = { triesPerMinute: 1000, requestsPerMinute: 1_000_000 }
  running = await startServer({ config, log, clock: () => now, webDir: null, ...limits })
  snapshot = present()
  const restored = allRows(snapshot.state.nodes).flatMap(before =>
    before.binned === null
      ? []
      : [{ table: 'nodes', id: before.id, before, after: { ...before, binned: null } } as const],
  )
  withoutBin = snapshotOf(applyChanges(snapshot.state, restored), now)
}, 90_000)

afterAll(async () => {
  await running.stop()
  rmSync(dataDir, { recursive: true, force: true })
})

/** Each asks about a part of the places and entries, another one than their neighbours: together, about all of them. */
const partOf = <T>(all: readonly T[], turn: number, parts: number): T[] =>
  all.filter((_, index) => index % parts === turn % parts)

const everyAccount = demoAccounts.map((account, turn) => ({ ...account, turn }))

const personWith = (mail: string) =>
  allRows(snapshot.state.persons).find(each => each.mail === mail)?.id as PersonId

const present = (): Snapshot => {
  const [published] = running.parts.writer.states.published.values()
  return snapshotOf(published?.snapshot.state ?? (undefined as never), now)
}

const isActive = (mail: string) =>
  allRows(snapshot.state.persons).some(each => each.mail === mail && each.status === 'active')

test.each(everyAccount)('$name is told of nothing that $name may not know', async ({ mail, turn }) => {
  const visitor = new Visitor(running)
  expect((await visitor.enter('/session', { mail, password: demoPassword })).status).toBe(200)
  if (!isActive(mail)) {
    expect([403, 404]).toContain((await visitor.get(at)).status)
    return
  }
  const person = personWith(mail)
  const nodes = allRows(snapshot.state.nodes)
  const held = new Map(nodes.map(({ id }) => [id, judged(snapshot, person, id)]))
  const sees = (node: NodeId) => held.get(node)?.includes('see') === true
  // What lies in the bin is told to who could bring it back.
  const restores = (node: NodeId) => !sees(node) && judged(withoutBin, person, node).includes('remove')
  const shares = (node: NodeId) => held.get(node)?.includes('share') === true
  const hidden = nodes.filter(node => node.kind !== 'root' && !sees(node.id) && !restores(node.id))
  const visible = new Set(nodes.filter(node => sees(node.id)).map(node => node.name))
  const secrets = [
    ...hidden.map(node => `"${node.id}"`),
    // A home is called like its team, whose name many know who do not see the home.
    ...hidden.flatMap(({ name, home }) => (home?.of === 'team' || isPartOf(name, visible) ? [] : [name])),
    ...unknownTeams(person).flatMap(team => [`"${team.id}"`, team.name]),
  ]
  const isOverseer = rowsBy(snapshot.state.holdings, 'person', person).some(each =>
    ['role-owner', 'role-administrator', 'role-auditor'].includes(each.role),
  )
  const absent = JSON.stringify((await visitor.get(`${at}/nodes/nothing`)).body)
  const leaks: string[] = []
  const look = (path: string, body: unknown) => {
    // What people wrote themselves may hold any word.
    if (/\/(text(\/versions.*)?|file\/preview.*)$/.test(path)) return
    // What somebody alone keeps needs another to keep it: it is named to who may see the outline of all places.
    if (path.endsWith('/offboarding') && isOverseer) return
    // So may an excerpt of that.
    const text = JSON.stringify(body, (field, value: unknown) => (field === 'excerpt' ? null : value))
    for (const secret of secrets) if (text.includes(secret)) leaks.push(`${path}: ${secret}`)
  }
  const ask = async (path: string) => {
    asked.add(path.replace(/\?.*/, ''))
    const { body } = await visitor.get<unknown>(`${at}${path}`)
    look(path, body)
    return body
  }
  const together = (paths: readonly string[]) => Promise.all(paths.map(ask))

  await together([
    ...['', '/people', '/people/names', '/teams', '/tree', '/bin', '/notifications', '/onboarding'],
    ...['/me/access', '/settings', '/places?find=', `/diff?from=0&to=${now}`],
    ...['/roles', '/requests', '/owners', '/seats', '/sessions', '/sessions/nothing'],
    ...['/drafts', '/drafts/nothing', '/drafts/nothing/items', '/drafts/nothing/recipients'],
    ...['/check/places?find=e', '/people/ids', '/pictures/nothing', '/uploads', '/storage'],
    ...['/search?find=nest', '/search?find=a&kind=page', '/search?since=0', '/search?find=marram'],
  ])
  look('/people.csv', await visitor.text(`${at}/people.csv`))
  asked.add('/people.csv')
  await together(
    partOf(allRows(snapshot.state.teams), turn, 3).map(({ id }) => `/grants?principal=team:${id}`),
  )
  await ask(
    `/grants?places=${partOf(nodes, turn, 24)
      .map(each => each.id)
      .slice(0, 60)
      .join(',')}`,
  )
  await together(partOf(allRows(snapshot.state.roles), turn, 4).map(({ id }) => `/roles/${id}/holders`))
  for (let next: number | null = 1e8; next !== null;) {
    const part = (await ask(`/history?before=${next}`)) as HistoryView
    await together(partOf(part.entries, turn, 10).map(({ revision }) => `/history/${revision}`))
    next = part.next
  }
  const people = allRows(snapshot.state.persons).map(each => each.id)
  for (const each of partOf(people, turn, 10))
    await together([
      ...['', '/places', '/access', '/offboarding', '/roles-to-assign'].map(part => `/people/${each}${part}`),
      `/grants?principal=person:${each}`,
    ])
  for (const { id, kind } of partOf(nodes, turn, 40)) {
    const other = people[id.length % people.length] ?? person
    const parts = [
      '',
      '/children',
      '/changes',
      '/access',
      '/text',
      '/text/versions',
      '/text/versions/1',
      '/file',
      '/file/versions',
      '/file/preview',
      '/file/preview/1/words',
      '/people',
      '/own-access',
      '/move-targets?find=a',
    ]
    const whys = [`/why/${person}`, `/why/${other}`]
    const source = nodes[(turn * 7) % nodes.length]?.id ?? id
    const takenOver =
      id.length % 4 !== 1
        ? []
        : [`/access-to-copy?from=${source}&what=people`, `/access-to-copy?from=${source}&what=access`]
    // Searching for remedies takes its time: it is asked about some places.
    const whyNots = id.length % 4 === 0 ? [`/why-not/${other}/change`, `/why-not/${person}/publish`] : []
    const ofBoards =
      kind === 'board' || !sees(id)
        ? ['/board', '/board/rows?sort=-name', '/board/totals', '/board/edited-cells']
        : kind === 'row'
          ? ['/row', '/row/history']
          : []
    const askedHere = [
      ...[...parts, '/columns', '/columns/nothing/people', '/comments', ...ofBoards],
      ...[...whys, ...whyNots, ...takenOver],
    ].map(async part => {
      const path = `/nodes/${id}${part}`
      const body = JSON.stringify(await ask(path))
      if (kind === 'root' || !sees(id)) expect([path, body]).toEqual([path, absent])
    })
    const bytesHere = [
      '/zip',
      '/file/bytes',
      '/file/versions/1/bytes',
      '/file/preview/1?size=small',
      '/board.csv',
    ]
    const readHere = bytesHere.map(async part => {
      const bytes = await visitor.text(`${at}/nodes/${id}${part}`)
      asked.add(`/nodes/${id}${part.replace(/\?.*/, '')}`)
      // What people wrote themselves may hold any word.
      if (part === '/zip' || part === '/board.csv') look(part, bytes)
      if (kind === 'root' || !sees(id)) expect([part, bytes]).toEqual([part, absent])
    })
    await Promise.all([...askedHere, ...readHere])
  }
  const taken = partOf(nodes, turn, 40).filter(({ id }) => sees(id))
  for (const { id } of partOf(hidden, turn, 40).slice(0, 20)) {
    const places = [...taken.slice(0, 2).map(each => each.id), id]
    expect(await visitor.text(`${at}/zip?places=${places.join(',')}`)).toBe(absent)
  }
  look('/zip', await visitor.text(`${at}/zip?places=${taken.map(each => each.id).join(',')}`))
  asked.add('/zip')
  const preview = await Promise.all(
    partOf(hidden, turn, 24).map(({ id }) =>
      visitor.call('POST', `${at}/changes/preview`, {
        edits: [{ kind: 'node.describe', node: id, name: 'x' }],
      }),
    ),
  )
  for (const { status, body } of preview) {
    expect(status).toBe(404)
    look('preview', body)
  }
  for (const each of partOf(people, turn, 8)) {
    const questions = nodes.map(node => ({ person: each, place: node.id }))
    const { body } = await visitor.call<CheckedView>('POST', `${at}/check`, { questions })
    const told = body.answers.map(answer => answer !== null)
    expect(told).toEqual(
      nodes.map(
        ({ id, kind }) => kind !== 'root' && sees(id) && (each === person || shares(id) || isOverseer),
      ),
    )
  }
  expect(leaks).toEqual([])
})

/** Paths that were asked for by anybody. */
const asked = new Set<string>()

test('every operation that answers a GET within a workspace was asked', () => {
  const within = operationNames.filter(each => {
    const [method, path] = operations[each]
    return method === 'GET' && path.startsWith('/at/') && each !== 'live'
  })
  expect(within.length).toBeGreaterThan(40)
  const answered = new Set([...asked].map(path => operationOf('GET', `${at}${path}`)))
  expect(within.filter(each => !answered.has(each))).toEqual([])
})

test('what is heard live names no place but to those who see it, and comes only to those whom it concerns', async () => {
  const everybody = demoAccounts.filter(({ mail }) => isActive(mail))
  const streams = await Promise.all(
    everybody.map(async ({ mail }) => {
      const visitor = new Visitor(running)
      await visitor.enter('/session', { mail, password: demoPassword })
      return { mail, ...(await hearing(visitor)) }
    }),
  )
  const tomas = new Visitor(running)
  await tomas.enter('/session', { mail: 'tomas@marram.example', password: demoPassword })
  const nests = 'node-sites-north-spit-nest-locations'
  const edits = [
    { kind: 'node.describe', node: nests, note: 'Terns at the third post' },
    { kind: 'grant.add', node: nests, principal: 'person:person-aino', gives: 1, from: null, until: null },
  ]
  const answer = await tomas.call('POST', `${at}/changes`, { edits, reason: 'For the ringing' })
  expect(answer.status).toBe(200)
  await new Promise(resolve => setTimeout(resolve, 500))
  const told = streams.map(({ mail, heard, stop }) => {
    stop()
    return { mail, heard: heard() }
  })
  const words = /node-|person-|Tern|Nest|ringing|Aino/
  const named = (heard: string) =>
    [...heard.matchAll(/"(?:node|document|within):([^"]+)"/g)].map(([, id]) => id)
  const isSeen = (mail: string, id = '') => judged(present(), personWith(mail), id as NodeId).includes('see')
  expect(told.filter(({ mail, heard }) => !named(heard).every(id => isSeen(mail, id)))).toEqual([])
  const unnamed = (heard: string) => heard.replaceAll(/"(?:node|document|within):[^"]+"/g, '')
  expect(told.filter(({ heard }) => words.test(unnamed(heard)))).toEqual([])
  expect(told.find(({ mail }) => mail === 'tomas@marram.example')?.heard).toContain(`"node:${nests}"`)
  const hears = (mail: string) => told.find(each => each.mail === mail)?.heard.includes('event: changed')
  expect(['tomas@marram.example', 'aino@marram.example', 'sefa@lund-estate.example'].map(hears)).toEqual([
    true,
    true,
    false,
  ])
})

/** All that comes on somebody's stream, as it comes. */
async function hearing(visitor: Visitor) {
  const abort = new AbortController()
  const response = await fetch(`${running.address}/api${at}/live`, {
    headers: { cookie: visitor.cookie },
    signal: abort.signal,
  })
  let text = ''
  const read = async () => {
    const decoder = new TextDecoder()
    const reader = response.body?.getReader()
    for (let part = await reader?.read(); part?.value !== undefined; part = await reader?.read())
      text += decoder.decode(part.value, { stream: true })
  }
  void read().catch(() => {})
  return { heard: () => text, stop: () => abort.abort() }
}

/** Unlisted teams that a person is not in, unless the person manages any team; all that are not theirs, for guests. */
function unknownTeams(person: PersonId) {
  const isManager = rowsBy(snapshot.state.holdings, 'person', person).some(each =>
    ['role-owner', 'role-administrator', 'role-people-lead'].includes(each.role),
  )
  return allRows(snapshot.state.teams).filter(
    team =>
      team.joining === 'unlisted' &&
      !isManager &&
      !rowsBy(snapshot.state.memberships, 'person', person).some(each => each.team === team.id),
  )
}

/** A title that is a part of one that may be seen tells nothing by standing in an answer. */
const isPartOf = (name: string, visible: ReadonlySet<string>) =>
  [...visible].some(each => each.includes(name))
