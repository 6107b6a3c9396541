import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { HistoryView } from '#contract/views/history.ts'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { HolderView, RoleToAssignView, RolesView, SeatsView } from '#contract/views/roles.ts'
import { invite, open, type Visitor, welcome } from '../../tests/client.ts'
import { at } from '../../tests/coast.ts'
import { giving, making, personSeen, type RoleCast, roleCast } from '../../tests/roles.ts'

/** Roles over HTTP: what is told of them and what they do, helpers within their scope, seats. */
let world: RoleCast
let owner: Visitor
beforeAll(async () => {
  world = await roleCast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

const rolesSeen = async (visitor: Visitor) => (await visitor.get<RolesView>(`${at}/roles`)).body

test('roles are seen with who holds them and what of them is one’s own to change', async () => {
  const view = await rolesSeen(world.kim.visitor)
  const may = view.roles.filter(role => role.mayChange).map(role => role.name)
  expect([may, view.below, view.mine['security']]).toEqual([['Big', 'Help', 'Low'], 50, undefined])
  expect(view.roles.find(role => role.name === 'Keeper')).toMatchObject({ people: 1, madeBy: 'Ona' })
  expect(view.people['edit roles']).toBe(2)
  for (const path of ['/roles', `/roles/${world.roles.Big}/holders`, '/seats', '/owners', '/sessions'])
    expect((await world.member.visitor.get(`${at}${path}`)).status).toBe(404)
})

test('what changes of roles do is told before, and compared when it is done', async () => {
  const change = { kind: 'role.change', role: world.roles.Low, privileges: ['view people', 'edit settings'] }
  const preview = await world.kim.visitor.preview(change)
  expect(preview.impact[0]?.powers).toEqual([])
  const taken = await owner.preview({
    kind: 'role.change',
    role: world.roles.Keeper,
    privileges: ['view people'],
  })
  const kims = taken.impact[0]?.powers.find(each => each.person.id === world.kim.id)
  expect(kims?.parts[0]?.loses).toContain('edit roles')
  expect(kims).toMatchObject({ rankBefore: 50, rankAfter: 50 })
  expect((await owner.send('/changes', { edits: [change], preview: taken.digest })).status).toBe(409)
})

test('just those roles are offered to be taken, and just those people to be suspended, of whom that is not refused', async () => {
  let offered = 0
  for (const visitor of [owner, world.kim.visitor]) {
    const { body } = await visitor.get<PageView<PersonView>>(`${at}/people?kept=1`)
    for (const { id, status } of body.items) {
      const { managed, takeable } = await personSeen(visitor, id)
      const isRefused = async (edit: object) => 'title' in (await visitor.preview(edit))
      for (const { id: holding, role } of managed?.roles ?? []) {
        const isOffered = takeable.includes(holding)
        expect(await isRefused({ kind: 'role.unassign', holding })).toBe(!isOffered)
        const { body: holders } = await visitor.get<HolderView[]>(`${at}/roles/${role}/holders`)
        expect(holders.find(each => each.holding === holding)?.mayTake).toBe(isOffered)
        offered += Number(isOffered)
      }
      if (status === 'active')
        expect(await isRefused({ kind: 'person.suspend', person: id })).toBe(
          managed?.may.includes('suspend') !== true,
        )
    }
  }
  expect(offered).toBeGreaterThan(2)
  const [sole] = (await owner.get<HolderView[]>(`${at}/roles/role-owner/holders`)).body
  expect(sole).toMatchObject({ person: { name: 'Ona' }, mayTake: false })
})

describe('a helper over the people of a team', () => {
  let nia: { visitor: Visitor; id: string }
  beforeAll(async () => {
    nia = await welcome(world.server, owner, { name: 'Nia' })
    const [member] = (await personSeen(owner, nia.id)).managed?.roles ?? []
    await world.made(giving(nia.id, world.roles.Help, { over: 'team', team: world.team }), {
      kind: 'role.unassign',
      holding: member?.id,
    })
  })

  test('finds just those, may do the one act, and is told nothing of the others', async () => {
    const { body } = await nia.visitor.get<PageView<PersonView>>(`${at}/people?kept=1`)
    expect(body.items.map(each => each.name).sort()).toEqual(['Mika', 'Ona'])
    const mika = await personSeen(nia.visitor, world.member.id)
    expect(mika.managed?.may).toEqual(['reset sign-in'])
    expect((await nia.visitor.call('POST', `${at}/people/${world.member.id}/sign-in-link`, {})).status).toBe(
      204,
    )
    for (const path of [
      `/people/${world.kim.id}`,
      '/roles',
      '/settings',
      '/seats',
      '/onboarding',
      '/owners',
      '/sessions',
    ])
      expect([path, (await nia.visitor.get(`${at}${path}`)).status]).toEqual([path, 404])
    const outside = await nia.visitor.call('POST', `${at}/people/${world.kim.id}/sign-in-link`, {})
    expect(outside.status).toBe(404)
    for (const kind of ['person.suspend', 'person.remove'])
      expect((await nia.visitor.change({ kind, person: world.member.id })).status).toBe(403)
  })

  test('is told which privileges sleep where a role is held', async () => {
    const offered = (await owner.get<RoleToAssignView[]>(`${at}/people/${nia.id}/roles-to-assign`)).body
    const keeper = offered.find(each => each.name === 'Keeper')
    const asleep = (name: string) => keeper?.scopes.find(each => each.name === name)?.asleep
    expect([asleep('the whole workspace'), asleep('Volunteers')]).toEqual([
      [],
      ['invite members', 'view roles', 'edit roles', 'read the history', 'edit settings'],
    ])
    const { powers } = await personSeen(owner, nia.id)
    expect(powers?.map(each => [each.privilege, each.from[0]?.over])).toEqual([
      ['view people', 'Volunteers'],
      ['reset sign-in', 'Volunteers'],
    ])
  })
})

test('a role in use goes once its people are moved, in one act', async () => {
  const role = (await world.made(making('Passing', 15, [])))['new:role'] ?? ''
  await world.made(giving(world.kim.id, role), giving(world.member.id, role))
  expect((await owner.change({ kind: 'role.delete', role })).body.type).toBe('urn:noskel:problem:in-use')
  const held = (await owner.get<HolderView[]>(`${at}/roles/${role}/holders`)).body
  const moving = held.flatMap(each => [
    { kind: 'role.unassign', holding: each.holding },
    ...(each.person.id === world.kim.id ? [] : [giving(each.person.id, world.roles.Low)]),
  ])
  expect((await owner.change(...moving, { kind: 'role.delete', role })).status).toBe(200)
  expect((await world.holders('Low')).map(each => each.person.name)).toEqual(['Kim', 'Mika'])
})

describe('seats', () => {
  const seats = async () => (await owner.get<SeatsView>(`${at}/seats`)).body
  test('past the last one a list is refused as a whole, a table too; guests still come', async () => {
    const { taken } = await seats()
    await world.made({ kind: 'seats.change', seats: taken + 1 })
    const list = ['a', 'b'].map(name => invite(`${name}@seat.example`, { person: `new:${name}` }))
    const refused = await owner.change(...list)
    expect(refused.body).toMatchObject({
      type: 'urn:noskel:problem:no-seat',
      title: 'This needs 2 seats, and 1 is free.',
      detail: 'Free a seat, invite people as guests, or ask an owner for more seats.',
    })
    const table = {
      rows: [{ mail: 'a@seat.example' }, { mail: 'b@seat.example' }, { mail: 'c@seat.example', as: 'guest' }],
      offer: { as: 'member', role: null, teams: [], places: [], ...open },
      welcome: null,
    }
    const judged = await owner.call<ImportedRowView[]>('POST', `${at}/imports`, table)
    expect(judged.body.map(each => each.verdict)).toEqual(['wrong', 'wrong', 'new'])
    expect(judged.body[0]?.says[0]).toContain('2 seats are needed, 1 is free')
    expect((await seats()).taken).toBe(taken)
    await world.made(list[0] ?? {}, invite('guest@seat.example', { as: 'guest', person: 'new:g' }))
    expect(await seats()).toMatchObject({ taken: taken + 1, parts: { invited: 1 } })
  })

  test('a removed person’s is free at once, a suspended one’s as it is set', async () => {
    const sam = await welcome(world.server, owner, { name: 'Sam', as: 'guest' })
    await world.made({ kind: 'seats.change', seats: 99 })
    await world.made({ kind: 'person.convert', person: sam.id, as: 'member', taker: null })
    const { taken } = await seats()
    await world.made({ kind: 'person.suspend', person: sam.id })
    expect(await seats()).toMatchObject({ taken, parts: { suspended: 1 } })
    await world.made({ kind: 'seats.change', suspendedHoldSeats: false })
    expect(await seats()).toMatchObject({ taken: taken - 1, parts: { 'suspended without': 1 } })
    await world.made({ kind: 'person.remove', person: sam.id })
    expect((await seats()).taken).toBe(taken - 1)
  })

  test('more or fewer begin with the next month there, by themselves, and stand in the drawing', async () => {
    await world.made({ kind: 'seats.change', seats: 50, when: 'next period' })
    const from = Date.UTC(2026, 11, 1)
    expect(await seats()).toMatchObject({ bought: 99, next: { seats: 50, from }, nextPeriod: from })
    world.server.time.now = from + 5000
    await expect.poll(async () => (await seats()).bought, { timeout: 4000 }).toBe(50)
    const { past, next } = await seats()
    expect([next, past.at(-1)?.bought, past[0]?.bought, past.length > 5]).toEqual([null, 50, 99, true])
    const { body } = await owner.get<HistoryView>(`${at}/history?category=workspace`)
    expect(body.entries[0]).toMatchObject({
      author: null,
      events: [{ text: 'set the number of seats to 50' }],
    })
  })
})
