import { afterAll, beforeAll, expect, test } from 'vitest'
import type { PlaceAccessView } from '#contract/views/access.ts'
import type { DiffView } from '#contract/views/history.ts'
import type { DifferenceView } from '#contract/views/impact.ts'
import type { PageView } from '#contract/views/page.ts'
import { type ActionSet, noActions } from '#core/levels/action.ts'
import { open, welcome } from '../../tests/client.ts'
import { adder, at, type Coast, coast, editor, reader, share, steward } from '../../tests/coast.ts'
import { type Random, randomFrom } from '../../tests/random.ts'

/**
 * What is previewed is what is done, and the history proves it: after some dozens of changes at random, with days between them in which things begin and
 * end, every instant is answered as it was answered then, and the difference of any two is what these two differ in.
 */

let world: Coast
let people: string[]
let nodes: string[]
let team: string

beforeAll(async () => {
  world = await coast()
  const { server, owner, ids } = world
  const others = [
    await welcome(server, owner, { name: 'Ada' }),
    await welcome(server, owner, { name: 'Bo', as: 'guest' }),
  ]
  people = [world.member.id, world.guest.id, ...others.map(each => each.id)]
  const { body } = await owner.change(
    {
      kind: 'team.create',
      team: 'new:team',
      home: 'new:base',
      name: 'Divers',
      note: '',
      joining: 'request',
      welcomesGuests: true,
    },
    share('new:base', world.ownerId, steward),
    { kind: 'member.add', team: 'new:team', person: world.ownerId, lead: true, ...open },
    { kind: 'node.create', node: 'new:far', parent: ids.home, as: 'folder', name: 'Far' },
    { kind: 'node.create', node: 'new:farther', parent: 'new:far', as: 'page', name: 'Farther' },
  )
  team = body.made['new:team'] ?? ''
  nodes = [
    ids.folder,
    ids.inner,
    ids.page,
    ids.secret,
    body.made['new:far'] ?? '',
    body.made['new:farther'] ?? '',
  ]
})

afterAll(() => world.server.stop())

const day = 86_400_000

/** Something that the owner might do; refused where it makes no sense just then. */
function anyAct(random: Random, now: number): object {
  const node = random.one(nodes)
  const person = random.one(people)
  const principal = random.one([
    ...people.map(each => `person:${each}`),
    `team:${team}`,
    `leads:${team}`,
    'everyone',
  ])
  const span = {
    from: random.one([null, null, now + day]),
    until: random.one([null, null, now + 2 * day, now + 3 * day]),
  }
  const gives = random.one([reader, adder, editor, steward])
  return random.one<() => object>([
    () => ({ kind: 'grant.add', node, principal, gives, ...span }),
    () => ({ kind: 'grant.add', node, principal, gives, ...span }),
    () => ({ kind: 'limit.add', node, principal, allows: reader, sparesStewards: true, ...span }),
    () => ({ kind: 'limit.add', node, principal: 'guests', allows: 0, sparesStewards: true, ...span }),
    () => ({ kind: 'node.break', node, mode: random.one(['keep', 'empty']) }),
    () => ({ kind: 'node.restore', node, drop: random.one(['copies', 'none', 'own']) }),
    () => ({ kind: 'node.move', node, parent: random.one([...nodes, world.ids.home]) }),
    () => ({ kind: 'node.state', node, archived: random.one([true, false]) }),
    () => ({ kind: 'member.add', team, person, lead: random.one([true, false]), ...span, ...open }),
    () => ({ kind: 'member.remove', team, person }),
    () => ({ kind: 'person.suspend', person }),
    () => ({ kind: 'person.reactivate', person }),
    () => ({ kind: 'team.change', team, welcomesGuests: random.one([true, false]) }),
    () => ({ kind: 'undo', revision: 8 + random.below(60) }),
  ])()
}

type Answers = ReadonlyMap<string, ActionSet>

/** What each person may do at each place, by `person place`; at an instant, or now. */
async function answers(instant?: number): Promise<Answers> {
  const found = new Map<string, ActionSet>()
  const query = instant === undefined ? '' : `?at=${instant}`
  for (const person of people) {
    const { body } = await world.owner.get<PageView<PlaceAccessView>>(`${at}/people/${person}/places${query}`)
    expect(body.next).toBeNull()
    for (const { id, actions } of body.items)
      if (nodes.includes(id)) found.set(`${person} ${id}`, actions as ActionSet)
  }
  return found
}

interface Taken {
  readonly instant: number
  readonly answers: Answers
}

async function anyHistory(random: Random): Promise<Taken[]> {
  const { server } = world
  const taken: Taken[] = []
  let refused = 0
  while (taken.length < 60) {
    server.time.now += random.below(36) * 3_600_000
    if (await isDone(anyAct(random, server.time.now)))
      taken.push({ instant: server.time.now, answers: await answers() })
    else refused += 1
    expect(refused).toBeLessThan(500)
  }
  return taken
}

/** Does it, if that is allowed: what was previewed is then what it did, for everybody and everywhere. */
async function isDone(act: object): Promise<boolean> {
  const { owner } = world
  // What is due by now passes before anything is previewed.
  await owner.change({ kind: 'person.reactivate', person: world.ownerId })
  const before = await answers()
  const preview = await owner.preview(act)
  const { status } = await owner.change(act)
  expect([act, status === 200]).toEqual([act, 'impact' in preview])
  if (status !== 200) return false
  const [now] = preview.impact
  expect([act, rowsOf(now?.differences ?? [])]).toEqual([act, between(before, await answers())])
  return true
}

/** Differences of those and there that are looked at, as `between` says them. */
function rowsOf(views: readonly DifferenceView[]): Record<string, readonly [number, number]> {
  const looked = views.filter(each => people.includes(each.person.id) && nodes.includes(each.place.id))
  expect(looked.every(each => each.places === 1)).toBe(true)
  return Object.fromEntries(
    looked.map(each => [pairKey(each.person.id, each.place.id), [each.before, each.after] as const]),
  )
}

const pairKey = (person: string, node: string) => `${person} ${node}`

function between(from: Answers, to: Answers): Record<string, readonly [number, number]> {
  const keys = people.flatMap(person => nodes.map(node => pairKey(person, node)))
  return Object.fromEntries(
    keys.flatMap(key => {
      const [before, after] = [from.get(key) ?? noActions, to.get(key) ?? noActions]
      return before === after ? [] : [[key, [before, after] as const]]
    }),
  )
}

test('each act does what was previewed; every instant is answered as it was then, and any two differ in what their difference says', async () => {
  const random = randomFrom(20_261_126)
  const taken = await anyHistory(random)
  for (const { instant, answers: then } of taken) expect(await answers(instant)).toEqual(then)
  let differing = 0
  for (let round = 0; round < 100; round += 1) {
    const [first, last] = [random.one(taken), random.one(taken)]
    const [from, to] = first.instant < last.instant ? [first, last] : [last, first]
    const { body } = await world.owner.get<DiffView>(`${at}/diff?from=${from.instant}&to=${to.instant}`)
    const views = body.changed.filter(
      each => people.includes(each.person.id) && nodes.includes(each.place.id),
    )
    expect(views.every(each => each.places === 1 && each.by.length > 0)).toBe(true)
    const rows = views.map(
      each => [pairKey(each.person.id, each.place.id), [each.before, each.after]] as const,
    )
    expect(Object.fromEntries(rows)).toEqual(between(from.answers, to.answers))
    differing += rows.length
  }
  expect(differing).toBeGreaterThan(200)
}, 240_000)
