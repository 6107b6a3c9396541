import { check } from '#core/access/evaluate.ts'
import { setTimeout as pause } from 'node:timers/promises'
import { accessDiffOf } from '#core/access/access-diff.ts'
import { rowOf } from '#core/base/collection.ts'
import type { MembershipId, NodeId, PersonId, TeamId } from '#core/base/ids.ts'
import { affectedScopeOf } from '#core/changes/affected-scope.ts'
import { diffQueryOf } from '#core/impact/impact.ts'
import { recordQuestion } from '#core/impact/bulk.ts'
import { has } from '#core/levels/action.ts'
import { levelActions } from '#core/levels/level.ts'
import { searchRemedies } from '#core/remedies/why-not.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { applyChanges, type Snapshot, type RecordChange } from '#core/state/state.ts'
import { createRandom, type Random } from '#demo/random.ts'
import { largestHome, nodeId, type Size, sizes } from '#demo/large.ts'
import type { Running } from '#server/assemble.ts'
import { ask } from '#server/worker/asking.ts'
import type { FigureId } from './figures.ts'
import { type Floor, middle, middleOf, type Reading } from './measure.ts'

/** What is asked of a whole workspace: effects that need its records, remedies, and what the thread takes off the server. */

export interface Asking {
  readonly name: keyof typeof sizes
  readonly running: Running
  readonly cookie: string
  readonly csrf: string
  /** What the core's figures stand beside. */
  readonly lookup: Floor
}

export async function askedReadings({ name, lookup, ...signed }: Asking): Promise<Reading[]> {
  const { running } = signed
  const size = sizes[name]
  const [published] = running.parts.writer.states.published.values()
  if (published === undefined) throw new Error('there is no workspace')
  const snapshot = snapshotOf(published.snapshot.state, Date.now())
  const took = (id: FigureId, value: number, floor = lookup): Reading => ({
    id,
    size: name,
    unit: 'ms',
    value,
    floor,
  })
  const idle = { what: 'the same with nothing to do', value: (await held(() => pause(300))).held }
  const random = createRandom(17)
  return [
    // Of teams whose grants were asked for before, as those of teams in use are.
    took('impact.membership', middleOf(400, intoTeam(snapshot, size, random))),
    took('impact.break', middleOf(15, breaking(snapshot, size))),
    took('remedies', remedies(snapshot, size, random)),
    ...(await threadReadings({ took, idle, ...signed }, changeFor(snapshot, size))),
    ...(await previewReadings({ took, idle, ...signed }, largestHome(size))),
  ]
}

const applied = (before: Snapshot, ...changes: readonly RecordChange[]) => ({
  changes,
  before,
  after: snapshotOf(applyChanges(before.state, changes), before.at),
})

function intoTeam(snapshot: Snapshot, size: Size, random: Random): () => unknown {
  return () => {
    const row = {
      id: 'new' as MembershipId,
      person: `p${random.whole(size.people)}` as PersonId,
      team: `t${random.whole(Math.min(50, size.teams))}` as TeamId,
      lead: false,
      since: snapshot.at,
      from: null,
      until: null,
    }
    const transition = applied(snapshot, { table: 'memberships', id: row.id, before: null, after: row })
    return accessDiffOf({ ...diffQueryOf(affectedScopeOf(transition), transition), mostRows: 0 })
  }
}

function breaking(snapshot: Snapshot, size: Size): () => unknown {
  const before = rowOf(snapshot.state.nodes, largestHome(size))
  if (before === undefined) throw new Error('the home is not there')
  const broken = { by: 'p0' as PersonId, at: snapshot.at }
  return () => {
    const transition = applied(snapshot, {
      table: 'nodes',
      id: before.id,
      before,
      after: { ...before, broken },
    })
    return accessDiffOf(recordQuestion(transition))
  }
}

