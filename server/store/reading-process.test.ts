import type { RowsView } from '#contract/views/boards.ts'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { addressOf, type Operation, operationNames, operations } from '#contract/operations.ts'
import { isSchema } from '#contract/route.ts'
import { routes } from '#contract/routes.ts'
import { password, Visitor } from '../tests/client.ts'
import { at, boardIn, type Coast, coast, editor, onboarding, reader, share, teamOf } from '../tests/coast.ts'
import { pdf } from '../tests/samples.ts'
import { fileIn } from '../tests/uploads.ts'
import { listenAs } from '../tests/listening.ts'
import { type ServerProcess, startProcess } from '../tests/process.ts'

/** A second process on the same folder, which only answers: it follows what the first one writes, and answers alike. */

let world: Coast
let second: ServerProcess
let things: Readonly<Record<string, string>>

beforeAll(async () => {
  world = await coast({ inRealTime: true })
  const { owner, ownerId, member, ids } = world
  const { body: before } = await owner.change(...teamOf(ownerId, { name: 'Boats' }), ...onboarding)
  second = await startProcess(world.server.dataDir, { env: { READ_ONLY: '1' }, flags: ['--demo'] })
  // From here on all of it is heard, not loaded.
  const { body } = await owner.change(
    ...boardIn(ids.folder),
    share(ids.folder, member.id, editor),
    share(ids.inner, member.id, reader, Date.now() + 86_400_000),
    { kind: 'session.begin', session: 'new:session', through: member.id, reason: 'They asked' },
  )
  things = { ...before.made, ...body.made }
  await owner.call('POST', `${at}/nodes/${things['new:board'] ?? ''}/board/cells`, {
    rows: [{ row: 'new:row', section: null }],
    cells: [
      { row: 'new:row', column: 'name', value: 'Dinghy', seen: 0 },
      { row: 'new:row', column: things['new:column'], value: '40', seen: 0 },
    ],
  })
  const { body: rows } = await owner.get<RowsView>(`${at}/nodes/${things['new:board'] ?? ''}/board/rows`)
  things = { ...things, row: rows.rows[0]?.id ?? '' }
  await owner.call('PUT', `${at}/nodes/${ids.page}/text`, { text: 'By boat', version: 0 })
  const file = await fileIn(world.server, owner, { name: 'f.pdf', bytes: pdf('By boat'), place: ids.folder })
  things = { ...things, file }
  await owner.call('POST', `${at}/drafts`, { edits: [share(ids.page, member.id, reader)] })
  await owner.change({ kind: 'node.describe', node: ids.secret, name: 'Old Nests' })
}, 90_000)

afterAll(async () => {
  await second.end('SIGKILL')
  await world.server.stop()
})

/** What stands in the addresses of what can be asked. */
function paramsOf(operation: Operation): Readonly<Record<string, string>> {
  const { ids, member } = world
  const id = {
    columns: things['new:board'],
    board: things['new:board'],
    boardRows: things['new:board'],
    boardTotals: things['new:board'],
    editedCells: things['new:board'],
    boardCsv: things['new:board'],
    row: things['row'],
    rowHistory: things['row'],
    comments: things['row'],
    peopleOfColumn: things['new:board'],
    text: ids.page,
    textVersions: ids.page,
    textVersion: ids.page,
    ...Object.fromEntries(
      operationNames.filter(each => each.startsWith('file')).map(each => [each, things['file']]),
    ),
    viewed: things['new:session'],
    holders: 'role-owner',
    auditEntry: '',
    draft: things['draft'],
    draftItems: things['draft'],
    draftRecipients: things['draft'],
  } as Readonly<Partial<Record<Operation, string>>>
  const isOfPerson = operations[operation][1].includes('/people/{id}')
  return {
    slug: 'coast',
    id: id[operation] ?? (isOfPerson ? member.id : ids.folder),
    person: member.id,
    action: 'change',
    column: things['new:column'] ?? '',
    revision: '3',
    version: '1',
    page: '1',
  }
}

/** Both are asked about the same span of time. */
const instant = Date.now() + 600_000

const queryOf = (operation: Operation): string => {
  const { ids } = world
  const queries: Readonly<Partial<Record<Operation, string>>> = {
    moveTargets: '?find=a',
    places: '?find=Du',
    search: '?find=nests',
    placesToCheck: '?find=Du',
    accessToCopy: `?from=${ids.folder}&what=access`,
    grants: `?places=${ids.folder}`,
    diff: `?from=0&to=${String(instant)}`,
  }
  return queries[operation] ?? ''
}

/** A stream has no end, a picture no words; the demo's mails go out at one of both. */
const leftOut: readonly Operation[] = ['live', 'picture', 'peopleCsv', 'mailbox', 'zip', 'zipOfPlaces']

/** When somebody was here last is written down once a minute: until then each process knows its own. Seats are counted at the time of asking. */
const settled = (operation: Operation, body: unknown): unknown =>
  JSON.parse(JSON.stringify(body), (field, value: unknown) =>
    field === 'lastUsed' || field === 'lastActive' || (operation === 'seats' && field === 'at')
      ? null
      : value,
  )

