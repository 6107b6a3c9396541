import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type {
  CopiedAccessView,
  GrantsOverviewView,
  OwnAccessView,
  PersonAccessView,
} from '#contract/views/access.ts'
import type { ExplanationView } from '#contract/views/explanation.ts'
import type { PageView } from '#contract/views/page.ts'
import { at, editor, reader, share, steward } from '../../tests/coast.ts'
import { open, welcome } from '../../tests/client.ts'
import { type AccessCast, accessCast, did, everything, see } from '../../tests/access.ts'

/** Access over many places, limits and closing, and checking. */
const day = 86_400_000
let { world, owner, warden } = {} as AccessCast

beforeAll(async () => {
  ;({ world, owner, warden } = await accessCast())
})
afterAll(() => world.server.stop())

describe('over many places', () => {
  test('what somebody has is told where one gives access, and through which team', async () => {
    const { id } = await welcome(world.server, owner, { name: 'Yan' })
    const { 'new:team': team = '' } = await did(
      owner,
      {
        kind: 'team.create',
        team: 'new:team',
        home: 'new:home',
        name: 'Rangers',
        note: '',
        joining: 'request',
        welcomesGuests: false,
      },
      share('new:home', world.ownerId, steward),
      { kind: 'member.add', team: 'new:team', person: world.ownerId, lead: true, ...open },
      { kind: 'member.add', team: 'new:team', person: id, lead: false, ...open },
      share(world.ids.secret, id, reader),
      share(world.ids.page, id, reader),
      { ...share(world.ids.inner, id, editor), principal: 'team:new:team' },
    )
    const given = await see<GrantsOverviewView>(warden.visitor, `/grants?principal=person:${id}`)
    expect(given.grants.map(({ place, isThrough, actions }) => [place.name, isThrough, actions])).toEqual([
      ['Maps', true, editor],
      ['Map', false, reader],
    ])
    const ofTeam = await see<GrantsOverviewView>(warden.visitor, `/grants?principal=team:${team}`)
    expect(ofTeam.grants.map(each => each.place.name)).toEqual(['Maps'])
    const at2 = await see<GrantsOverviewView>(
      warden.visitor,
      `/grants?places=${world.ids.page},${world.ids.secret},nothing`,
    )
    expect([at2.places.map(each => each.name), at2.others]).toEqual([['Map'], 2])
  })

  test('the access of another place is taken over, but not for oneself, not twice, and no more than one has', async () => {
    const { 'new:folder': made = '' } = await did(owner, {
      kind: 'node.create',
      node: 'new:folder',
      parent: world.ids.folder,
      as: 'folder',
      name: 'New Dunes',
    })
    const view = await see<CopiedAccessView>(
      warden.visitor,
      `/nodes/${made}/access-to-copy?from=${world.ids.inner}&what=access`,
    )
    expect(view.edits.length).toBeGreaterThan(0)
    expect(JSON.stringify(view.edits)).not.toContain(warden.id)
    await did(warden.visitor, ...view.edits)
    const again = await see<CopiedAccessView>(
      warden.visitor,
      `/nodes/${made}/access-to-copy?from=${world.ids.inner}&what=access`,
    )
    expect(again.edits).toEqual([])
    const people = await see<CopiedAccessView>(
      owner,
      `/nodes/${world.ids.secret}/access-to-copy?from=${made}&what=people`,
    )
    await did(owner, ...people.edits)
    const names = async (node: string) => (await everything(owner, node)).people.map(each => each.name).sort()
    expect(await names(world.ids.secret)).toEqual(await names(made))
    const refused = await warden.visitor.get(
      `${at}/nodes/${made}/access-to-copy?from=${world.ids.home}&what=access`,
    )
    expect(refused.status).toBe(404)
  })
})

