import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import { invite, open, tokenFor, Visitor, welcome } from '../../tests/client.ts'
import { at, coast, type Coast, steward } from '../../tests/coast.ts'

/** The list of people with many in it: its pages, what it finds as time passes, and what it keeps to those who look after people. */
let world: Coast
let owner: Visitor
const day = 864e5
/** The order of names, by another hand: numbers in them count as numbers. */
const byName = new Intl.Collator('en', { numeric: true })
/** Comes after every name. */
const last = '\uffff'

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

const ask = async (query: string, visitor = owner) =>
  (await visitor.get<PageView<PersonView>>(`${at}/people?${query}`)).body
const names = async (query: string, visitor = owner) =>
  (await ask(query, visitor)).items.map(person => person.name)
const marks = [
  'ends soon',
  'long absent',
  'dead link',
  'no contact',
  'no second step',
  'not confirmed',
  'in no team',
]
const sorts = [
  ...['name', 'handle', 'mail', 'role', 'teams', 'department', 'contact', 'inviter'],
  ...['joined', 'active', 'ends', 'status', 'seat', 'link'],
]
const queries = [
  '',
  'as=member',
  'as=guest',
  'find=a',
  'role=role-member',
  'role=role-people-lead',
  ...['active', 'invited', 'suspended', 'coming', 'over'].map(status => `status=${status}`),
  ...marks.map(mark => `only=${mark.replaceAll(' ', '+')}`),
  ...sorts.flatMap(sort => [`sort=${sort}`, `sort=${sort}&down=1`]),
]

test('tells a colleague nothing of anybody’s status, in which order or by whichever words it is asked', async () => {
  const { server, member, guest } = world
  const [una, wim] = [
    await welcome(server, owner, { name: 'Una' }),
    await welcome(server, owner, { name: 'Wim' }),
  ]
  const seenBy = async () => {
    const lists: string[][] = []
    for (const query of queries) lists.push(await names(query, member.visitor))
    return lists
  }
  const before = await seenBy()
  const { status } = await owner.change(
    { kind: 'person.end', person: una.id, until: server.time.now + 9 * day },
    { kind: 'person.end', person: guest.id, until: server.time.now + 80 * day },
    {
      kind: 'role.assign',
      person: wim.id,
      role: 'role-people-lead',
      scope: { over: 'workspace' },
      ...open,
    },
    invite('not.here@test.example', { name: 'Not here' }),
  )
  expect(status).toBe(200)
  server.time.now += 60_000
  await wim.visitor.get(at)
  expect(await seenBy()).toEqual(before)
  // Whoever looks after people does find it.
  expect(await names('only=ends+soon')).toEqual(['Una'])
  expect(await names('role=role-people-lead')).toEqual(['Wim'])
  expect((await names('sort=ends')).slice(0, 2)).toEqual(['Una', 'Gus'])
  expect((await names('sort=active')).indexOf('Wim')).toBeLessThan(
    (await names('sort=active')).indexOf('Una'),
  )
})

test('what stands out changes as time passes, with nobody doing anything', async () => {
  const { server } = world
  expect([await names('only=dead+link'), await names('only=long+absent')]).toEqual([[], []])
  expect([await names('status=active&find=una'), await names('status=over')]).toEqual([['Una'], []])
  server.time.now += 10 * day
  expect([await names('status=active&find=una'), await names('status=over')]).toEqual([[], ['Una']])
  server.time.now += 25 * day
  await owner.get(at)
  expect(await names('only=dead+link')).toEqual(['Not here'])
  expect(await names('only=long+absent')).toEqual(['Gus', 'Mika', 'Wim'])
})

test('a guest whose contact is suspended stands out, until the contact is back', async () => {
  const { server, guest } = world
  const { id } = await welcome(server, owner, { name: 'Ida' })
  expect(await names('only=no+contact')).toEqual([])
  await owner.change(
    { kind: 'person.contact', person: guest.id, contact: id },
    { kind: 'person.suspend', person: id },
  )
  expect(await names('only=no+contact')).toEqual(['Gus'])
  await owner.change({ kind: 'person.reactivate', person: id })
  expect(await names('only=no+contact')).toEqual([])
})

