import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { HistoryView } from '#contract/views/history.ts'
import type { MyAccessView } from '#contract/views/people.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { RequestsView } from '#contract/views/requests.ts'
import type { ViewedView, ViewingSessionsView } from '#contract/views/viewing.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { type Visitor, welcome } from '../../tests/client.ts'
import { at, reader, share } from '../../tests/coast.ts'
import { giving, notifications, personSeen, type RoleCast, roleCast } from '../../tests/roles.ts'

/** What takes another’s word or is told to another: roles that are asked for, handing over, looking by a privilege. */
let world: RoleCast
let owner: Visitor
beforeAll(async () => {
  world = await roleCast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

describe('asking', () => {
  test('reaches who may give it, is given in one act, and who asked is told', async () => {
    const { visitor, id } = await welcome(world.server, owner, { name: 'Ada' })
    await visitor.change({
      kind: 'request.make',
      wants: { of: 'privilege', privilege: 'reset sign-in' },
      reason: 'Many forget',
    })
    expect(await notifications(owner)).toContain(
      'Ada requests a role that may help people sign in again: “Many forget”.',
    )
    expect(await notifications(world.member.visitor)).not.toContainEqual(
      expect.stringContaining('Ada requests'),
    )
    const request = (await owner.get<RequestsView>(`${at}/requests`)).body.toDecide.find(
      each => each.person.id === id,
    )
    const gives = {
      of: 'role',
      role: world.roles.Help,
      scope: { over: 'team', team: world.team },
      until: null,
    }
    const answer = { kind: 'request.accept', request: request?.id, gives, comment: '' }
    const preview = await owner.preview(answer)
    expect(preview.impact[0]?.powers).toMatchObject([
      { person: { name: 'Ada' }, parts: [{ over: 'Volunteers', gains: ['reset sign-in'] }] },
    ])
    expect((await owner.change(answer)).status).toBe(200)
    expect(await notifications(visitor)).toContain(
      'Ona accepted your request for a role that may help people sign in again.',
    )
  })
})

describe('handing over', () => {
  test('takes the other’s assent, and the last owner goes by no other way', async () => {
    const heir = await welcome(world.server, owner, { name: 'Eli' })
    await world.made({ kind: 'handover.offer', to: heir.id, keeps: 'role-administrator', reason: 'Yours' })
    const { handovers } = (await heir.visitor.get<MyAccessView>(`${at}/me/access`)).body
    expect(handovers).toMatchObject([{ from: { name: 'Ona' }, keeps: 'Administrator', reason: 'Yours' }])
    expect(await notifications(heir.visitor)).toContain(
      'Ona offers to hand over the workspace to you: “Yours”.',
    )
    const handover = handovers[0]?.id
    const answer = { kind: 'handover.answer', handover, accepted: true }
    expect((await world.kim.visitor.change(answer)).body.type).toBe('urn:noskel:problem:unknown')
    expect((await heir.visitor.change(answer)).status).toBe(200)
    const owns = async (visitor: Visitor) =>
      (await visitor.get<WorkspaceView>(at)).body.me.privileges.includes('own')
    expect([await owns(owner), await owns(heir.visitor)]).toEqual([false, true])
    expect(await notifications(owner)).toContain('Eli accepted your offer and is now the owner.')
    const [holding] =
      (await personSeen(heir.visitor, heir.id)).managed?.roles.filter(each => each.name === 'Owner') ?? []
    const ways: object[] = [
      { kind: 'role.unassign', holding: holding?.id },
      { kind: 'person.remove', person: heir.id },
      { kind: 'person.suspend', person: heir.id },
      { kind: 'person.end', person: heir.id, until: world.server.time.now + 864e5 },
    ]
    for (const way of ways) {
      const { body } = await heir.visitor.change(way)
      expect([way, body.type]).toEqual([way, 'urn:noskel:problem:no-owner-left'])
    }
    // Back again, for the tests that follow.
    await heir.visitor.change({ kind: 'handover.offer', to: world.ownerId, keeps: 'role-member', reason: '' })
    const back = (await owner.get<MyAccessView>(`${at}/me/access`)).body.handovers[0]?.id
    expect((await owner.change({ kind: 'handover.answer', handover: back, accepted: true })).status).toBe(200)
  })
})

describe('looking', () => {
  let ash: { visitor: Visitor; id: string }
  beforeAll(async () => {
    ash = await welcome(world.server, owner, { name: 'Ash' })
    await world.made(giving(ash.id, 'role-administrator'))
    await world.made(
      share(world.ids.folder, world.member.id, reader),
      share(world.ids.secret, world.member.id, reader),
    )
    await world.made({ kind: 'node.describe', node: world.ids.secret, note: 'Secret words' })
  })
  const begin = async (through: string | null) => {
    const { body } = await ash.visitor.change({
      kind: 'session.begin',
      session: 'new:l',
      through,
      reason: 'A complaint',
    })
    return body.made['new:l'] ?? ''
  }
  const looked = (look: string, node = '', visitor = ash.visitor) =>
    visitor.get<ViewedView & Problem>(`${at}/sessions/${look}${node === '' ? '' : `?node=${node}`}`)

  test('through somebody’s eyes shows the titles of what they find, no content that is not one’s own to read', async () => {
    const look = await begin(world.member.id)
    const { body } = await looked(look)
    expect(body.children.map(each => [each.name, each.actions])).toEqual([
      ['Dunes', reader],
      ['Hidden Nests', reader],
    ])
    const page = await looked(look, world.ids.page)
    expect([page.body.place?.name, page.body.place?.through, page.body.place?.text]).toEqual([
      'Map',
      ['by name'],
      null,
    ])
    expect(JSON.stringify([body, page.body])).not.toMatch(/Secret words|My private folder/)
    expect((await looked(look, world.ids.home)).status).toBe(404)
    expect((await looked(look, '', owner)).status).toBe(404)
  })

  test('stands in the history with its reason, and whom it is through is told and sees it', async () => {
    expect(await notifications(world.member.visitor)).toContain(
      'Ash saw the workspace as you: “A complaint”.',
    )
    const mine = (await world.member.visitor.get<MyAccessView>(`${at}/me/access`)).body.viewingSessions
    expect(mine).toMatchObject([{ by: { name: 'Ash' }, reason: 'A complaint' }])
    const texts = async (visitor: Visitor) =>
      (await visitor.get<HistoryView>(`${at}/history?category=looking`)).body.entries.flatMap(each =>
        each.events.map(event => event.text),
      )
    expect(await texts(world.member.visitor)).toEqual(['saw the workspace as Mika'])
    expect(await texts(owner)).toContain('saw the workspace as Mika')
    expect((await owner.get<ViewingSessionsView>(`${at}/sessions`)).body.sessions).toHaveLength(1)
  })

  test('at the outline shows titles alone, no private folder, and is over after an hour', async () => {
    const look = await begin(null)
    const { body } = await looked(look)
    expect(body.children.map(each => each.name).sort()).toEqual(['Sites', 'Volunteers'])
    expect(body.kept.of).toEqual(['Ada', 'Ash', 'Eli', 'Kim', 'Mika', 'Ona'])
    expect(body.children.every(each => each.actions === null)).toBe(true)
    expect((await looked(look, world.ids.secret)).body.place).toMatchObject({
      name: 'Hidden Nests',
      text: null,
    })
    world.server.time.now += 3_600_001
    expect((await looked(look)).body.type).toBe('urn:noskel:problem:session-over')
  })

  test('ends with the privilege', async () => {
    const look = await begin(null)
    const holding = (await personSeen(owner, ash.id)).managed?.roles.find(
      each => each.name === 'Administrator',
    )
    await world.made({ kind: 'role.unassign', holding: holding?.id })
    expect((await looked(look)).body.type).toBe('urn:noskel:problem:session-over')
  })
})
