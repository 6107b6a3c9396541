import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { ImportedRowView, JoinLinkView, OnboardingView } from '#contract/views/onboarding.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { RequestsView } from '#contract/views/requests.ts'
import { invite, open, Visitor, welcome } from './tests/client.ts'
import { at } from './tests/coast.ts'
import { everything, giving, making, personSeen, type RoleCast, roleCast } from './tests/roles.ts'

/** Nobody gives themselves or others more than they have, by any route: one test a route. */
let world: RoleCast
let owner: Visitor
beforeAll(async () => {
  world = await roleCast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

describe('no way up: whoever edits and gives roles below rank 50 comes to nothing more by', () => {
  const big = () => world.roles.Big
  const ways: readonly [route: string, edits: () => object[] | Promise<object[]>, refused: string][] = [
    ['a copy of a role', () => [making('Big too', 40, ['security'])], 'privilege-missing'],
    ['a role above their own', () => [making('Above', 55, [])], 'outranked'],
    [
      'editing the role they hold',
      () => [{ kind: 'role.change', role: world.roles.Keeper, privileges: ['security'] }],
      'outranked',
    ],
    [
      'editing a low role they hold',
      () => [{ kind: 'role.change', role: world.roles.Low, privileges: ['security'] }],
      'privilege-missing',
    ],
    [
      'moving a role they hold up the ladder',
      () => [{ kind: 'role.change', role: world.roles.Low, rank: 70 }],
      'outranked',
    ],
    [
      'moving a role up that holds what they lack',
      () => [{ kind: 'role.change', role: big(), rank: 45 }],
      'privilege-missing',
    ],
    ['giving it to themselves', () => [giving(world.kim.id, big())], 'privilege-missing'],
    ['giving themselves a higher role', () => [giving(world.kim.id, world.roles.High)], 'outranked'],
    ['giving it to another', () => [giving(world.member.id, big())], 'privilege-missing'],
    ['an invitation', () => [invite('second@test.example', { role: big() })], 'privilege-missing'],
    [
      'the role of new members',
      () => [{ kind: 'workspace.change', defaultRole: big() }],
      'privilege-missing',
    ],
    ['naming owners', () => [giving(world.kim.id, 'role-owner')], 'outranked'],
    [
      'handing the workspace over',
      () => [{ kind: 'handover.offer', to: world.member.id, keeps: 'role-member', reason: '' }],
      'privilege-missing',
    ],
    [
      'recovering access',
      () => [{ kind: 'access.recover', node: world.ids.secret, taker: world.kim.id, limits: [] }],
      'unknown',
    ],
    [
      'taking over from who leaves',
      () => [{ kind: 'person.remove', person: world.member.id }, giving(world.kim.id, big())],
      'privilege-missing',
    ],
    [
      'taking a role from above',
      async () => [
        { kind: 'role.unassign', holding: (await personSeen(owner, world.ownerId)).managed?.roles[0]?.id },
      ],
      'outranked',
    ],
    [
      'looking by a privilege they lack',
      () => [{ kind: 'session.begin', session: 'new:l', through: world.member.id, reason: 'Why' }],
      'privilege-missing',
    ],
    ['buying seats', () => [{ kind: 'seats.change', seats: 99 }], 'privilege-missing'],
  ]
  test.each(ways)('%s', async (_, edits, refused) => {
    const before = await personSeen(world.kim.visitor, world.kim.id)
    const { status, body } = await world.kim.visitor.change(...(await edits()))
    expect([status >= 400, body.type]).toEqual([true, `urn:noskel:problem:${refused}`])
    expect(body.lacks !== undefined).toBe(refused === 'privilege-missing')
    expect(body.title.length * body.detail.length).toBeGreaterThan(0)
    expect((await personSeen(world.kim.visitor, world.kim.id)).powers).toEqual(before.powers)
  })

  test('a change of what was offered to the invited', async () => {
    const invited = (await world.made(invite('offered@test.example')))['new:person'] ?? ''
    const { body } = await world.kim.visitor.change({
      kind: 'invitation.change',
      person: invited,
      role: big(),
    })
    expect(body.type).toBe('urn:noskel:problem:privilege-missing')
  })

  test('a role held over a team, widened to the whole workspace', async () => {
    const lee = await welcome(world.server, owner, { name: 'Lee' })
    await world.made(
      { kind: 'member.add', team: world.team, person: lee.id, lead: false, ...open },
      giving(lee.id, world.roles.Keeper, { over: 'team', team: world.team }),
    )
    const help = await lee.visitor.change(giving(world.member.id, world.roles.Help))
    expect(help.body.type).toBe('urn:noskel:problem:outranked')
  })

  test('a welcome set and a join link, which let nobody in by what their maker may not give', async () => {
    const offer = { as: 'member', role: big(), teams: [], places: [], ...open }
    const until = world.server.time.now + 864e5
    const link = { kind: 'link.create', link: 'new:l', name: 'L', until, domains: [], most: null }
    const { status } = await world.kim.visitor.change(
      { kind: 'welcome.create', welcome: 'new:w', name: 'W', note: '', offer },
      { ...link, welcome: 'new:w', offer },
    )
    expect(status).toBe(200)
    const { joinLinks } = (await world.kim.visitor.get<OnboardingView>(`${at}/onboarding`)).body
    const { address, letsIn } = joinLinks[0] as JoinLinkView
    const token = address?.split('#')[1] ?? ''
    const mail = 'second-self@test.example'
    await new Visitor(world.server).call('POST', '/join-links/join', { token, mail })
    const { body } = await owner.get<PageView<PersonView>>(`${at}/people?find=second-self`)
    expect([letsIn, body.total]).toEqual([false, 0])
  })

  test('a table of people', async () => {
    const body = {
      rows: [{ mail: 'second@test.example', role: 'Big' }],
      offer: { as: 'member', role: null, teams: [], places: [], ...open },
      welcome: null,
    }
    const judged = await world.kim.visitor.call<ImportedRowView[]>('POST', `${at}/imports`, body)
    expect(judged.body[0]).toMatchObject({ verdict: 'wrong', edits: [] })
  })

  test('undoing that it was taken from them', async () => {
    await world.made(giving(world.kim.id, big()))
    const holding = (await world.holders('Big'))[0]?.holding
    const { body } = await owner.change({ kind: 'role.unassign', holding })
    const undone = await world.kim.visitor.change({ kind: 'undo', revision: body.revision })
    expect(undone.body.type).toBe('urn:noskel:problem:privilege-missing')
  })

  test('answering requests: their own, or with what they lack', async () => {
    const wants = { of: 'privilege', privilege: 'security' }
    for (const { visitor } of [world.kim, world.member])
      await visitor.change({ kind: 'request.make', wants, reason: '' })
    const open = (await owner.get<RequestsView>(`${at}/requests`)).body.toDecide
    expect(open).toHaveLength(2)
    const refused = await Promise.all(
      open.map(({ id }) =>
        world.kim.visitor.change({
          kind: 'request.accept',
          request: id,
          comment: '',
          gives: { of: 'role', role: big(), scope: everything, until: null },
        }),
      ),
    )
    expect(refused.map(each => each.body.type).sort()).toEqual([
      'urn:noskel:problem:privilege-missing',
      'urn:noskel:problem:unknown',
    ])
    expect((await world.holders('Big')).length).toBe(0)
  })
})
