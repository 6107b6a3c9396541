import { parse } from 'csv-parse/sync'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { ImportRow } from '#contract/requests.ts'
import { open, type Visitor, welcome } from '../../tests/client.ts'
import { at, coast, type Coast, steward } from '../../tests/coast.ts'

/** Tables of people, whatever stands in them: what is judged can be done, does what it says, and is done once. */
let world: Coast
let owner: Visitor
let lead: Visitor

const team = (name: string, key: string) => [
  {
    kind: 'team.create',
    team: `new:${key}`,
    home: `new:home-${key}`,
    name,
    note: '',
    joining: 'open',
    welcomesGuests: true,
  },
  { kind: 'member.add', team: `new:${key}`, person: world.ownerId, lead: true, ...open },
  { kind: 'grant.add', node: `new:home-${key}`, principal: `leads:new:${key}`, gives: steward, ...open },
]

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
  lead = (await welcome(world.server, owner, { name: 'Lis', role: 'role-people-lead' })).visitor
  const diver = { kind: 'role.create', role: 'new:r', name: 'Diver', note: '', rank: 30, addressable: false }
  const { status } = await owner.change(...team('Boats', 'boats'), ...team('Kit, ropes and more', 'kit'), {
    ...diver,
    seatExempt: false,
    privileges: ['view people'],
  })
  expect(status).toBe(200)
})
afterAll(() => world.server.stop())

const offer = { as: 'member', role: null, teams: [], places: [], from: null, until: null }
const judge = async (rows: readonly ImportRow[], visitor = owner) => {
  const body = { rows, offer, welcome: null }
  return (await visitor.call<ImportedRowView[]>('POST', `${at}/imports`, body)).body
}
const listed = async () => {
  const { body } = await owner.get<PageView<PersonView>>(`${at}/people`)
  return new Map(body.items.map(person => [person.mail, person]))
}

/** Mostly empty, so that one wrong cell does not make every row wrong. */
const cell = (...texts: string[]) => fc.option(fc.constantFrom(...texts), { nil: undefined, freq: 2 })
const anyRow = fc.record<ImportRow>(
  {
    mail: fc.constantFrom(
      ...Array.from({ length: 16 }, (_, index) => `p${index}@test.example`),
      'mika@test.example',
      'GUS@test.example',
      'ona@test.example',
      'nobody',
      '',
    ),
    name: cell('Ada Lowe', 'Bo', '=SUM(A1)', "'=SUM(A1)", ' Cy '),
    handle: cell('ada', 'bo.2', 'No Handle', 'mika'),
    title: cell('Skipper', '@cell', ''),
    department: cell('Science', 'Boats; Kit'),
    country: cell('Finland'),
    as: cell('member', 'Guest', 'wizard'),
    role: cell('People lead', 'diver', 'People lead; Diver', 'Member', 'Emperor', ' ; '),
    teams: cell('Boats', 'kit, ropes and more; Boats', 'boats|boats', 'No such team', ';'),
    until: cell('2027-03-31', '31.3.2027', '2020-01-01', '3/4/2027', '2027-02-30'),
  },
  { requiredKeys: ['mail'] },
)

