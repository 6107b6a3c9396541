import { fork } from 'node:child_process'
import { Agent, get } from 'node:http'
import { setTimeout as pause } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import { pino } from 'pino'
import type { TreeItem, TreeView } from '#contract/views/content.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { AccountId, NodeId, PersonId } from '#core/base/ids.ts'
import { levelActions } from '#core/levels/level.ts'
import type { State } from '#core/state/state.ts'
import { largeOwner, nodeId, sizes } from '#demo/large.ts'
import { createRandom } from '#demo/random.ts'
import { openParts } from '#server/assemble.ts'
import { newAccountRow } from '#server/store/accounts.ts'
import { loadStates } from '#server/store/states.ts'
import { middle } from './measure.ts'
import { configFor, copyOfLarge } from './seeded.ts'
import { asServer, type Client, type Noted, sent, signedIn, startServed } from './served.ts'
import { isUndisturbed, stolenShare, type Stolen, watchStolen } from './stolen.ts'

/**
 * Two hundred signed-in people read and twenty write at once on M, for ten minutes or as long as is said:
 * node --import tsx bench/busy.ts --minutes 10. The server is a process of its own. Then the same two hundred
 * read one fixed answer through the same stack for a fifth of that time: what a machine that others use too does
 * to answers that cost nothing.
 */

const readers = 200
const writers = 20
/**
 * How long each looks at what they opened, and how long each who writes waits for the next change, in the middle.
 * People are no clock: were all to wait alike, those who once had to wait together would come together ever after.
 */
const readEvery = 1500
const writeEvery = 2000
/** So long they go about it before it counts: a server that has just started is slow at first. */
const warmUp = 20_000

const size = sizes.M
const random = createRandom(29)

const [, , part, ...rest] = process.argv
if (part === 'ask') await measure(rest)
else fork(import.meta.filename, ['ask', ...process.argv.slice(2)], asServer)

interface Writer extends Client {
  readonly home: NodeId
}

async function measure(args: string[]): Promise<void> {
  const { values } = parseArgs({ args, options: { minutes: { type: 'string', default: '10' } } })
  const seconds = 60 * Number(values.minutes)
  const dataDir = await copyOfLarge('M')
  const { reading, writing, leads } = await withAccounts(dataDir)
  const server = await startServed(dataDir)
  const { address, fixedAddress } = server
  const signIn = (account: string) => signedIn(address, account)
  const clients: Client[] = []
  for (const account of reading) clients.push(await signIn(account))
  const pens: Writer[] = []
  for (const [index, account] of writing.entries())
    pens.push({ ...(await signIn(account)), home: leads[index] as NodeId })
  process.stderr.write(`${clients.length} read and ${pens.length} write for ${values.minutes} minutes …\n`)
  const read = readerAt(address, (client, index) => pathsFor(client, index))
  const turns = inSeconds(seconds)
  const stolen = watchStolen()
  const noted: Noted[] = []
  const [reads, writes] = await Promise.all([
    Promise.all(clients.map((client, index) => read(client, { ...turns, index }))),
    Promise.all(pens.map((pen, index) => writeUntil(pen, { ...turns, index }))),
    note(server.noted, noted, turns.until),
  ])
  const readFixed = readerAt(fixedAddress, () => Promise.resolve(['/api/fixed']))
  const after = inSeconds(seconds / 5)
  const floor = await Promise.all(clients.map((client, index) => readFixed(client, { ...after, index })))
  stolen.stop()
  tell({ reads: reads.flat(), floor: floor.flat(), writes: writes.flat(), noted, stolen, ...turns })
  await server.stop()
}

