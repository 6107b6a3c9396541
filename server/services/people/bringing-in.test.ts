import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { AddressView, ImportedRowView, OfferView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonDetailView, PersonView } from '#contract/views/people.ts'
import { invite, open, type Visitor } from '../../tests/client.ts'
import { at, coast, type Coast, reader, steward } from '../../tests/coast.ts'

/** How people are brought in: lists of addresses, tables, offers that are looked through and changed. */
let world: Coast
let owner: Visitor

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })
const offer = {
  as: 'member',
  role: null,
  teams: [] as string[],
  places: [] as object[],
  from: null,
  until: null,
}
const people = async (query: string) => (await owner.get<PageView<PersonView>>(`${at}/people?${query}`)).body
const ask = async <T>(path: string, body: object) => (await owner.call<T>('POST', `${at}/${path}`, body)).body

test('a list of addresses is judged one by one', async () => {
  await owner.change(invite('zoe@other.example', { name: 'Zoe' }))
  await owner.change(invite('gone@test.example', { name: 'Gone' }))
  const { id } = (await people('find=gone')).items[0]!
  await owner.change({ kind: 'workspace.change', memberDomains: ['test.example', 'other.example'] })
  const judged = await ask<AddressView[]>('people/addresses', {
    as: 'member',
    addresses: [
      'MIKA@test.example',
      'zoe@other.example',
      'new@test.example',
      'new@test.example',
      'x@',
      'y@far.example',
      'z@tset.example',
    ].map(mail => ({ mail, name: '' })),
  })
  expect(judged.map(each => [each.verdict, each.meant])).toEqual([
    ['here already', null],
    ['invited already', null],
    ['new', null],
    ['twice in the list', null],
    ['not an address', null],
    ['domain not welcome', null],
    ['domain not welcome', 'z@test.example'],
  ])
  expect((await owner.change(invite('y@far.example'))).body).toMatchObject(problem('domain-not-welcome'))
  await owner.change(
    { kind: 'workspace.change', memberDomains: [] },
    { kind: 'invitation.withdraw', person: id },
  )
})

describe('a table', () => {
  const rows = [
    { mail: 'ada@test.example', name: 'Ada Lowe', teams: 'Boats; boats', title: "'=1+1", until: '31.3.2027' },
    { mail: 'mika@test.example', name: 'Mika', title: 'Skipper', teams: 'Boats' },
    { mail: 'ada@test.example', name: 'Ada again' },
    { mail: 'ben', name: 'Ben' },
    { mail: 'cy@test.example', teams: 'No such', role: 'Emperor', until: '3/4/2027' },
    { mail: 'dot@test.example', name: 'Ada Lowe' },
    { mail: 'gus@test.example', as: 'member' },
  ]
  const judge = () => ask<ImportedRowView[]>('imports', { rows, offer, welcome: null })

  test('is judged row by row, brought in, and does nothing the second time', async () => {
    await owner.change(
      {
        kind: 'team.create',
        team: 'new:t',
        home: 'new:h',
        name: 'Boats',
        note: '',
        joining: 'request',
        welcomesGuests: false,
      },
      { kind: 'member.add', team: 'new:t', person: world.ownerId, lead: true, ...open },
      { kind: 'grant.add', node: 'new:h', principal: 'leads:new:t', gives: steward, ...open },
    )
    const judged = await judge()
    expect(judged.map(each => each.verdict)).toEqual([
      'new',
      'changes',
      'wrong',
      'wrong',
      'wrong',
      'new',
      'wrong',
    ])
    expect(judged[0]?.says).toEqual(['Is invited as a member, @ada.lowe.', 'Joins Boats.'])
    expect(judged[4]?.says).toHaveLength(3)
    // Two of a name in one table get a handle each.
    expect(judged[5]?.says[0]).toContain('@ada.lowe2')
    const edits = judged.flatMap(each => each.edits)
    expect((await owner.change(...edits)).status).toBe(200)
    const ada = (await people('find=ada.lowe')).items.find(each => each.mail === 'ada@test.example')
    expect(ada).toMatchObject({ title: '=1+1', handle: 'ada.lowe', teams: [{ name: 'Boats' }] })
    const again = await judge()
    expect(again.map(each => each.verdict)).toEqual([
      'as it is',
      'as it is',
      'wrong',
      'wrong',
      'wrong',
      'as it is',
      'wrong',
    ])
    expect(again.flatMap(each => each.edits)).toEqual([])
  })

  test('is for those who look after people', async () => {
    const body = { rows, offer, welcome: null }
    expect((await world.member.visitor.call('POST', `${at}/imports`, body)).status).toBe(404)
  })
})

test('an offer is looked through before it is made: what one would see and do, and the seats', async () => {
  const { ids } = world
  await owner.change({ kind: 'seats.change', seats: 9 })
  const view = await ask<OfferView>('people/offer-preview', {
    offer: { ...offer, places: [{ node: ids.folder, gives: reader }] },
  })
  expect(view).toMatchObject({
    places: [{ name: 'Dunes', actions: reader, through: ['by name'], alike: 2 }],
    privileges: ['view people'],
    problem: null,
    seats: { bought: 9, each: 1 },
  })
  const guest = await ask<OfferView>('people/offer-preview', {
    offer: { ...offer, as: 'guest', places: [{ node: ids.folder, gives: steward }] },
  })
  expect(guest.problem).toMatchObject(problem('guest-rule'))
  await owner.change({ kind: 'seats.change', seats: null })
  // Nothing of it has happened.
  expect((await people('find=somebody')).total).toBe(0)
})

test('what is offered to somebody who has not come in is changed, and comes with a start', async () => {
  const from = world.server.time.now + 3 * 864e5
  const { body } = await owner.change(
    invite('later@test.example', { name: 'Later', from, until: from + 864e5 }),
  )
  const id = body.made['new:person']
  expect((await people('status=coming')).total).toBe(0)
  const change = (more: object) => owner.change({ kind: 'invitation.change', person: id, ...more })
  expect((await change({ from: from + 2 * 864e5 })).body).toMatchObject(problem('start-after-end'))
  expect((await change({ role: 'role-people-lead', until: null })).status).toBe(200)
  const { body: view } = await owner.get<PersonDetailView>(`${at}/people/${id}`)
  expect(view.managed).toMatchObject({ until: null, roles: [{ name: 'People lead' }] })
  expect((await change({ role: 'role-owner' })).status).toBe(200)
  await owner.change({ kind: 'invitation.withdraw', person: id })
})

test('an invitation whose link is passed on by hand sends no mail', async () => {
  const mails = async () =>
    (await owner.get<{ to: string }[]>('/mailbox')).body.filter(each => each.to.startsWith('hand'))
  const { body } = await owner.change(invite('hand1@test.example', { mailed: false }))
  await owner.change(invite('hand2@test.example'))
  await expect.poll(async () => (await mails()).map(each => each.to)).toEqual(['hand2@test.example'])
  const id = body.made['new:person']
  const link = await owner.call<{ address: string }>('POST', `${at}/people/${id}/invitation-link`, {})
  expect(link.body.address).toMatch(/\/join#/)
  expect((await world.member.visitor.call('POST', `${at}/people/${id}/invitation-link`, {})).status).toBe(404)
})
