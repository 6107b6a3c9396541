import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { QueryTypes, Sequelize, Transaction } from 'sequelize'
import { check } from '#core/access/evaluate.ts'
import { eachRow, rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { has } from '#core/levels/action.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import type { State } from '#core/state/state.ts'
import { largeOwner, largestHome, sizes } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import type { Running } from '#server/assemble.ts'
import { askerOf } from '#server/services/viewer/asker.ts'
import { applyChangeSet } from '#server/services/changes/change.ts'
import { openDatabase } from '#server/store/database.ts'
import { loadStates, snapshotAt } from '#server/store/states.ts'
import { createTables } from '#server/store/tables.ts'
import { askedReadings } from './asked.ts'
import { fixedAnswer } from './floor.ts'
import { loadOn } from './load.ts'
import { type Floor, middle, once, type Reading } from './measure.ts'
import { copyOfLarge } from './seeded.ts'
import { sessionCookieIn } from './session-cookie.ts'
import { quietServer } from './quiet-server.ts'

/** What the server takes on a workspace of a size: to start, to list, to write; each beside its floor. */

type Name = keyof typeof sizes

export async function serverReadings(name: Name, lookup: Floor): Promise<Reading[]> {
  const dataDir = await copyOfLarge(name)
  const starting = await startReadings(name, dataDir)
  const running = await quietServer(dataDir)
  const signed = { running, ...(await signInTo(running)) }
  const readings = [
    ...(await askedReadings({ name, lookup, ...signed })),
    ...(await listingReadings(name, signed)),
    ...(await writeReadings(name, signed)),
  ]
  await running.stop()
  rmSync(dataDir, { recursive: true, force: true })
  return [...starting, ...readings]
}

async function startReadings(name: Name, dataDir: string): Promise<Reading[]> {
  const starting: number[] = []
  let floor = 0
  for (let round = 0; round < 3; round += 1) {
    const database = await openDatabase(dataDir)
    const tables = createTables(database)
    starting.push(
      await once(async () => {
        const states = await loadStates(tables, Date.now())
        const snapshot = snapshotAt(states, 'workspace-large' as never, Date.now())
        if (snapshot === undefined) throw new Error('there is no workspace')
        check(snapshot, largeOwner.person, largestHome(sizes[name]))
      }),
    )
    floor = await once(() =>
      database.query('SELECT count(*), sum(length(id) + length(parent)) FROM nodes NOT INDEXED'),
    )
    await database.close()
  }
  const value = Math.min(...starting)
  return [
    {
      id: 'start',
      size: name,
      unit: 'ms',
      value,
      floor: { what: 'a look at every place in the file', value: floor },
    },
  ]
}

interface Signed {
  readonly running: Running
  readonly cookie: string
}

export async function signInTo({ address }: Running): Promise<{ cookie: string; csrf: string }> {
  const response = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ mail: largeOwner.mail, password: demoPassword }),
  })
  const { csrf } = (await response.json()) as { csrf: string }
  return { cookie: sessionCookieIn(response.headers), csrf }
}

export const stateOf = ({ parts }: Running): State => {
  const [published] = parts.writer.states.published.values()
  if (published === undefined) throw new Error('there is no workspace')
  return published.snapshot.state
}

/** The place that has most nearly twenty others right in it, among those that the owner sees. */
function twentyIn(running: Running): string {
  const state = stateOf(running)
  const snapshot = snapshotOf(state, Date.now())
  let found = { id: '', off: Number.POSITIVE_INFINITY }
  for (const { id, parent } of eachRow(state.nodes)) {
    const off = Math.abs(rowsBy(state.nodes, 'parent', id).length - 20)
    if (parent === null || off >= found.off || !has(check(snapshot, largeOwner.person, id), 'see')) continue
    found = { id, off }
    if (off === 0) break
  }
  return found.id
}

async function listingReadings(name: Name, { running, cookie }: Signed): Promise<Reading[]> {
  const path = `/api/at/large/nodes/${twentyIn(running)}/children`
  const listed = await fetch(running.address + path, { headers: { cookie } })
  const body = await listed.text()
  if (listed.status !== 200 || (JSON.parse(body) as unknown[]).length === 0)
    throw new Error('nothing of it is seen')
  const fixed = await fixedAnswer(running.parts, body)
  const runs = { listing: [] as Loaded[], floor: [] as Loaded[] }
  for (let round = 0; round < 3; round += 1) {
    runs.floor.push(await loadOn({ url: `${fixed.address}/api/fixed`, cookie, connections: 10, seconds: 5 }))
    runs.listing.push(await loadOn({ url: running.address + path, cookie, connections: 10, seconds: 5 }))
  }
  await new Promise(resolve => fixed.server.close(resolve))
  const best = (each: readonly Loaded[]) => each.toSorted((a, b) => b.perSecond - a.perSecond)[1] as Loaded
  const [listing, floor] = [best(runs.listing), best(runs.floor)]
  const what = 'the same stack with a fixed body of that size'
  return [
    {
      id: 'listing.rate',
      size: name,
      unit: 'a second',
      value: listing.perSecond,
      floor: { what, value: floor.perSecond },
    },
    {
      id: 'listing.p99',
      size: name,
      unit: 'ms',
      value: listing.p99,
      floor: { what, value: floor.p99 },
    },
  ]
}