describe('with several hundred people', () => {
  beforeAll(async () => {
    const making = { kind: 'team.create', team: 'new:t', home: 'new:h', name: 'Tides', note: '' }
    const leads = { kind: 'grant.add', node: 'new:h', principal: 'leads:new:t', gives: steward, ...open }
    const many = Array.from({ length: 260 }, (_, index) =>
      invite(`h${index}@test.example`, {
        person: `new:p${index}`,
        name: `Helper ${(index * 7) % 260}`,
        as: index % 3 === 0 ? 'guest' : 'member',
        until: index % 5 === 0 ? world.server.time.now + (index + 1) * day : null,
      }),
    )
    const { status } = await owner.change(
      { ...making, joining: 'open', welcomesGuests: true },
      leads,
      ...many,
      ...[world.ownerId, 'new:p2', 'new:p3', 'new:p4'].map((person, index) => ({
        kind: 'member.add',
        team: 'new:t',
        person,
        lead: index === 0,
        ...open,
      })),
    )
    expect(status).toBe(200)
  })

  test.each(sorts)(
    'its pages by %s hold everybody once, in one order, which can be turned round',
    async sort => {
      const paged = async (query: string) => {
        const found: PersonView[] = []
        for (let from: number | null = 0; from !== null;) {
          const page: PageView<PersonView> = await ask(`${query}&from=${from}`)
          found.push(...page.items)
          expect(page.total).toBe(267)
          from = page.next
        }
        return found
      }
      const up = await paged(`sort=${sort}`)
      expect(new Set(up.map(person => person.id)).size).toBe(267)
      const { body: ids } = await owner.get<string[]>(`${at}/people/ids?sort=${sort}`)
      expect(ids).toEqual(up.map(person => person.id))
      const keyOf = (person: PersonView): string | number =>
        ({
          name: person.name,
          mail: person.mail,
          joined: person.joinedAt ?? Infinity,
          active: -(person.managed?.lastActive ?? 0),
          ends: person.managed?.until ?? Infinity,
          status: person.status,
          handle: person.handle ?? last,
          role: person.managed?.roles.map(role => role.name).sort()[0] ?? last,
          teams: person.teams.find(team => team.lead || !team.isForAll)?.name ?? last,
          department: person.department || last,
          contact: person.contact?.name ?? last,
          inviter: person.managed?.invitedBy ?? last,
          seat: person.managed?.takesSeat === true ? 0 : 1,
          link: person.managed?.invitation?.until ?? Infinity,
        })[sort] ?? ''
      const isBefore = (a: string | number, b: string | number) =>
        typeof a === 'number' ? a < Number(b) : byName.compare(a, String(b)) < 0
      const isInOrder = (found: readonly PersonView[]) => {
        const keys = found.map(keyOf)
        return keys.every((key, index) => index === 0 || !isBefore(key, keys[index - 1]!))
      }
      expect(isInOrder(up)).toBe(true)
      expect(isInOrder((await paged(`sort=${sort}&down=1`)).toReversed())).toBe(true)
    },
  )

  test('any two words find whom both find', async () => {
    const ids = async (query: string) =>
      new Set((await owner.get<string[]>(`${at}/people/ids?${query}`)).body)
    const words = ['as=guest', 'status=invited', 'find=helper+1', 'role=role-guest', 'only=ends+soon']
    const found = await Promise.all(words.map(ids))
    for (const [index, word] of words.entries())
      for (const [other, second] of words.entries()) {
        if (index >= other) continue
        const both = await ids(`${word}&${second}`)
        expect(both).toEqual(new Set([...found[index]!].filter(id => found[other]!.has(id))))
        expect(both.size).toBeGreaterThan(0)
      }
    expect((await ask('find=tides')).total).toBe(4)
  })

  test('somebody invited among them comes in and stands there as here', async () => {
    const visitor = new Visitor(world.server)
    const token = await tokenFor(owner, 'h4@test.example')
    await visitor.enter('/invitations/accept', { token, name: 'Hedda', password: 'a long enough secret' })
    const { items } = await ask('find=hedda')
    expect(items[0]).toMatchObject({ status: 'active', teams: [{ name: 'Tides' }], mail: 'h4@test.example' })
  })
})
