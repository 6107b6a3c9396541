import { countsOf, answersFor } from '#core/access/what.ts'
import { evaluationOf } from '#core/access/evaluation-context.ts'
import { eachRow } from '#core/base/collection.ts'
import { idOf, numberOf } from '#core/base/numbering.ts'
import type { AccountId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { has } from '#core/levels/action.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import type { Person } from '#core/people/person.ts'
import type { State } from '#core/state/state.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { pino } from 'pino'
import { openParts } from '#server/assemble.ts'
import type { Parts } from '#server/parts.ts'
import { hashOf } from '#server/services/account/password.ts'
import { newAccountRow } from '#server/store/accounts.ts'
import { indexAll } from '#server/services/search/indexer.ts'
import type { SearchDocument } from '#server/store/search/index-port.ts'
import { need } from '#server/store/states.ts'
import { middle, type Floor, type Reading } from './measure.ts'
import { configFor, copyOfLarge } from './seeded.ts'
import { type Client, signedIn, startServed } from './served.ts'
import { textOf, wordOf } from './texts.ts'

/** What is found among a million places and half a million texts: by who sees all, and by who sees one in a thousand. */

const size = '1,000,000 places, 500,000 texts'
const texts = 500_000
const together = 2000
/** In nine of ten texts, and in one. */
const common = 'sluice'
const rare = 'quagmire'

interface Cast {
  /** Who sees about one place in a thousand. */
  readonly few: string
}

export async function wordReadings(): Promise<Reading[]> {
  const dataDir = await copyOfLarge('L')
  const { cast, made } = await written(dataDir)
  const served = await startServed(dataDir)
  try {
    const owner = await signedIn(served.address, 'owner')
    const few = await signedIn(served.address, cast.few)
    const floor = await fixed(served.fixedAddress)
    return [
      { id: 'words.made', size, unit: 'ms', value: made },
      await found('words.first', floor, timesOf(owner, common, 1)),
      await found('words.owner', floor, timesOf(owner, common)),
      await found('words.owner.begun', floor, timesOf(owner, common.slice(0, -1))),
      await found('words.owner.two', floor, timesOf(owner, `${common} ${wordOf(300)}`)),
      await found('words.few.first', floor, timesOf(few, common, 1)),
      await found('words.few', floor, timesOf(few, common)),
      await found('words.few.hidden', await absentFor(few), timesOf(few, rare)),
    ]
  } finally {
    await served.stop()
  }
}

/** What is looked for that stands nowhere: the time of a word that only others may read is no other one. */
async function absentFor(client: Client): Promise<Floor> {
  return { what: 'a word that stands nowhere', value: await timesOf(client, 'zzzabsent') }
}

const found = async (id: Reading['id'], floor: Floor, taken: Promise<number>): Promise<Reading> => ({
  id,
  size,
  unit: 'ms',
  value: await taken,
  floor,
})

/** Nineteen of twenty answers came by then. */
async function timesOf({ address, cookie }: Client, find: string, times = 40): Promise<number> {
  const taken: number[] = []
  for (let count = 0; count < times; count += 1) {
    const began = performance.now()
    const answer = await fetch(`${address}/api/at/large/search?find=${encodeURIComponent(find)}`, {
      headers: { cookie },
    })
    if (!answer.ok) throw new Error(await answer.text())
    await answer.text()
    taken.push(performance.now() - began)
  }
  return taken.toSorted((a, b) => a - b)[Math.floor(times * 0.95)] ?? 0
}

async function fixed(address: string, times = 40): Promise<Floor> {
  const taken: number[] = []
  for (let count = 0; count < times; count += 1) {
    const began = performance.now()
    await (await fetch(`${address}/api/fixed`)).text()
    taken.push(performance.now() - began)
  }
  return { what: 'one fixed answer of that server', value: middle(taken) }
}

/** Makes the index of all places, and puts a text into every other one. Tells how long the first took. */
async function written(dataDir: string): Promise<{ readonly cast: Cast; readonly made: number }> {
  const log = pino({ level: 'silent' })
  const { parts, close } = await openParts({ config: configFor(dataDir), log, clock: Date.now })
  const began = performance.now()
  await indexAll(parts)
  const made = performance.now() - began
  const [workspace] = parts.writer.states.bySlug.values()
  if (workspace === undefined) throw new Error('there is no workspace')
  await need(parts.writer.states, workspace)
  const state = parts.writer.states.published.get(workspace)?.snapshot.state as State
  let puts: SearchDocument[] = []
  for (let number = 0; number < texts; number += 1) {
    const node = idOf(state.index.nodes, number * 2 + 1)
    if (node !== undefined) puts.push(documentOf(workspace, node, number))
    if (puts.length < together) continue
    await parts.index.write({ puts, drops: [], waiting: [], read: [] })
    puts = []
  }
  const few = whoSees(state, state.index.nodes.length / 1000)
  await letIn(parts, few)
  await close()
  return { cast: { few: few.mail.split('@')[0] ?? '' }, made }
}

function documentOf(workspace: WorkspaceId, node: NodeId, number: number): SearchDocument {
  const own = textOf(70).split(' ')
  if (number % 10 !== 0) own[9] = common
  if (number % 5000 === 7) own[11] = rare
  const changed = { changedAt: Date.now() - number, changedBy: null }
  return {
    workspace,
    node,
    part: 'text',
    source: '1',
    name: `Page ${number}`,
    body: own.join(' '),
    kind: 'page',
    ...changed,
  }
}

/** Whose visible places come nearest to so many. */
function whoSees(state: State, wanted: number): Pick<Person, 'id' | 'mail'> {
  const evaluation = evaluationOf(snapshotOf(state, Date.now()))
  let best = { distance: Infinity, id: '' as PersonId, mail: '' }
  let looked = 0
  for (const { id, mail, status } of eachRow(state.persons)) {
    if (status !== 'active' || (looked += 1) > 400) continue
    const distance = Math.abs(seenBy(evaluation, state, id) - wanted)
    if (distance < best.distance) best = { distance, id, mail }
  }
  return best
}

/** Gives somebody an account to sign in with. */
async function letIn(
  { writer: { tables } }: Parts,
  { id, mail }: Pick<Person, 'id' | 'mail'>,
): Promise<void> {
  const account = 'account-few' as AccountId
  const passwordHash = await hashOf(demoPassword)
  const now = Date.now()
  await tables.accounts.create({
    ...newAccountRow({ id: account, mail, name: 'Few', passwordHash, madeAt: now, provenAt: now }),
  })
  await tables.records.persons.update({ account }, { where: { id } })
}

function seenBy(evaluation: ReturnType<typeof evaluationOf>, { index }: State, person: PersonId): number {
  const number = numberOf(index.persons, person)
  if (number === undefined) return 0
  let seen = 0
  for (const [actions, count] of countsOf(answersFor(evaluation, number)))
    if (has(actions, 'see')) seen += count
  return seen
}
