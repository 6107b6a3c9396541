import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pino } from 'pino'
import { DataTypes, Sequelize } from 'sequelize'
import type { EditRequest } from '#contract/edit-requests.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { ImportedRowView } from '#contract/people-views.ts'
import { levelActions } from '#core/levels/level.ts'
import { largeOwner } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { Visitor } from '#e2e/visitor.ts'
import { startServer } from '#server/assemble.ts'
import { seedLarge } from '../scripts/seed-large.ts'
import { type Figure, once, tableOf, timed } from './measure.ts'

/**
 * How fast people are listed, invited and brought in, over HTTP on a real file, with 20,000 people:
 * node --import tsx bench/people.ts
 */
const size = { people: 20_000, teams: 200, nodes: 2000, grants: 3000, limits: 20, breaks: 40 }
const dataDir = mkdtempSync(join(tmpdir(), 'noskel-bench-'))
const config = {
  port: 0,
  host: '127.0.0.1',
  baseUrl: 'http://localhost',
  dataDir,
  smtpUrl: null,
  isDemo: true,
}
await seedLarge(config, size, () => {})
const running = await startServer({
  config,
  log: pino({ level: 'silent' }),
  clock: Date.now,
  webDir: resolve(import.meta.dirname, '../.build/web'),
  triesPerMinute: 1000,
  requestsPerMinute: 1_000_000,
})
let cookie = ''
let csrf = ''
const at = '/at/large'

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(`${running.address}/api${path}`, {
    method,
    headers: { cookie, 'content-type': 'application/json', 'x-noskel-csrf': csrf },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? cookie
  const text = await response.text()
  if (!response.ok) throw new Error(`${path}: ${text.slice(0, 300)}`)
  return path.endsWith('.csv') ? (text as T) : (JSON.parse(text) as T)
}

const get = (path: string) => () => call('GET', `${at}${path}`)
csrf = (await call<{ csrf: string }>('POST', '/session', { mail: largeOwner.mail, password: demoPassword }))
  .csrf

/** Plain rows into an empty file, in so many transactions: what no writing of ours can be faster than. */
async function writingRows(rows: number, transactions: number): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-floor-'))
  const database = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'floor.sqlite'), logging: false })
  const text = DataTypes.TEXT
  const table = database.define('rows', { id: { type: text, primaryKey: true }, a: text, b: text, c: text })
  await database.sync()
  const each = Math.ceil(rows / transactions)
  const took = await once(async () => {
    for (let part = 0; part < transactions; part += 1)
      await database.transaction(async transaction => {
        const made = Array.from({ length: each }, (_, index) => {
          const id = `${part} ${index}`
          return { id, a: 'somebody', b: `${id}@test.example`, c: 'member' }
        })
        await table.bulkCreate(made, { transaction })
      })
  })
  await database.close()
  rmSync(folder, { recursive: true, force: true })
  return took
}

const reading = { what: 'the workspace’s name and what one may do', milliseconds: await timed(get('')) }
const figures: Figure[] = []
for (const [what, path] of [
  ['first rows of 20,000 people', '/people'],
  ['a search among them', '/people?find=vuori+19'],
  ['guests whose time ends soon, by end', '/people?as=guest&only=ends+soon&sort=ends'],
  ['the rows from 15,000 on', '/people?from=15000'],
  ['one of them', '/people/p77'],
  ['all names, to pick from', '/people/names'],
  ['all of it as CSV', '/people.csv'],
] as const)
  figures.push({ what, milliseconds: await timed(get(path)), floor: reading })

const offer = {
  as: 'member',
  role: null,
  teams: ['t0'],
  places: [{ node: 'n1', gives: levelActions('Reader') }],
  from: null,
  until: null,
} as const
const offered = { ...offer, teams: [...offer.teams], places: [...offer.places] }
const addresses = Array.from({ length: 500 }, (_, index) => ({ mail: `new${index}@coast.example`, name: '' }))
figures.push({
  what: '500 addresses judged',
  milliseconds: await timed(() => call('POST', `${at}/people/addresses`, { as: 'member', addresses })),
  floor: reading,
})
figures.push({
  what: 'an offer looked through, 2,000 places',
  milliseconds: await timed(() => call('POST', `${at}/people/offer`, { offer: offered })),
  floor: reading,
})
const inviting = addresses.flatMap(({ mail }, index) =>
  invitingEdits(offered, { person: `new:p${index}`, mail, name: '' }),
)
figures.push({
  what: '500 invited, each into a team and a place, with mails and history',
  milliseconds: await once(() => call('POST', `${at}/changes`, { edits: inviting })),
  floor: { what: '3,000 plain rows written', milliseconds: await writingRows(3000, 1) },
})

const table = Array.from({ length: 5000 }, (_, index) => ({
  mail: `row${index}@coast.example`,
  name: `Row ${index}`,
  title: 'Volunteer',
}))
let judged: ImportedRowView[] = []
const judging = { rows: table, offer: { ...offered, teams: [], places: [] }, welcome: null }
figures.push({
  what: 'a table of 5,000 rows judged',
  milliseconds: await once(async () => {
    judged = await call<ImportedRowView[]>('POST', `${at}/people/import`, judging)
  }),
  floor: reading,
})
figures.push({
  what: 'the 5,000 brought in, 50 at a time',
  milliseconds: await once(async () => {
    for (let from = 0; from < judged.length; from += 50) {
      const edits: EditRequest[] = judged.slice(from, from + 50).flatMap(row => row.edits)
      await call('POST', `${at}/changes`, { edits })
    }
  }),
  floor: { what: '25,000 plain rows in 100 transactions', milliseconds: await writingRows(25_000, 100) },
})

const visitor = await Visitor.arrive(running.address)
await visitor.signIn(largeOwner.mail, demoPassword)
const opening = (path: string, text: string) => async () => {
  await visitor.open(path)
  await visitor.sees(text)
}
const page = {
  what: 'opening a page that lists nothing',
  milliseconds: await timed(opening('/account', 'Second step'), 5),
}
figures.push({
  what: 'opening the list in Chromium, first rows drawn',
  milliseconds: await timed(opening('/at/large/people', 'Aino Vuori'), 5),
  floor: page,
})
figures.push({
  what: 'opening it with a filter',
  milliseconds: await timed(opening('/at/large/people?find=vuori+19', 'Aino Vuori 19'), 5),
  floor: page,
})
await visitor.close()
await running.stop()
rmSync(dataDir, { recursive: true, force: true })
process.stdout.write(`${tableOf(figures)}\n`)
