import type { EditRequest } from '#contract/edit-requests.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import { levelActions } from '#core/levels/level.ts'
import { nodeId } from '#demo/large.ts'
import { type Figure, once, tableOf, timed } from './measure.ts'
import { opening, openLarge, writingRows } from './large-server.ts'

/**
 * How fast people are listed, invited and brought in, over HTTP on a real file, with 20,000 people:
 * node --import tsx bench/people.ts
 */
const size = { people: 20_000, teams: 200, nodes: 2000, grants: 3000, limits: 20, breaks: 40 }
const { call, get, arrive, stop } = await openLarge(size)

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
  places: [{ node: nodeId(1), gives: levelActions('Reader') }],
  from: null,
  until: null,
} as const
const offered = { ...offer, teams: [...offer.teams], places: [...offer.places] }
const addresses = Array.from({ length: 500 }, (_, index) => ({ mail: `new${index}@coast.example`, name: '' }))
figures.push({
  what: '500 addresses judged',
  milliseconds: await timed(() => call('POST', `/at/large/people/addresses`, { as: 'member', addresses })),
  floor: reading,
})
figures.push({
  what: 'an offer looked through, 2,000 places',
  milliseconds: await timed(() => call('POST', `/at/large/people/offer-preview`, { offer: offered })),
  floor: reading,
})
const inviting = addresses.flatMap(({ mail }, index) =>
  invitingEdits(offered, { person: `new:p${index}`, mail, name: '' }),
)
figures.push({
  what: '500 invited, each into a team and a place, with mails and history',
  milliseconds: await once(() => call('POST', `/at/large/changes`, { edits: inviting })),
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
    judged = await call<ImportedRowView[]>('POST', `/at/large/imports`, judging)
  }),
  floor: reading,
})
figures.push({
  what: 'the 5,000 brought in, 50 at a time',
  milliseconds: await once(async () => {
    for (let from = 0; from < judged.length; from += 50) {
      const edits: EditRequest[] = judged.slice(from, from + 50).flatMap(row => row.edits)
      await call('POST', `/at/large/changes`, { edits })
    }
  }),
  floor: { what: '25,000 plain rows in 100 transactions', milliseconds: await writingRows(25_000, 100) },
})

const visitor = await arrive()
const page = {
  what: 'opening a page that lists nothing',
  milliseconds: await timed(opening(visitor, '/account', 'Two-step sign-in'), 5),
}
figures.push({
  what: 'opening the list in Chromium, first rows drawn',
  milliseconds: await timed(opening(visitor, '/at/large/people', 'Aino Vuori'), 5),
  floor: page,
})
figures.push({
  what: 'opening it with a filter',
  milliseconds: await timed(opening(visitor, '/at/large/people?find=vuori+19', 'Aino Vuori 19'), 5),
  floor: page,
})
await visitor.close()
await stop()
process.stdout.write(`${tableOf(figures)}\n`)
