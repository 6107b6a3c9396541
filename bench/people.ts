import type { EditRequest } from '#contract/edit-requests.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import { levelActions } from '#core/levels/level.ts'
import { nodeId } from '#demo/large.ts'
import { type Floor, once, type Reading, readingsOn, timed } from './measure.ts'
import { emptyPage, opening, openLarge, writingRows } from './large-server.ts'

/** How fast people are listed, invited and brought in, over HTTP on a real file, with 20,000 people. */

const size = { people: 20_000, teams: 200, nodes: 2000, grants: 3000, limits: 20, breaks: 40 }
type Large = Awaited<ReturnType<typeof openLarge>>

const reading = readingsOn('20,000 people')

export async function peopleReadings(): Promise<Reading[]> {
  const large = await openLarge(size)
  const name = { what: 'the workspace’s name and what one may do', value: await timed(large.get('')) }
  const readings = [
    ...(await lists(large, name)),
    ...(await inviting(large, name)),
    ...(await importing(large, name)),
    ...(await pages(large)),
  ]
  await large.stop()
  return readings
}

async function lists({ get }: Large, name: Floor): Promise<Reading[]> {
  const readings: Reading[] = []
  for (const [id, path] of [
    ['people.first', '/people'],
    ['people.search', '/people?find=vuori+19'],
    ['people.ending', '/people?as=guest&only=ends+soon&sort=ends'],
    ['people.far', '/people?from=15000'],
    ['people.one', '/people/p77'],
    ['people.names', '/people/names'],
    ['people.csv', '/people.csv'],
  ] as const)
    readings.push(reading(id, await timed(get(path)), name))
  return readings
}

const offer = {
  as: 'member' as const,
  role: null,
  teams: ['t0'],
  places: [{ node: nodeId(1), gives: levelActions('Reader') }],
  from: null,
  until: null,
}

async function inviting({ call }: Large, name: Floor): Promise<Reading[]> {
  const addresses = Array.from({ length: 500 }, (_, index) => ({
    mail: `new${index}@coast.example`,
    name: '',
  }))
  const edits = addresses.flatMap(({ mail }, index) =>
    invitingEdits(offer, { person: `new:p${index}`, mail, name: '' }),
  )
  const judged = await timed(() => call('POST', '/at/large/people/addresses', { as: 'member', addresses }))
  const looked = await timed(() => call('POST', '/at/large/people/offer-preview', { offer }))
  const done = await once(() => call('POST', '/at/large/changes', { edits }))
  const rows = { what: '3,000 plain rows written', value: await writingRows(3000, 1) }
  return [
    reading('people.addresses', judged, name),
    reading('people.offer', looked, name),
    reading('people.inviting', done, rows),
  ]
}

async function importing({ call }: Large, name: Floor): Promise<Reading[]> {
  const rows = Array.from({ length: 5000 }, (_, index) => ({
    mail: `row${index}@coast.example`,
    name: `Row ${index}`,
    title: 'Volunteer',
  }))
  let judged: ImportedRowView[] = []
  const judging = { rows, offer: { ...offer, teams: [], places: [] }, welcome: null }
  const judgedIn = await once(async () => {
    judged = await call<ImportedRowView[]>('POST', '/at/large/imports', judging)
  })
  const doneIn = await once(async () => {
    for (let from = 0; from < judged.length; from += 50) {
      const edits: EditRequest[] = judged.slice(from, from + 50).flatMap(row => row.edits)
      await call('POST', '/at/large/changes', { edits })
    }
  })
  const plain = { what: '25,000 plain rows in 100 transactions', value: await writingRows(25_000, 100) }
  return [reading('people.import.judged', judgedIn, name), reading('people.import.done', doneIn, plain)]
}

async function pages({ arrive }: Large): Promise<Reading[]> {
  const visitor = await arrive()
  const page = await emptyPage(visitor)
  const first = await timed(opening(visitor, '/at/large/people', 'Aino Vuori'), 5)
  const filtered = await timed(opening(visitor, '/at/large/people?find=vuori+19', 'Aino Vuori 19'), 5)
  await visitor.close()
  return [reading('people.page', first, page), reading('people.page.filtered', filtered, page)]
}