/** Asks one server until it is at a revision at least; how long that took, in ms. */
async function until(visitor: Visitor, revision: number): Promise<number> {
  const began = performance.now()
  for (;;) {
    const { headers } = await visitor.get(at)
    if (Number(headers.get('noskel-revision')) >= revision) return performance.now() - began
    if (performance.now() - began > 10_000) throw new Error(`it never came to revision ${revision}`)
  }
}

const revisionAt = async (visitor: Visitor) => Number((await visitor.get(at)).headers.get('noskel-revision'))

// Some hundred questions are asked of two processes: on a busy machine that takes its time.
test('answers every question as the first one does, whoever asks', { timeout: 90_000 }, async () => {
  const { owner, member, guest } = world
  const { body: drafts } = await owner.get<{ draft: { id: string } }>(`${at}/drafts`)
  things = { ...things, draft: drafts.draft.id }
  await until(owner.at(second), await revisionAt(owner))
  // What is found by words comes a moment after it is written.
  await world.server.indexed()
  const all = operationNames.filter(each => operations[each][0] === 'GET' && !leftOut.includes(each))
  const questions = all.filter(each => isSchema(routes[each].answer))
  const answered = new Set<Operation>()
  for (const visitor of [owner, member.visitor, guest.visitor, new Visitor(world.server)])
    for (const operation of questions) {
      const path = addressOf(operation, paramsOf(operation)) + queryOf(operation)
      const [here, there] = [await visitor.get(path), await visitor.at(second).get(path)]
      expect([operation, there.status, settled(operation, there.body)]).toEqual([
        operation,
        here.status,
        settled(operation, here.body),
      ])
      expect(there.headers.get('noskel-revision')).toBe(here.headers.get('noskel-revision'))
      if (here.status === 200) answered.add(operation)
    }
  expect(questions.filter(each => !answered.has(each))).toEqual([])
  for (const visitor of [owner, guest.visitor])
    for (const operation of all.filter(each => !isSchema(routes[each].answer))) {
      const path = addressOf(operation, paramsOf(operation))
      const [here, there] = [await visitor.text(path), await visitor.at(second).text(path)]
      expect([operation, there]).toEqual([operation, here])
      expect(here.includes('urn:noskel:problem')).toBe(visitor !== owner)
    }
})

test('follows each change soon, and tells open pages of it', async () => {
  const { owner, member, server, ids } = world
  const there = owner.at(second)
  const listening = await listenAs(member.visitor, { ...server, address: second.address })
  const times: number[] = []
  for (let round = 0; round < 10; round += 1) {
    const { body } = await owner.change({ kind: 'node.describe', node: ids.folder, name: `Dunes ${round}` })
    times.push(await until(there, body.revision))
  }
  // Beside other tests a machine has pauses of its own: bench/following.ts tells the times.
  expect(Math.min(...times)).toBeLessThan(200)
  await listening.until(10)
  expect(listening.heard.map(each => each.event)).toEqual(Array(10).fill('changed'))
  listening.stop()
})

test('catches up after it stood still', async () => {
  const { owner, ids } = world
  second.child.kill('SIGSTOP')
  let revision = 0
  for (let round = 0; round < 30; round += 1)
    ({ revision } = (
      await owner.change({ kind: 'node.describe', node: ids.inner, name: `Maps ${round}` })
    ).body)
  second.child.kill('SIGCONT')
  await until(owner.at(second), revision)
  const path = `${at}/nodes/${ids.inner}`
  expect((await owner.at(second).get(path)).body).toEqual((await owner.get(path)).body)
})

test('changes nothing, and says where that is done', async () => {
  const { owner, ids } = world
  const there = owner.at(second)
  const refusal = { status: 503, body: { type: 'urn:noskel:problem:reads-only' } }
  expect(await there.change({ kind: 'node.describe', node: ids.folder, name: 'Elsewhere' })).toMatchObject(
    refusal,
  )
  expect(await there.call('POST', `${at}/notifications/read`, { isRead: true })).toMatchObject(refusal)
  expect(await there.call('PUT', '/account', { language: 'de' })).toMatchObject(refusal)
})

test('knows sign-ins that began and ended elsewhere, and counts wrong tries together', async () => {
  const { server } = world
  const mail = 'gus@test.example'
  const here = new Visitor(server)
  await here.enter('/session', { mail, password })
  const there = here.at(second)
  expect((await there.get(at)).status).toBe(200)
  const begunThere = new Visitor(second)
  await begunThere.enter('/session', { mail, password })
  expect((await begunThere.at(server).get(at)).status).toBe(200)
  await begunThere.call('DELETE', '/session')
  await expect.poll(async () => (await begunThere.at(server).get('/account')).status).toBe(401)
  await here.call('DELETE', '/session')
  await expect.poll(async () => (await here.at(second).get('/account')).status).toBe(401)
  const guess = (at: Pick<ServerProcess, 'address'>) =>
    new Visitor(at).enter('/session', { mail, password: 'wrong' }).then(({ status }) => status)
  const tries: number[] = []
  for (let count = 0; count < 3; count += 1) tries.push(await guess(server), await guess(second))
  expect(tries).toEqual([401, 401, 401, 401, 401, 429])
})