/** Accounts for people who are here, of whom the writers lead a team with a home. */
async function withAccounts(dataDir: string) {
  const opened = await openParts({
    config: configFor(dataDir),
    log: pino({ level: 'silent' }),
    clock: Date.now,
  })
  const { tables } = opened.parts.writer
  const states = await loadStates(tables, Date.now())
  const [published] = states.published.values()
  const { state } = (published as { snapshot: { state: State } }).snapshot
  const isActive = (id: string) => {
    const person = rowOf(state.persons, id as PersonId)
    return person?.status === 'active' && person.until === null && person.id !== largeOwner.person
  }
  const leading = [...Array(size.teams).keys()].flatMap(team => {
    const lead = rowsBy(state.memberships, 'team', `t${team}`).find(each => each.lead)
    return lead !== undefined && isActive(lead.person) && rowOf(state.teams, lead.team)?.archived === false
      ? [{ person: lead.person, home: nodeId(team + 1) }]
      : []
  })
  const own = [...new Map(leading.map(each => [each.person, each.home]))].slice(0, writers)
  const others = [...Array(size.people).keys()]
    .map(index => `p${index}`)
    .filter(id => isActive(id) && !own.some(([person]) => person === id))
    .slice(0, readers)
  const [{ passwordHash } = { passwordHash: '' }] = (await tables.accounts.findAll({
    where: { id: largeOwner.account },
    raw: true,
  })) as unknown as { passwordHash: string }[]
  for (const id of [...own.map(([person]) => person), ...others]) {
    const account = { id: `account-${id}` as AccountId, mail: `${id}@large.example`, name: id, passwordHash }
    await tables.accounts.create({ ...newAccountRow({ ...account, madeAt: 0, provenAt: 0 }) })
    await tables.records.persons.update({ account: account.id }, { where: { id } })
  }
  await opened.close()
  return { reading: others, writing: own.map(([person]) => person), leads: own.map(([, home]) => home) }
}

/** What somebody opens who looks around: the workspace, the tree, a place of theirs and what is in it, what is new. */
async function pathsFor({ address, cookie }: Client, index: number): Promise<string[]> {
  const at = '/api/at/large'
  const { homes, opened } = (await (
    await fetch(`${address}${at}/tree`, { headers: { cookie } })
  ).json()) as TreeView
  const places = [...homes, ...opened]
  if (places.length === 0) return [at, `${at}/tree`, `${at}/notifications`]
  const place = `${at}/nodes/${(places[index % places.length] as TreeItem).id}`
  return [at, `${at}/tree`, place, `${place}/children`, `${place}/access`, `${at}/notifications`]
}

interface Turns {
  /** What was begun before does not count. */
  readonly from: number
  readonly until: number
  readonly index: number
}

/** From half as long to half as long again. */
function around(milliseconds: number): number {
  return milliseconds / 2 + random.whole(milliseconds)
}

function inSeconds(seconds: number): Pick<Turns, 'from' | 'until'> {
  const from = Date.now() + warmUp
  return { from, until: from + 1000 * seconds }
}

interface Read {
  /** The last word of what was opened. */
  readonly what: string
  readonly at: number
  readonly took: number
  readonly isRefused: boolean
}

/** Opens one after the other of some paths, and looks at each for a while. */
function readerAt(address: string, pathsOf: (client: Client, index: number) => Promise<string[]>) {
  return async (client: Client, { from, until, index }: Turns): Promise<Read[]> => {
    const paths = await pathsOf(client, index)
    const reads: Read[] = []
    const agent = new Agent({ keepAlive: true })
    await pause((readEvery * index) / readers)
    for (let round = index; Date.now() < until; round += 1) {
      const path = paths[round % paths.length] as string
      const began = performance.now()
      const status = await open(address + path, { agent, cookie: client.cookie })
      const took = performance.now() - began
      // What a place told before may not be there any more for who looks: that is no fault.
      const isRefused = status !== 200 && status !== 404
      const at = performance.timeOrigin + began
      if (at > from) reads.push({ what: whatOf(path), at, took, isRefused })
      await pause(around(readEvery))
    }
    return reads
  }
}

/**
 * Resolves with the status once all of an answer is here. What it says is not unpacked and not read: that is a
 * browser's work, and all two hundred share one process, whose own delays would be counted as the server's.
 */
