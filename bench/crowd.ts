import { setTimeout as pause } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import type { TreeItem } from '#contract/views/content.ts'
import { levelActions } from '#core/levels/level.ts'
import { nodeId, type sizes } from '#demo/large.ts'
import { copyOfLarge } from './seeded.ts'
import { type Client, sent, signedIn, startServed } from './served.ts'

/**
 * How long others wait while one person sends what costs most of all that the server takes from anybody:
 * node --import tsx bench/crowd.ts --size M. Somebody else asks for one place over and over meanwhile; the floor is
 * the same with nobody sending anything.
 */

interface Case {
  readonly what: string
  readonly send: (client: Client) => Promise<unknown>
}

const at = '/api/at/large'
const folder = 'new:f'
const making = (ref: string, parent: string, as = 'page') => ({
  kind: 'node.create',
  node: ref,
  parent,
  as,
  name: ref.slice(4),
})
const times = <T>(count: number, of: (index: number) => T): T[] =>
  Array.from({ length: count }, (_, index) => of(index))
const home = nodeId(1)

/** Sixteen copies of a new folder into itself: each would have copied all those before it. */
const copiesOfItself = [
  making(folder, home, 'folder'),
  ...times(16, index => ({ kind: 'node.duplicate', node: folder, parent: folder, name: `c${index}` })),
]
/** Chains as deep as any may be. */
const nested = times(6000, index =>
  making(`new:n${index}`, index % 500 === 0 ? home : `new:n${index - 1}`, 'folder'),
)
const flat = times(6000, index => making(`new:n${index}`, home))
/** In as many places as there are that the owner shares, for teams that are there. */
const ending = (shared: readonly string[]) =>
  times(6000, index => ({
    kind: 'grant.add',
    node: shared[index % shared.length],
    principal: `team:t${1 + (Math.floor(index / shared.length) % 100)}`,
    gives: 3,
    from: null,
    until: Date.now() + 1e9 + 1000 * index,
  }))
const oneHome = times(1900, index => ({
  kind: 'grant.add',
  node: home,
  principal: `person:p${index}`,
  gives: 3,
  from: null,
  until: Date.now() + 1e9 + 1000 * index,
}))

type Edits = readonly object[] | ((shared: readonly string[]) => readonly object[])

const sending = (what: string, path: string, edits: Edits): Case => ({
  what,
  send: async client => {
    const all = typeof edits === 'function' ? edits(await sharedBy(client)) : edits
    const response = await sent(client, path, { body: { edits: all } })
    const text = await response.text()
    return `${response.status} ${text.slice(0, 160)}`
  },
})

const reading = (what: string, path: string): Case => ({
  what,
  send: async ({ address, cookie }) => {
    const response = await fetch(`${address}${at}${path}`, { headers: { cookie } })
    return `${response.status} ${(await response.text()).slice(0, 160)}`
  },
})

const asking = (what: string, path: string, body: object): Case => ({
  what,
  send: async client => {
    const response = await sent(client, path, { body })
    return `${response.status} ${(await response.text()).slice(0, 160)}`
  },
})

const offer = { as: 'member', role: null, teams: [], places: [], from: null, until: null }

const cases: Case[] = [
  sending('16 copies of a new folder into itself', '/changes', copiesOfItself),
  sending('6,000 places nested 500 deep, previewed', '/changes/preview', nested),
  sending('the same, made', '/changes', nested),
  sending('6,000 places in one home, previewed', '/changes/preview', flat),
  sending('the same, made', '/changes', flat),
  sending('6,000 grants in many places, each with its end, previewed', '/changes/preview', ending),
  sending('the same, made', '/changes', ending),
  sending('1,900 grants in one home, each with its end', '/changes', oneHome),
  sending('16 copies of a large folder', '/changes', ([folder]) =>
    times(16, index => ({ kind: 'node.duplicate', node: folder, parent: home, name: `c${index}` })),
  ),
  reading('the history, with those changes in it', '/history'),
  reading('what one reached before those changes', `/people/p3/places?at=${Date.now()}`),
  reading('who gained and lost by them', `/diff?from=${Date.now()}&to=4000000000000`),
  asking('5,000 addresses judged', '/people/addresses', {
    as: 'member',
    addresses: times(5000, index => ({ mail: `n${index}@d${index}.example`, name: '' })),
  }),
  asking('10,000 rows of a table judged, all of one name', '/imports', {
    rows: times(10_000, index => ({ mail: `n${index}@new.example`, name: 'Ona' })),
    offer,
    welcome: null,
  }),
  asking('1,000 questions', '/check', {
    questions: times(1000, index => ({ person: `p${index}`, place: nodeId(index) })),
  }),
  {
    what: 'eight kept change sets of 6,000 edits',
    send: async client => {
      for (let count = 0; count < 8; count += 1) {
        const answer = await sent(client, '/drafts', { body: { edits: nested } })
        const { draft } = (await answer.json()) as { draft: { id: string } | null }
        if (draft === null) return answer.status
        await sent(client, `/drafts/${draft.id}`, { method: 'PUT', body: { name: `kept ${count}` } })
      }
      const answer = await fetch(`${client.address}${at}/drafts`, { headers: { cookie: client.cookie } })
      return (await answer.text()).length
    },
  },
]

/** The folders of the home that its owner shares. */
async function sharedBy({ address, cookie }: Client): Promise<string[]> {
  const response = await fetch(`${address}${at}/nodes/${home}/children`, { headers: { cookie } })
  const children = (await response.json()) as TreeItem[]
  const steward = levelActions('Steward')
  return children
    .filter(each => each.kind === 'folder' && each.actions === steward)
    .map(each => each.id)
    .slice(0, 100)
}

const { values } = parseArgs({
  options: { size: { type: 'string', default: 'M' }, only: { type: 'string' } },
})
const server = await startServed(await copyOfLarge(values.size as keyof typeof sizes))
const owner = await signedIn(server.address, 'owner')
console.log(
  '| | took | others waited at most | all but one in a hundred | the server was held |\n|---|---:|---:|---:|---:|',
)
// A server that has just started is slow at first.
await one({ what: 'warm-up', send: () => pause(2000) })
await one({ what: 'nobody sends anything', send: () => pause(3000) })
for (const each of cases) if (values.only === undefined || each.what.includes(values.only)) await one(each)
await server.stop()

async function one({ what, send }: Case): Promise<void> {
  await server.noted()
  const going = { is: true }
  const waits: number[] = []
  const watching = (async () => {
    while (going.is) {
      const began = performance.now()
      const answer = await fetch(`${owner.address}${at}/nodes/${nodeId(2)}`, {
        headers: { cookie: owner.cookie },
      })
      await answer.arrayBuffer()
      waits.push(performance.now() - began)
      await pause(2)
    }
  })()
  const began = performance.now()
  const sent = await send(owner)
  const took = performance.now() - began
  going.is = false
  await watching
  const sorted = waits.toSorted((a, b) => a - b)
  const most = sorted[Math.floor(0.99 * sorted.length)] ?? 0
  const { held } = await server.noted()
  console.log(
    `| ${what} | ${took.toFixed(0)} ms | ${Math.max(...waits).toFixed(0)} ms | ${most.toFixed(0)} ms | ${held.toFixed(0)} ms |`,
  )
  process.stderr.write(`${String(sent)}\n`)
}