test('what is judged is accepted as it stands, does what it says, and does nothing the second time', async () => {
  const seen = new Set<string>()
  await fc.assert(
    fc.asyncProperty(fc.array(anyRow, { minLength: 1, maxLength: 12 }), async rows => {
      const judged = await judge(rows)
      for (const { verdict, says, edits } of judged) {
        seen.add(verdict)
        expect(edits.length > 0).toBe(verdict === 'new' || verdict === 'changes')
        expect(says.length > 0 || verdict === 'as it is').toBe(true)
      }
      const edits = judged.flatMap(each => each.edits)
      const applied = edits.length > 0 ? await owner.change(...edits) : undefined
      expect(applied?.status ?? 200).toBe(200)
      const again = await judge(rows)
      for (const { verdict } of again) seen.add(verdict)
      expect(again.flatMap(each => each.edits)).toEqual([])
      expect(again.map(each => each.verdict === 'wrong')).toEqual(
        judged.map(each => each.verdict === 'wrong'),
      )
      const people = await listed()
      for (const [index, row] of rows.entries()) {
        if (judged[index]?.verdict === 'wrong') continue
        const person = people.get((row.mail ?? '').toLowerCase())
        if (row.country !== undefined) expect(person?.country).toBe('Finland')
        if (row.handle !== undefined) expect(person?.handle).toBe(row.handle)
        if (row.as !== undefined) expect(person?.kind).toBe(row.as.toLowerCase())
        if (row.until !== undefined) expect(person?.managed?.until).toBe(Date.UTC(2027, 2, 31, 23))
        const roles = (person?.managed?.roles ?? []).map(role => role.name.toLowerCase())
        for (const name of ['people lead', 'diver'])
          if (row.role?.toLowerCase().includes(name) === true) expect(roles).toContain(name)
        const teams = (person?.teams ?? []).map(each => each.name)
        if (row.teams?.includes('kit') === true) expect(teams).toContain('Kit, ropes and more')
        if (/boats/i.test(row.teams ?? '')) expect(teams).toContain('Boats')
      }
    }),
    {
      numRuns: 60,
      endOnFailure: true,
      // Two who are here are given the same new handle.
      examples: [
        [
          [
            { mail: 'p0@test.example', handle: 'first' },
            { mail: 'p1@test.example', handle: 'second' },
          ],
        ],
        [
          [
            { mail: 'p0@test.example', handle: 'bo.2' },
            { mail: 'p1@test.example', handle: 'bo.2' },
          ],
        ],
      ],
    },
  )
  expect(seen).toEqual(new Set(['new', 'changes', 'as it is', 'wrong']))
})

test('the list, taken out and brought in again, changes nobody, whoever brings it in', async () => {
  const { server, member, guest } = world
  const { status } = await owner.change(
    { kind: 'person.end', person: member.id, until: server.time.now + 5 * 864e5 + 1234 },
    { kind: 'person.describe', person: guest.id, title: '=1+1', department: '@home; "quoted", and more' },
    { kind: 'person.suspend', person: guest.id },
  )
  expect(status).toBe(200)
  // The end of somebody has passed meanwhile.
  server.time.now += 9 * 864e5
  const response = await fetch(`${server.address}/api${at}/people.csv`, { headers: { cookie: owner.cookie } })
  const heads: Record<string, keyof ImportRow | undefined> = {
    Mail: 'mail',
    Name: 'name',
    Handle: 'handle',
    Title: 'title',
    Department: 'department',
    Country: 'country',
    Kind: 'as',
    Role: 'role',
    Teams: 'teams',
    Ends: 'until',
  }
  const table = parse(await response.text(), { columns: true, bom: true })
  const rows = (table as Record<string, string>[]).map(row =>
    Object.fromEntries(
      Object.entries(row).flatMap(([head, text]) => (heads[head] === undefined ? [] : [[heads[head], text]])),
    ),
  )
  expect(rows.length).toBe((await listed()).size)
  expect(rows).toContainEqual(expect.objectContaining({ mail: 'mika@test.example', until: '2026-11-28' }))
  for (const visitor of [owner, lead]) {
    const judged = await judge(rows, visitor)
    expect(judged.filter(each => each.verdict !== 'as it is')).toEqual([])
  }
})

test('a last day that has passed is wrong, where nothing has happened for a while too', async () => {
  const rows = [{ mail: 'late@test.example', until: '2026-12-31' }]
  expect((await judge(rows))[0]).toMatchObject({ verdict: 'new' })
  world.server.time.now += 60 * 864e5
  expect((await judge(rows))[0]).toMatchObject({ verdict: 'wrong', says: ['The end is in the past.'] })
})