describe('limits and closing', () => {
  test('a limit says whom it holds and how many stewards it spares; closing to guests is taken back as fast', async () => {
    await did(
      owner,
      share(world.ids.page, world.member.id, editor),
      share(world.ids.page, world.guest.id, reader),
      {
        kind: 'node.web',
        node: world.ids.page,
        web: 'published',
      },
    )
    const limit = (principal: string, allows: number) => ({
      kind: 'limit.add',
      node: world.ids.inner,
      principal,
      allows,
      sparesStewards: true,
      ...open,
    })
    await did(owner, limit('anyone', reader))
    const [onAll] = (await everything(owner, world.ids.page)).limits
    expect(onAll?.holds.map(each => each.name)).toContain('Mika')
    expect(onAll?.holds.map(each => each.name)).not.toContain('Ona')
    expect(onAll?.spares).toBe(2)
    const closing = await owner.preview(limit('guests', 0))
    const losing = closing.impact[0]?.differences.filter(each => each.place.id === world.ids.page)
    expect(losing?.map(each => each.person.id).sort()).toEqual([world.guest.id, 'web'].sort())
    await did(owner, limit('guests', 0))
    expect((await world.guest.visitor.get(`${at}/nodes/${world.ids.page}`)).status).toBe(404)
    const closed = (await everything(owner, world.ids.inner)).limits.find(each => each.principal === 'guests')
    await did(owner, { kind: 'limit.end', limit: closed?.id })
    expect((await world.guest.visitor.get(`${at}/nodes/${world.ids.page}`)).status).toBe(200)
  })
})

describe('checking', () => {
  test('speaks of what is hidden from the asker only with the privilege, and while they look at the outline', async () => {
    const auditor = await welcome(world.server, owner, { name: 'Zoe' })
    const { 'new:role': role = '' } = await did(owner, {
      kind: 'role.create',
      role: 'new:role',
      name: 'Checker',
      note: '',
      rank: 30,
      privileges: ['view people', 'see the outline', 'check access'],
      addressable: false,
      seatExempt: false,
    })
    await did(owner, { kind: 'role.assign', person: auditor.id, role, scope: { over: 'workspace' }, ...open })
    const secret = `/nodes/${world.ids.secret}`
    const paths = [
      `${secret}/people`,
      `${secret}/own-access`,
      `${secret}/why/${world.ownerId}`,
      `${secret}/why-not/${world.guest.id}/see`,
    ]
    const statuses = () =>
      Promise.all(paths.map(async path => (await auditor.visitor.get(`${at}${path}`)).status))
    expect(await statuses()).toEqual([404, 404, 404, 404])
    await did(auditor.visitor, {
      kind: 'session.begin',
      session: 'new:session',
      through: null,
      reason: 'Asked by the board',
    })
    expect(await statuses()).toEqual([200, 200, 200, 200])
    expect((await auditor.visitor.get(`${at}${secret}`)).status).toBe(404)
    const who = await see<PageView<PersonAccessView>>(auditor.visitor, paths[0] ?? '')
    expect(who.items.map(each => each.name)).toContain('Ona')
    const sum = await see<ExplanationView>(auditor.visitor, paths[2] ?? '')
    expect(sum.way.map(({ place, given }) => [place?.name, given])).toEqual([
      ['the whole of Coast', 0],
      ['Sites', steward],
      ['Hidden Nests', 0],
    ])
    world.server.time.now += day
    expect(await statuses()).toEqual([404, 404, 404, 404])
  })

  test('names who is given something below that a limit keeps from them', async () => {
    await did(owner, share(world.ids.page, world.guest.id, editor), {
      kind: 'limit.add',
      node: world.ids.folder,
      principal: 'guests',
      allows: 0,
      sparesStewards: true,
      ...open,
    })
    const view = await see<OwnAccessView>(owner, `/nodes/${world.ids.folder}/own-access`)
    expect(view.below.find(each => each.id === world.ids.page)?.heldBack.map(each => each.name)).toContain(
      'Gus',
    )
  })
})
