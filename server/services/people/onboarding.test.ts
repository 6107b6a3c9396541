import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { invitingEdits } from '#contract/inviting.ts'
import type { OfferRequest, ScopeRequest } from '#contract/edit-requests.ts'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import type { OfferView, OnboardingView } from '#contract/views/onboarding.ts'
import type { MyAccessView } from '#contract/views/people.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { invite, open, password, tokenFor, Visitor, welcome } from '../../tests/client.ts'
import { adder, at, coast, type Coast, editor, reader, share, steward } from '../../tests/coast.ts'

/** What is offered: the look-through holds once one is in, and no offer is a way to more than its giver has. */
let world: Coast
let owner: Visitor
/** Holds People lead, and gives access nowhere. */
let lead: { visitor: Visitor; id: string }
let teams: { open: string; unlisted: string }

const plain: OfferRequest = { as: 'member', role: null, teams: [], places: [], from: null, until: null }
const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
  lead = await welcome(world.server, owner, { name: 'Lis', role: 'role-people-lead' })
  const making = (key: string, joining: string) => [
    {
      kind: 'team.create',
      team: `new:${key}`,
      home: `new:home-${key}`,
      name: `Team ${key}`,
      note: '',
      joining,
      welcomesGuests: true,
    },
    { kind: 'member.add', team: `new:${key}`, person: world.ownerId, lead: true, ...open },
    {
      kind: 'grant.add',
      node: `new:home-${key}`,
      principal: `leads:new:${key}`,
      gives: steward,
      ...open,
    },
    { kind: 'grant.add', node: `new:home-${key}`, principal: `team:new:${key}`, gives: adder, ...open },
  ]
  const { body } = await owner.change(...making('open', 'open'), ...making('unlisted', 'unlisted'))
  teams = { open: body.made['new:open'] ?? '', unlisted: body.made['new:unlisted'] ?? '' }
})
afterAll(() => world.server.stop())

const onboarding = async (visitor: Visitor) => (await visitor.get<OnboardingView>(`${at}/onboarding`)).body
const offerPreview = async (visitor: Visitor, offer: OfferRequest, scope?: ScopeRequest) =>
  (await visitor.call<OfferView>('POST', `${at}/people/offer-preview`, { offer, scope })).body
const makeSet = async (visitor: Visitor, offer: OfferRequest) => {
  const made = await visitor.change({
    kind: 'welcome.create',
    welcome: 'new:set',
    name: 'Set',
    note: '',
    offer,
  })
  return made.body.made['new:set'] ?? ''
}
const makeLink = async (visitor: Visitor, set: string) => {
  const until = world.server.time.now + 864e5
  const making = { kind: 'link.create', link: 'new:link', name: 'Link', until, domains: [], most: null }
  const made = await visitor.change({ ...making, welcome: set, offer: plain })
  return made.body.made['new:link'] ?? ''
}

