import { afterAll, beforeAll, expect, test } from 'vitest'
import { addressOf } from '#contract/operations.ts'
import { type Question, topicsOf } from '#contract/topics.ts'
import type { NodeView } from '#contract/views/content.ts'
import { open, type Visitor } from '../../tests/client.ts'
import { at, editor, reader, share } from '../../tests/coast.ts'
import { type Listening, listenAs } from '../../tests/listening.ts'
import { kindOf, kinds, populated } from '../../tests/populated.ts'
import { anyOf, randomFrom } from '../../tests/random.ts'

/**
 * What is open stays true: whatever another person does, each answer that is another one now hangs on a topic that its
 * reader has heard of. And who may know nothing of it hears nothing.
 */

let town: Awaited<ReturnType<typeof populated>>
let readers: readonly Reader[]

interface Reader {
  readonly name: string
  readonly visitor: Visitor
  readonly listening: Listening
}

beforeAll(async () => {
  town = await populated()
  const { server, owner, member, guest } = town.world
  const people = { owner, member: member.visitor, guest: guest.visitor }
  readers = await Promise.all(
    Object.entries(people).map(async ([name, visitor]) => ({
      name,
      visitor,
      listening: await listenAs(visitor, server),
    })),
  )
}, 90_000)

afterAll(async () => {
  for (const { listening } of readers) listening.stop()
  await town.world.server.stop()
})

interface Asked {
  readonly question: Question
  readonly path: string
  /** What is asked about. */
  readonly id: string
}

/** Everything that can be asked, about several places and people each. */
function everyQuestion(): Asked[] {
  const { ids, member } = town.world
  const { made } = town
  const queries: Readonly<Partial<Record<Question, string>>> = {
    moveTargets: '?find=a',
    places: '?find=a',
    placesToCheck: '?find=a',
    accessToCopy: `?from=${ids.page}&what=access`,
    grants: `?places=${ids.folder}`,
    diff: '?from=0&to=9000000000000',
  }
  return (Object.keys(topicsOf) as Question[]).flatMap(question => {
    const address = addressOf(question, { slug: 'coast' })
    const isOf = (part: string) => address.includes(`/${part}/undefined`)
    const about = question.startsWith('text')
      ? [ids.page]
      : isOf('nodes')
        ? [ids.folder, ids.inner, made['new:board'] ?? '']
        : [isOf('people') ? member.id : isOf('roles') ? 'role-member' : isOf('history') ? '3' : 'nothing']
    return about.map(id => {
      const params = {
        slug: 'coast',
        id,
        person: member.id,
        action: 'change',
        column: 'none',
        revision: id,
        version: '1',
      }
      return { question, id, path: addressOf(question, params) + (queries[question] ?? '') }
    })
  })
}

/** What is counted at the time of asking, or goes up with whatever is written. */
const moving = new Set(['revision', 'lastUsed', 'lastActive'])
const settled = (question: Question, body: unknown) =>
  JSON.stringify(body, (field, value: unknown) =>
    moving.has(field) || (question === 'seats' && field === 'at') ? null : value,
  )

type Answers = ReadonlyMap<Asked, string>
async function answersFor({ visitor }: Reader, questions: readonly Asked[]): Promise<Answers> {
  const answers = questions.map(async each => {
    const { body } = await visitor.get(each.path)
    return [each, settled(each.question, body)] as const
  })
  return new Map(await Promise.all(answers))
}

/** Of each place that is asked about, itself and what it lies in, as the Owner sees it. */
async function pathsOf(questions: readonly Asked[]): Promise<ReadonlyMap<string, readonly string[]>> {
  const { owner } = town.world
  const ids = new Set(questions.flatMap(({ question, id }) => (question === 'node' ? [id] : [])))
  const paths = [...ids].map(async id => {
    const { body } = await owner.get<Partial<NodeView>>(`${at}/nodes/${id}`)
    return [id, [id, ...(body.path ?? []).map(each => each.id)]] as const
  })
  return new Map(await Promise.all(paths))
}

type Paths = Awaited<ReturnType<typeof pathsOf>>

function isCovered({ question, id }: Asked, heard: readonly string[], paths: readonly Paths[]): boolean {
  const above = paths.flatMap(each => each.get(id) ?? [id])
  const hangsOn = topicsOf[question].flatMap(topic =>
    topic === 'node:{id}' ? above.map(each => `node:${each}`) : [topic.replace('{id}', id)],
  )
  return ['own', ...hangsOn].some(topic => heard.includes(topic))
}

