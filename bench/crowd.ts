import { type ChildProcess, fork } from 'node:child_process'
import { once } from 'node:events'
import { rmSync } from 'node:fs'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { setTimeout as pause } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import { pino } from 'pino'
import { nodeId, sizes } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { startServer } from '#server/assemble.ts'
import { serverEnv, serverFlags } from '../scripts/prepare.mjs'
import { configFor, copyOfLarge } from './seeded.ts'
import { sessionCookieIn } from './session-cookie.ts'

/**
 * How long others wait while one person sends what costs most of all that the server takes from anybody:
 * node --import tsx bench/crowd.ts --size M. Somebody else asks for one place over and over meanwhile; the floor is
 * the same with nobody sending anything.
 */

async function serve(dataDir: string): Promise<void> {
  const running = await startServer({
    config: configFor(dataDir),
    log: pino({ level: 'silent' }),
    clock: Date.now,
    webDir: null,
    triesPerMinute: 1e6,
    requestsPerMinute: 1e9,
  })
  const delay = monitorEventLoopDelay({ resolution: 2 })
  delay.enable()
  process.on('message', message => {
    if (message === 'stop') return void running.stop().then(() => process.exit(0))
    process.send?.({ held: delay.max / 1e6 })
    delay.reset()
  })
  process.send?.({ address: running.address })
}

interface Client {
  readonly address: string
  readonly cookie: string
  readonly csrf: string
}

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
const ending = times(6000, index => ({
  kind: 'grant.add',
  node: nodeId(1 + (index % 100)),
  principal: `team:t${Math.floor(index / 100)}`,
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

const post = (client: Client, path: string, body: object) =>
  fetch(`${client.address}${at}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: client.cookie, 'x-noskel-csrf': client.csrf },
    body: JSON.stringify(body),
  })

const sending = (what: string, path: string, edits: readonly object[]): Case => ({
  what,
  send: async client => {
    const response = await post(client, path, { edits })
    const text = await response.text()
    return `${response.status} ${text.slice(0, 160)}`
  },
})

const cases: Case[] = [
  sending('16 copies of a new folder into itself', '/changes', copiesOfItself),
  sending('6,000 places nested 500 deep, foreseen', '/changes/foresee', nested),
  sending('the same, made', '/changes', nested),
  sending('6,000 places in one home, foreseen', '/changes/foresee', flat),
  sending('the same, made', '/changes', flat),
  sending('6,000 grants in 100 homes, each with its end, foreseen', '/changes/foresee', ending),
  sending('the same, made', '/changes', ending),
  sending('1,900 grants in one home, each with its end', '/changes', oneHome),
  sending(
    '16 copies of a large home',
    '/changes',
    times(16, index => ({
      kind: 'node.duplicate',
      node: home,
      parent: nodeId(2),
      name: `c${index}`,
    })),
  ),
  {
    what: 'eight kept change sets of 6,000 edits',
    send: async client => {
      for (let count = 0; count < 8; count += 1) {
        const answer = await post(client, '/drafts', { edits: nested })
        const { gathered } = (await answer.json()) as { gathered: { id: string } | null }
        if (gathered === null) return answer.status
        await fetch(`${client.address}${at}/drafts/${gathered.id}`, {
          method: 'PUT',
          headers: {
            'content-type': 'application/json',
            cookie: client.cookie,
            'x-noskel-csrf': client.csrf,
          },
          body: JSON.stringify({ name: `kept ${count}` }),
        })
      }
      const answer = await fetch(`${client.address}${at}/drafts`, { headers: { cookie: client.cookie } })
      return (await answer.text()).length
    },
  },
]

async function measure(args: string[]): Promise<void> {
  const { values } = parseArgs({
    args,
    options: { size: { type: 'string', default: 'M' }, only: { type: 'string' } },
  })
  const dataDir = await copyOfLarge(values.size as keyof typeof sizes)
  const server = fork(import.meta.filename, ['serve', dataDir], {
    env: serverEnv,
    execArgv: [...serverFlags],
  })
  const [{ address }] = (await once(server, 'message')) as [{ address: string }]
  const response = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ mail: 'owner@large.example', password: demoPassword }),
  })
  const { csrf } = (await response.json()) as { csrf: string }
  const client = { address, cookie: sessionCookieIn(response.headers), csrf }
  console.log(
    '| | took | others waited at most | all but one in a hundred | the server was held |\n|---|---:|---:|---:|---:|',
  )
  // A server that has just started is slow at first.
  await one(server, client, { what: 'warm-up', send: () => pause(2000) })
  await one(server, client, { what: 'nobody sends anything', send: () => pause(3000) })
  for (const each of cases)
    if (values.only === undefined || each.what.includes(values.only)) await one(server, client, each)
  server.send('stop')
  await once(server, 'exit')
  rmSync(dataDir, { recursive: true, force: true })
}

async function one(server: ChildProcess, client: Client, { what, send }: Case): Promise<void> {
  await held(server)
  const going = { is: true }
  const waits: number[] = []
  const watching = (async () => {
    while (going.is) {
      const began = performance.now()
      const answer = await fetch(`${client.address}${at}/nodes/${nodeId(2)}`, {
        headers: { cookie: client.cookie },
      })
      await answer.arrayBuffer()
      waits.push(performance.now() - began)
      await pause(2)
    }
  })()
  const began = performance.now()
  const said = await send(client)
  const took = performance.now() - began
  going.is = false
  await watching
  const sorted = waits.toSorted((a, b) => a - b)
  const most = sorted[Math.floor(0.99 * sorted.length)] ?? 0
  console.log(
    `| ${what} | ${took.toFixed(0)} ms | ${Math.max(...waits).toFixed(0)} ms | ${most.toFixed(0)} ms | ${(await held(server)).toFixed(0)} ms |`,
  )
  process.stderr.write(`${String(said)}\n`)
}

async function held(server: ChildProcess): Promise<number> {
  server.send('how is it')
  const [said] = (await once(server, 'message')) as [{ held: number }]
  return said.held
}

const [, , part, ...rest] = process.argv
if (part === 'serve') await serve(rest[0] ?? '')
else await measure(process.argv.slice(2))
