import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pino } from 'pino'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { AuditEntryDetailView } from '#contract/views/history.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import { personById, evaluationOf } from '#core/access/evaluation-context.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { numberOf } from '#core/base/numbering.ts'
import { applyEdits, judge, proposedOf } from '#core/changes/judge.ts'
import { impact } from '#core/impact/impact.ts'
import { beyond } from '#core/levels/action.ts'
import { levelActions } from '#core/levels/level.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { type Snapshot, rootOf } from '#core/state/state.ts'
import { largeOwner, largestHome, nodeId } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { type Running, startServer } from '#server/assemble.ts'
import { Visitor } from '#server/tests/client.ts'
import { ask, createThread, endThread, Stopped } from '#server/worker/asking.ts'
import { answer } from '#server/worker/question.ts'
import { seedLarge } from './seed-large.ts'

/** What a change does to very many people on very many places is asked of a thread, and told in counts. */

const size = { people: 300, teams: 10, nodes: 3000, grants: 600, limits: 20, breaks: 60 }
const home = largestHome(size)
let folder: string
let running: Running
let owner: Visitor

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'noskel-wide-'))
  const address = { port: 0, host: '127.0.0.1', baseUrl: 'http://localhost' }
  const config = { ...address, dataDir: folder, smtpUrl: null, isDemo: true }
  await seedLarge(config, size, () => {})
  running = await startServer({
    config,
    log: pino({ level: 'silent' }),
    clock: Date.now,
    webDir: null,
    triesPerMinute: 1000,
    requestsPerMinute: 1e6,
  })
  owner = new Visitor(running)
  await owner.enter('/session', { mail: largeOwner.mail, password: demoPassword })
}, 120_000)

afterAll(async () => {
  await running.stop()
  rmSync(folder, { recursive: true })
}, 60_000)

const opening = (node: NodeId, level: Parameters<typeof levelActions>[0]) => ({
  kind: 'grant.add',
  node,
  principal: 'everyone',
  gives: levelActions(level),
  from: null,
  until: null,
})

const present = (): Snapshot => {
  const [published] = running.parts.writer.states.published.values()
  return snapshotOf((published as { snapshot: Snapshot }).snapshot.state, Date.now())
}

const send = <T>(path: string, edits: object[], more: object = {}) =>
  owner.call<T>('POST', `/at/large/changes${path}`, { edits, ...more })

/** What the rows add up to that a place and a person at a time would tell. */
function addedUp(edit: ReturnType<typeof opening>) {
  const before = present()
  const edits = [{ ...edit, grant: 'new' as never }] as never
  const set = { author: largeOwner.person, reason: '', edits }
  const judged = judge(before, set)
  if (!judged.ok) throw new Error(JSON.stringify(judged.error))
  const [told] = impact(proposedOf(before, set, judged.value), largeOwner.person)
  const rows = told?.differences ?? []
  const sum = (some: typeof rows) => ({
    people: new Set(some.map(each => each.person)).size,
    places: [...new Map(some.map(each => [each.node, each.nodes])).values()].reduce((a, b) => a + b, 0),
    isWeb: false,
  })
  return {
    rows: rows.length,
    gains: sum(rows.filter(each => beyond(each.after, each.before).length > 0)),
    losses: sum(rows.filter(each => beyond(each.before, each.after).length > 0)),
  }
}

test('counts are what the rows would add up to; done, they stand in the history, and who is concerned is told', async () => {
  const edit = opening(home, 'Editor')
  const expected = addedUp(edit)
  expect(expected.rows).toBeGreaterThan(5000)
  const { body } = await send<PreviewView>('/preview', [edit])
  const [now] = body.impact
  expect([now?.differences, now?.counted?.gains, now?.counted?.losses]).toEqual([
    [],
    expected.gains,
    expected.losses,
  ])
  expect(now?.counted?.mostPlaces[0]?.place.id).toBeDefined()
  const done = await send<AppliedView>('', [edit], { preview: body.digest })
  expect(done.status).toBe(200)
  const entry = await owner.get<AuditEntryDetailView>(`/at/large/history/${done.body.revision}`)
  expect(entry.body.counted?.gains).toEqual(expected.gains)
  expect(entry.body.gains).toMatchObject({ people: expected.gains.people, places: expected.gains.places })
  const told = await running.parts.writer.tables.notifications.count({
    where: { kind: ['opened', 'changed'] },
  })
  expect(told).toBeGreaterThan(100)
  const undone = await send<AppliedView>('', [{ kind: 'undo', revision: done.body.revision }])
  expect(undone.status).toBe(200)
}, 60_000)

test('where it would do something else by now nothing is done, and the new counts are told', async () => {
  const edit = opening(home, 'Steward')
  const { body } = await send<PreviewView>('/preview', [edit])
  const held = { kind: 'limit.add', node: home, principal: 'everyone', allows: levelActions('Reader') }
  const meanwhile = await send('', [{ ...held, sparesStewards: true, from: null, until: null }])
  expect(meanwhile.status).toBe(200)
  const done = await send<Problem>('', [edit], { preview: body.digest })
  expect(done.body.type).toBe('urn:noskel:problem:preview-changed')
  expect(done.body.preview?.impact[0]?.counted?.turns).not.toEqual(body.impact[0]?.counted?.turns)
}, 60_000)

test('the thread answers as the server would itself, whatever was written since it was asked last', async () => {
  const thread = createThread()
  const workspace = 'workspace-large' as never
  let before = present()
  for (let round = 0; round < 6; round += 1) {
    const edits = [{ kind: 'node.break', node: nodeId(20 + round), mode: 'empty', copies: '' }] as never
    const state = applyEdits(before, edits)?.state ?? before.state
    const after = snapshotOf(state, before.at)
    const indexes = [after.state.index, after.state.index] as const
    const person = personById(evaluationOf(after), `p${round * 7}` as PersonId)
    const asker = personById(evaluationOf(after), largeOwner.person)
    const root = numberOf(state.index.nodes, rootOf(state).id) as number
    const rights = { mayCheck: true, outlinesBut: null, now: after.at, gone: [] }
    const listing = { person, asker, root, ...rights, from: 3, count: 50 }
    const seen = { kind: 'seen', time: after.at, person } as const
    const places = { kind: 'places', time: after.at, ...listing } as const
    expect(await ask<'seen'>(thread, { workspace, question: seen, indexes })).toEqual(
      answer<'seen'>(seen, indexes),
    )
    expect(await ask<'places'>(thread, { workspace, question: places, indexes })).toEqual(
      answer<'places'>(places, indexes),
    )
    before = after
  }
  await endThread(thread)
}, 60_000)

test('a question that nobody waits for any more is stopped; the next is answered', async () => {
  const thread = createThread()
  const { state, at } = present()
  const about = {
    workspace: 'workspace-large' as never,
    question: { kind: 'seen', time: at, person: 1 } as const,
    indexes: [state.index, state.index] as const,
  }
  const going = new AbortController()
  const first = ask<'seen'>(thread, about, { signal: going.signal })
  const second = ask<'seen'>(thread, about)
  going.abort()
  await expect(first).rejects.toBeInstanceOf(Stopped)
  expect((await second).length).toBeGreaterThan(0)
  await endThread(thread)
}, 60_000)