interface Known {
  readonly paths: Paths
  readonly answers: readonly Answers[]
}

async function known(questions: readonly Asked[]): Promise<Known> {
  const answers: Answers[] = []
  for (const each of readers) answers.push(await answersFor(each, questions))
  return { paths: await pathsOf(questions), answers }
}

/** What each reader was told since, as far as it has come. */
async function heardSince(counts: readonly number[]): Promise<string[][]> {
  await new Promise(resolve => setTimeout(resolve, 60))
  return readers.map(({ listening }, index) =>
    listening.heard
      .slice(counts[index])
      .flatMap(({ event, data }) => (event === 'changed' ? (data.topics ?? []) : ['own'])),
  )
}

const counts = () => readers.map(({ listening }) => listening.heard.length)

/** Every answer that is another one, of whose topics its reader heard none. */
function missed(questions: readonly Asked[], [before, after]: readonly [Known, Known], heard: string[][]) {
  return readers.flatMap(({ name }, index) =>
    questions.flatMap(question => {
      const is = after.answers[index]?.get(question)
      const isOther = is !== before.answers[index]?.get(question)
      const events = heard[index] ?? []
      return !isOther || isCovered(question, events, [before.paths, after.paths])
        ? []
        : [`${name}: ${question.path}, who heard ${events.join(' ')}`]
    }),
  )
}

test('a text that is written is told to those who see its page, as that alone', async () => {
  const { owner, ids, member } = town.world
  await owner.change(share(ids.page, member.id, reader))
  const questions = everyQuestion()
  const before = await known(questions)
  const so = counts()
  await owner.call('PUT', `${at}/nodes/${ids.page}/text`, { text: 'By boat', version: 0 })
  const heard = await heardSince(so)
  expect(missed(questions, [before, await known(questions)], heard)).toEqual([])
  expect(heard[0]).toEqual([`document:${ids.page}`, `within:${ids.inner}`])
})

test('what lies above all that somebody sees, and whether a team is still listed, is told by what they see', async () => {
  const { owner, ids, guest } = town.world
  const why = addressOf('explanation', { slug: 'coast', id: ids.page, person: guest.id })
  const questions: Asked[] = [
    { question: 'node', path: `${at}/nodes/${ids.page}`, id: ids.page },
    { question: 'explanation', path: why, id: ids.page },
    ...everyQuestion().filter(each => each.question === 'teams'),
  ]
  const limit = { node: ids.folder, principal: 'guests', allows: editor, sparesStewards: false, ...open }
  const unlisted = { team: town.made['new:team'], joining: 'unlisted' }
  for (const [edit, reader] of [
    [{ kind: 'limit.add', ...limit }, 2],
    [{ kind: 'team.change', ...unlisted }, 1],
  ] as const) {
    const before = await known(questions)
    const so = counts()
    expect((await owner.change(edit)).status).toBe(200)
    const heard = await heardSince(so)
    const after = await known(questions)
    expect(after.answers[reader]).not.toEqual(before.answers[reader])
    expect(missed(questions, [before, after], heard)).toEqual([])
  }
})

test('whatever is done to access, places and people', async () => {
  const { owner } = town.world
  const questions = everyQuestion()
  // Those stay who listen.
  const safe = kinds.filter(
    each => !/^(handover|person\.(suspend|reactivate|end|remove|convert))/.test(kindOf(each)),
  )
  let before = await known(questions)
  const faults: string[] = []
  const done = new Set<string>()
  for (const schema of safe) {
    const random = randomFrom(kindOf(schema).length * 31 + kindOf(schema).charCodeAt(2))
    for (let tries = 0, hits = 0; tries < 100 && hits < 2; tries += 1) {
      const edit = anyOf(schema, random, town.pool) as object
      const so = counts()
      if ((await owner.change(edit)).status !== 200) continue
      hits += 1
      done.add(kindOf(schema))
      const heard = await heardSince(so)
      const after = await known(questions)
      for (const fault of missed(questions, [before, after], heard))
        faults.push(`${JSON.stringify(edit)} ${fault}`)
      before = after
    }
  }
  expect(faults).toEqual([])
  expect(done.size).toBeGreaterThan(25)
}, 480_000)