/** The middle of some searches for what would let somebody change a place that they see nothing of. */
function remedies(snapshot: Snapshot, size: Size, random: Random): number {
  const taken: number[] = []
  while (taken.length < 30) {
    const person = `p${random.whole(size.people)}` as PersonId
    const node = nodeId(1 + random.whole(size.nodes - 1))
    if (has(check(snapshot, person, node), 'change')) continue
    const began = performance.now()
    const search = searchRemedies(snapshot, { person, node, action: 'change' })
    for (let step = search.next(false); step.done !== true;) step = search.next(false)
    taken.push(performance.now() - began)
  }
  return middle(taken)
}

function changeFor(snapshot: Snapshot, size: Size) {
  const row = {
    id: 'new' as never,
    node: largestHome(size),
    principal: 'everyone' as const,
    gives: levelActions('Editor'),
    by: 'p0' as PersonId,
    at: snapshot.at,
    copiedFrom: null,
    from: null,
    until: null,
  }
  return applied(snapshot, { table: 'grants', id: row.id, before: null, after: row })
}

interface Taking extends Omit<Asking, 'name' | 'lookup'> {
  readonly took: (id: FigureId, value: number, floor?: Floor) => Reading
  /** How long the server is held where nothing is asked. */
  readonly idle: Floor
}

/** Everybody's grant on a tenth of all places, asked of the thread: how long that takes, and how long it holds up others. */
async function threadReadings(
  { took, idle, running }: Taking,
  transition: ReturnType<typeof changeFor>,
): Promise<Reading[]> {
  const { sides, starts, people, isWeb, asker, mostRows } = recordQuestion(transition)
  const question = {
    kind: 'diff',
    time: transition.after.at,
    starts,
    people,
    isWeb,
    asker,
    mostRows,
  } as const
  const indexes = [sides[0].index, sides[1].index] as const
  const about = { workspace: 'workspace-large' as never, question, indexes }
  const { thread } = running.parts
  const here = {
    what: 'worked out in its place',
    value: middleOf(7, () => accessDiffOf(recordQuestion(transition))),
  }
  const first = await held(() => ask<'diff'>(thread, about))
  const rounds = await heldOften(() => ask<'diff'>(thread, about))
  return [
    took('thread.diff', rounds('took'), here),
    took('thread.diff.held', rounds('held'), idle),
    took('thread.sending', rounds('sending'), idle),
    took('thread.first', first.sending, idle),
  ]
}

/** The longest that anything else had to wait while something went on, and how long its beginning took. */
async function held(run: () => Promise<unknown>): Promise<{ took: number; held: number; sending: number }> {
  let isOver = false
  let longest = 0
  const began = performance.now()
  let last = began
  const look = () => {
    const now = performance.now()
    longest = Math.max(longest, now - last)
    last = now
    if (!isOver) setImmediate(look)
  }
  setImmediate(look)
  const running = run()
  const sending = performance.now() - began
  await running
  isOver = true
  return { took: performance.now() - began, held: longest, sending }
}

async function heldOften(run: () => Promise<unknown>) {
  const rounds: Awaited<ReturnType<typeof held>>[] = []
  for (let round = 0; round < 7; round += 1) rounds.push(await held(run))
  return (of: keyof (typeof rounds)[number]) => middle(rounds.map(each => each[of]))
}

/** The same over HTTP, judged and told to its author. */
async function previewReadings(
  { took, idle, running, cookie, csrf }: Taking,
  node: NodeId,
): Promise<Reading[]> {
  const edit = {
    kind: 'grant.add',
    node,
    principal: 'everyone',
    gives: levelActions('Editor'),
    from: null,
    until: null,
  }
  const bare = async () => {
    await (await fetch(`${running.address}/api/at/large`, { headers: { cookie } })).text()
  }
  const preview = async () => {
    const response = await fetch(`${running.address}/api/at/large/changes/preview`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie, 'x-noskel-csrf': csrf },
      body: JSON.stringify({ edits: [edit] }),
    })
    if (response.status !== 200) throw new Error(await response.text())
    await response.text()
  }
  await preview()
  const floor = { what: 'the workspace’s name over HTTP', value: (await held(bare)).took }
  const rounds = await heldOften(preview)
  return [took('preview', rounds('took'), floor), took('preview.held', rounds('held'), idle)]
}