describe('what is looked through', () => {
  const offers: readonly [string, () => Partial<OfferRequest>][] = [
    ['nothing but being here', () => ({})],
    ['a role', () => ({ role: 'role-people-lead' })],
    ['a place with places below', () => ({ places: [{ node: world.ids.folder, gives: editor }] })],
    ['teams with their homes', () => ({ teams: [teams.open, teams.unlisted] })],
    [
      'a place twice over, through a team and by name',
      () => ({ teams: [teams.open], places: [{ node: world.ids.home, gives: reader }] }),
    ],
    ['a guest at a page', () => ({ as: 'guest', places: [{ node: world.ids.page, gives: reader }] })],
    ['a guest in a team', () => ({ as: 'guest', teams: [teams.open] })],
    ['a start', () => ({ from: world.server.time.now + 864e5, teams: [teams.open] })],
  ]

  test.each(offers)('of %s is what they have once they are in', async (name, more) => {
    const offer = { ...plain, ...more() }
    const preview = await offerPreview(owner, offer)
    expect(preview.problem).toBeNull()
    const mail = `${name.replaceAll(/\W+/g, '.')}@test.example`
    const { status } = await owner.change(
      ...invitingEdits(offer, { person: 'new:person', mail, name: 'Newcomer' }),
    )
    expect(status).toBe(200)
    const newcomer = new Visitor(world.server)
    await newcomer.enter('/invitations/accept', { token: await tokenFor(owner, mail), name: 'N', password })
    world.server.time.now += 864e5
    const { body: access } = await newcomer.get<MyAccessView>(`${at}/me/access`)
    const { body: here } = await newcomer.get<WorkspaceView>(at)
    const isPrivate = (each: { name: string }) => each.name.startsWith('My private')
    const seen = (places: readonly AccessiblePlaceView[]) =>
      places.map(({ id, name: called, actions, alike }) => ({ id, called, actions, alike }))
    // The private folder of a new member is their own; whoever invites is not told of it.
    expect(seen(access.places.filter(place => !isPrivate(place)))).toEqual(
      seen(preview.places.filter(place => !isPrivate(place))),
    )
    expect(here.me.privileges.toSorted()).toEqual(preview.privileges.toSorted())
    expect(access.teams.map(each => each.name).toSorted()).toEqual(preview.teams.toSorted())
    expect(access.roles.map(each => each.name)).toEqual([preview.role])
  })

  test('of a role over some people only is what it does over them', async () => {
    const offer = { ...plain, role: 'role-people-lead' }
    const scopes: readonly ScopeRequest[] = [{ over: 'guests' }, { over: 'team', team: teams.open }]
    for (const scope of scopes) {
      const { asleep, ...preview } = await offerPreview(owner, offer, scope)
      expect(asleep).toContain('invite members')
      const mail = `over.${scope.over}@test.example`
      const invited = { person: 'new:person', mail, name: 'Newcomer', scope }
      expect((await owner.change(...invitingEdits(offer, invited))).status).toBe(200)
      const newcomer = new Visitor(world.server)
      await newcomer.enter('/invitations/accept', { token: await tokenFor(owner, mail), name: 'N', password })
      const { roles } = (await newcomer.get<MyAccessView>(`${at}/me/access`)).body
      expect(roles.map(({ name, privileges, asleep }) => [name, privileges, asleep])).toEqual([
        [preview.role, preview.privileges, asleep],
      ])
    }
    const unknown = await offerPreview(owner, offer, { over: 'team', team: 'no-such-team' })
    expect(unknown.problem).toMatchObject(problem('unknown'))
  })

  test('of more than one may give is refused just as giving it is, and nothing happens', async () => {
    const beyond: Partial<OfferRequest>[] = [
      { role: 'role-owner' },
      { role: 'role-administrator' },
      { places: [{ node: world.ids.folder, gives: reader }] },
    ]
    for (const more of beyond) {
      const offer = { ...plain, ...more }
      const { problem: preview, places } = await offerPreview(lead.visitor, offer)
      const invited = { person: 'new:person', mail: 'beyond@test.example', name: 'Beyond' }
      const refused = await lead.visitor.change(...invitingEdits(offer, invited))
      expect(refused.status).toBeGreaterThanOrEqual(400)
      expect([preview?.type, places]).toEqual([refused.body.type, []])
    }
    expect(JSON.stringify(await owner.get(`${at}/people?find=beyond`))).not.toContain('beyond@')
  })
})