/** How many listings, and how many confirmed writes of fifty at once, a second. */
export async function ratesOf({ running, cookie }: Signed) {
  const url = `${running.address}/api/at/large/nodes/${twentyIn(running)}/children`
  const { perSecond } = await loadOn({ url, cookie, connections: 10, seconds: 4 })
  const nodes = changeable(stateOf(running), writers * rounds)
  const took = await once(() => writeTogether(running, nodes))
  return { listing: perSecond, writes: (nodes.length * 1000) / took }
}

type Loaded = Awaited<ReturnType<typeof loadOn>>

const writers = 50
const rounds = 20

/** So many places that the owner may change; where there are fewer, some of them come again. */
export function changeable(state: State, count: number): NodeId[] {
  const snapshot = snapshotOf(state, Date.now())
  const found: NodeId[] = []
  for (const { id } of eachRow(state.nodes)) {
    if (has(check(snapshot, largeOwner.person, id), 'change')) found.push(id)
    if (found.length === count) return found
  }
  return Array.from({ length: count }, (_, index) => found[index % found.length] as NodeId)
}

/**
 * Small change sets of fifty who write at once, each confirmed before their next, and as many rows written in one
 * transaction after another. They take turns; the first of each does not count, since a server is slow at first.
 */
async function writeReadings(name: Name, { running: { parts }, running }: Signed): Promise<Reading[]> {
  const nodes = changeable(stateOf(running), writers * rounds)
  const storage = join(parts.config.dataDir, 'noskel.sqlite')
  const plain = new Sequelize({ dialect: 'sqlite', storage, logging: false })
  await plain.query('CREATE TABLE "floorSets" (revision INTEGER PRIMARY KEY, changes TEXT, impact TEXT)')
  const together: number[] = []
  const alone: number[] = []
  for (let turn = 0; turn < 4; turn += 1) {
    together.push((1000 * nodes.length) / (await once(() => writeTogether(running, nodes))))
    alone.push((1000 * 100) / (await once(() => writeAlone(plain, nodes.slice(0, 100)))))
  }
  await plain.close()
  return [
    {
      id: 'writes.rate',
      size: name,
      unit: 'a second',
      value: middle(together.slice(1)),
      floor: { what: 'the same rows in one transaction after another', value: middle(alone.slice(1)) },
    },
  ]
}

export async function writeTogether({ parts }: Running, nodes: readonly NodeId[]): Promise<void> {
  const write = async (node: NodeId) => {
    const edits = [{ kind: 'node.describe' as const, node, note: `At ${performance.now()}` }]
    await applyChangeSet(parts, askerOf(parts, largeOwner.account, 'large'), {
      request: { edits },
      patience: {},
    })
  }
  const writer = async (index: number) => {
    for (let at = index; at < nodes.length; at += writers) await write(nodes[at] as NodeId)
  }
  await Promise.all(Array.from({ length: writers }, (_, index) => writer(index)))
}

/** The rows of the last change set, over and over, by sequelize as it comes. */
async function writeAlone(database: Sequelize, nodes: readonly NodeId[]): Promise<void> {
  const [last] = await database.query<{ changes: string; impact: string }>(
    'SELECT changes, impact FROM "changeSets" ORDER BY revision DESC LIMIT 1',
    { type: QueryTypes.SELECT },
  )
  for (const [index, id] of nodes.entries())
    await database.transaction({ type: Transaction.TYPES.IMMEDIATE }, async transaction => {
      await database.query('UPDATE nodes SET note = $note WHERE workspace = $workspace AND id = $id', {
        bind: { note: `Floor ${index}`, workspace: 'workspace-large', id },
        transaction,
      })
      await database.query('INSERT INTO "floorSets" (changes, impact) VALUES ($changes, $impact)', {
        bind: { changes: last?.changes ?? '', impact: last?.impact ?? '' },
        transaction,
      })
    })
}
