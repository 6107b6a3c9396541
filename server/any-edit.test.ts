import { afterAll, beforeAll, expect, test } from 'vitest'
import type { TreeView } from '#contract/views/content.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { at, type Coast } from './tests/coast.ts'
import { kindOf, kinds, populated } from './tests/populated.ts'
import { anyOf, type Pool, randomFrom } from './tests/random.ts'

/**
 * Edits of every kind, made at random from the schemas by which they come in, about what is there and what is not: each is
 * done or refused in a sentence, none is a fault of the server's, and what is done is what stands in the file.
 */

let world: Coast
let pool: Pool

beforeAll(async () => {
  ;({ world, pool } = await populated())
})

afterAll(() => world.server.stop())

function expectClear({ type, title, detail }: Problem): void {
  expect(type).toMatch(/^urn:noskel:problem:[a-z-]+$/)
  expect(type).not.toBe('urn:noskel:problem:fault')
  expect(`${title} ${detail}`).toMatch(/^[A-Z].*\./)
  expect(`${title} ${detail}`).not.toMatch(/undefined|null|NaN|\[object/)
}

test.each(kinds.map(schema => [kindOf(schema), schema] as const))(
  'whatever a %s is about, it is previewed or refused clearly',
  async (kind, schema) => {
    const random = randomFrom(kind.length * 7919 + kind.charCodeAt(0))
    let sound = 0
    for (let round = 0; round < 14; round += 1) {
      const edit = anyOf(schema, random, pool) as object
      const by = random.one([world.owner, world.owner, world.member.visitor, world.guest.visitor])
      const body = await by.preview(edit)
      const isPreviewed = (body as Partial<PreviewView>).impact !== undefined
      if (!isPreviewed) expectClear(body)
      if (isPreviewed || body.type !== 'urn:noskel:problem:bad-input') sound += 1
    }
    expect([kind, sound > 0]).toEqual([kind, true])
  },
)

test.each(kinds.map(schema => [kindOf(schema), schema] as const))(
  'a %s that lacks a field, has one of the wrong sort or one too many is refused with where it is wrong',
  async (kind, schema) => {
    const random = randomFrom(4242)
    const edit = anyOf(schema, random, pool) as Record<string, unknown>
    const [field] = (schema.required ?? []).filter(each => each !== 'kind')
    const wrong: Record<string, unknown>[] = [
      { ...edit, surplus: 1 },
      ...(field === undefined
        ? []
        : [
            Object.fromEntries(Object.entries(edit).filter(([name]) => name !== field)),
            { ...edit, [field]: { not: 'this' } },
          ]),
    ]
    for (const each of wrong) {
      const { status, body } = await world.owner.change(each)
      expect([kind, status, body.type]).toEqual([kind, 400, 'urn:noskel:problem:bad-input'])
      expect(body.faults?.some(fault => fault.at.startsWith('edits'))).toBe(true)
    }
  },
)

/** What of the workspace is told to somebody. */
const answersOf = async (visitor: Coast['owner']) => [
  (await visitor.get<TreeView>(`${at}/tree`)).body,
  (await visitor.get<TeamView[]>(`${at}/teams`)).body,
  (await visitor.get(`${at}/people/names`)).body,
  (await visitor.get(`${at}/bin`)).body,
]

test('what came of hundreds of them stands in the file as it stands in memory', async () => {
  const random = randomFrom(77)
  const { owner, member, server } = world
  // Nobody shuts themselves out here: what is asked afterwards is asked by the same people.
  const safe = kinds.filter(each => !/^(person|handover|invitation|seats|workspace)\./.test(kindOf(each)))
  let done = 0
  for (let round = 0; round < 800; round += 1) {
    const edit = anyOf(random.one(safe), random, pool) as object
    const { status, body } = await random.one([owner, owner, member.visitor]).change(edit)
    if (status === 200) done += 1
    else expectClear(body)
  }
  expect(done).toBeGreaterThan(30)
  const before = [await answersOf(owner), await answersOf(member.visitor)]
  await server.restart()
  expect([await answersOf(owner), await answersOf(member.visitor)]).toEqual(before)
}, 90_000)