describe('a welcome set', () => {
  test('shows who gives access elsewhere nothing of its hidden places and teams', async () => {
    const places = [
      { node: world.ids.secret, gives: editor },
      { node: world.ids.folder, gives: reader },
    ]
    const id = await makeSet(owner, { ...plain, places, teams: [teams.open, teams.unlisted] })
    const find = async (visitor: Visitor) =>
      (await onboarding(visitor)).welcomeSets.find(each => each.id === id)
    expect(await find(owner)).toMatchObject({ mayChange: true, offer: { places } })
    const { body } = await owner.change({
      kind: 'role.create',
      role: 'new:role',
      name: 'Host',
      note: '',
      rank: 30,
      privileges: ['view people', 'invite members', 'invite guests'],
      addressable: false,
      seatExempt: false,
    })
    const host = await welcome(world.server, owner, { name: 'Hob', role: body.made['new:role'] ?? '' })
    await owner.change(share(world.ids.folder, host.id, reader))
    const seen = await find(host.visitor)
    expect(seen).toMatchObject({
      mayChange: false,
      offer: { places: [places[1]], teams: [teams.open] },
      placeNames: { [world.ids.folder]: { name: 'Dunes' } },
    })
    expect(JSON.stringify(seen)).not.toMatch(/Hidden|unlisted/)
    expect((await world.member.visitor.get(`${at}/onboarding`)).status).toBe(404)
    expect((await world.guest.visitor.get(`${at}/onboarding`)).status).toBe(404)
  })

  test('changed, gives the next who come the new offer, and those who are here or invited nothing', async () => {
    const set = await makeSet(owner, { ...plain, teams: [teams.open] })
    const link = await makeLink(owner, set)
    const token = async () =>
      (await onboarding(owner)).joinLinks.find(each => each.id === link)?.address?.split('#')[1] ?? ''
    const come = async (mail: string) =>
      new Visitor(world.server).call('POST', '/join-links/join', { token: await token(), mail })
    const enter = async (mail: string) => {
      const visitor = new Visitor(world.server)
      await visitor.enter('/invitations/accept', { token: await tokenFor(owner, mail), name: mail, password })
      const { body } = await visitor.get<MyAccessView>(`${at}/me/access`)
      return body.teams.map(each => each.name)
    }
    await come('early@test.example')
    await come('between@test.example')
    expect(await enter('early@test.example')).toEqual(['Team open'])
    const changed = { kind: 'welcome.change', welcome: set, offer: { ...plain, teams: [teams.unlisted] } }
    expect((await owner.change(changed)).status).toBe(200)
    await come('late@test.example')
    expect(await enter('between@test.example')).toEqual(['Team open'])
    expect(await enter('late@test.example')).toEqual(['Team unlisted'])
    const deleting = { kind: 'welcome.delete', welcome: set }
    expect((await owner.change(deleting)).body).toMatchObject(problem('in-use'))
    expect((await owner.change({ kind: 'link.withdraw', link }, deleting)).status).toBe(200)
    expect((await onboarding(owner)).welcomeSets.map(each => each.id)).not.toContain(set)
  })
})

test('a join link that has ended says so where nothing else has happened since', async () => {
  const link = await makeLink(owner, await makeSet(owner, plain))
  const find = async () => (await onboarding(owner)).joinLinks.find(each => each.id === link)
  expect(await find()).toMatchObject({ isOpen: true, letsIn: true, address: expect.any(String) as string })
  world.server.time.now += 864e5
  expect(await find()).toMatchObject({ isOpen: false, letsIn: false, address: null })
})

describe('no way up', () => {
  test('leads through a set that somebody else’s link gives by that one’s rights', async () => {
    const set = await makeSet(lead.visitor, plain)
    const raising = { kind: 'welcome.change', welcome: set, offer: { ...plain, role: 'role-owner' } }
    const link = await makeLink(owner, set)
    expect((await onboarding(owner)).joinLinks.find(each => each.id === link)).toMatchObject({ letsIn: true })
    const refused = await lead.visitor.change(raising)
    expect([refused.status, refused.body]).toMatchObject([403, problem('not-its-maker')])
    expect((await onboarding(lead.visitor)).welcomeSets.find(each => each.id === set)).toMatchObject({
      isGivenByAnother: true,
    })
    // Without that link it is an offer like any, which gives nothing that its giver may not.
    await owner.change({ kind: 'link.withdraw', link })
    expect((await lead.visitor.change(raising)).status).toBe(200)
    const own = await makeLink(lead.visitor, set)
    const made = (await onboarding(lead.visitor)).joinLinks.find(each => each.id === own)
    expect(made).toMatchObject({ isOpen: true, letsIn: false })
    const token = made?.address?.split('#')[1]
    const come = { token, mail: 'upstart@test.example' }
    const answer = await new Visitor(world.server).call('POST', '/join-links/join', come)
    expect(answer.body).toMatchObject(problem('link-over'))
    expect((await owner.get<{ total: number }>(`${at}/people?find=upstart`)).body.total).toBe(0)
  })

  test('leads through the link of an invitation that somebody else sent', async () => {
    const sent = await owner.change(invite('second.owner@test.example', { role: 'role-owner' }))
    const id = sent.body.made['new:person'] ?? ''
    const ask = (visitor: Visitor, person: string) =>
      visitor.call('POST', `${at}/people/${person}/invitation-link`, {})
    const refused = await ask(lead.visitor, id)
    expect([refused.status, refused.body]).toMatchObject([403, problem('not-its-maker')])
    const own = await lead.visitor.change(invite('mine@test.example'))
    const mine = own.body.made['new:person'] ?? ''
    expect([await ask(lead.visitor, mine), await ask(owner, mine), await ask(owner, id)]).toMatchObject([
      { status: 200 },
      { status: 200 },
      { status: 200 },
    ])
    expect((await ask(world.member.visitor, mine)).status).toBe(404)
  })
})