function open(address: string, { agent, cookie }: { agent: Agent; cookie: string }): Promise<number> {
  return new Promise((resolve, reject) => {
    const headers = { cookie, 'accept-encoding': 'gzip, br' }
    get(address, { agent, headers }, response => {
      response.on('end', () => resolve(response.statusCode ?? 0)).on('error', reject)
      response.resume()
    }).on('error', reject)
  })
}

function whatOf(path: string): string {
  return /\/nodes\/[^/]+$/u.test(path) ? 'a place' : (path.split('/').at(-1) ?? '')
}

/** Opens the home that one leads to somebody, and closes it again, over and over; how long each took. */
async function writeUntil(pen: Writer, { from, until, index }: Turns): Promise<number[]> {
  const taken: number[] = []
  const change = async (edit: object) => {
    const began = performance.now()
    const response = await sent(pen, '/changes', { body: { edits: [edit] } })
    if (performance.timeOrigin + began > from) taken.push(performance.now() - began)
    if (response.status !== 200) throw new Error(`a change was refused: ${await response.text()}`)
    return (await response.json()) as { made: Record<string, string>; revision: number }
  }
  await pause((writeEvery * index) / writers)
  for (let round = 0; Date.now() < until; round += 1) {
    const principal = `person:p${(index * 37 + round * 11) % size.people}`
    const grant = { kind: 'grant.add', node: pen.home, principal, gives: levelActions('Preview') }
    const { revision } = await change({ ...grant, from: null, until: null })
    await pause(around(writeEvery))
    await change({ kind: 'undo', revision })
    await pause(around(writeEvery))
  }
  return taken
}

async function note(ask: () => Promise<Noted>, noted: Noted[], until: number): Promise<void> {
  while (Date.now() < until) {
    noted.push(await ask())
    await pause(5000)
  }
}

interface Measured extends Pick<Turns, 'from' | 'until'> {
  readonly reads: readonly Read[]
  readonly floor: readonly Read[]
  readonly writes: readonly number[]
  readonly noted: readonly Noted[]
  readonly stolen: Stolen
}

function tell({ reads, floor, writes, noted, stolen, from, until }: Measured): void {
  const third = Math.ceil(noted.length / 3)
  const memory = noted.map(each => each.memory)
  const refused = [...reads, ...floor].filter(each => each.isRefused)
  const taken = (some: readonly Read[]) => some.map(each => each.took)
  const kinds = [...new Set(reads.map(each => each.what))].map(what =>
    row(`reads: ${what}`, taken(reads.filter(each => each.what === what))),
  )
  console.log(
    [
      '| | how many | half took up to | all but one in a hundred up to | ratio |',
      '|---|---:|---:|---:|---:|',
      row('reads', taken(reads)),
      row(
        'reads while others on the same hardware took nothing',
        taken(reads.filter(each => isUndisturbed(stolen, each.at, each.took))),
      ),
      ...kinds,
      row('writes', writes),
      row('floor: one fixed answer through the same stack', taken(floor)),
      '',
      `${refused.length} refused or failed. Memory: ${middle(memory.slice(third, 2 * third)).toFixed(0)} MiB in the middle of the`,
      `second third, ${middle(memory.slice(2 * third)).toFixed(0)} MiB of the last. In the middle of spans of five seconds, the longest that the`,
      `server was held was ${middle(noted.map(each => each.held)).toFixed(0)} ms. Others took ${(100 * stolenShare(stolen, from, until)).toFixed(1)} % of`,
      'the time of the processors.',
    ].join('\n'),
  )
}

function row(what: string, taken: readonly number[]): string {
  const sorted = taken.toSorted((a, b) => a - b)
  const [half, most] = [0.5, 0.99].map(share => sorted[Math.floor(share * sorted.length)] ?? 0) as [
    number,
    number,
  ]
  return `| ${what} | ${taken.length} | ${half.toFixed(1)} ms | ${most.toFixed(0)} ms | × ${(most / half).toFixed(1)} |`
}
