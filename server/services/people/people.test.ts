import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { PageView } from '#contract/views/page.ts'
import type { MyAccessView, OffboardingView, PersonDetailView, PersonView } from '#contract/views/people.ts'
import type { RequestsView } from '#contract/views/requests.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { invite, open, type Visitor, welcome } from '../../tests/client.ts'
import { at, coast, type Coast, editor, reader, share, steward } from '../../tests/coast.ts'

/** People: whom lists show, how tables of them are judged, what is offered, and what becomes of what leavers keep. */
let world: Coast
let owner: Visitor

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })
const people = async (query = '', visitor = owner) =>
  (await visitor.get<PageView<PersonView>>(`${at}/people?${query}`)).body
const names = async (query: string) => (await people(query)).items.map(each => each.name)
const team = async (name: string, more: object = {}, ...edits: object[]) => {
  const making = {
    kind: 'team.create',
    team: 'new:t',
    home: 'new:h',
    name,
    note: '',
    joining: 'request',
    welcomesGuests: true,
  }
  const leads = { kind: 'grant.add', node: 'new:h', principal: 'leads:new:t', gives: steward, ...open }
  const { body } = await owner.change({ ...making, ...more }, ...edits, leads)
  return { id: body.made['new:t'] ?? '', home: body.made['new:h'] ?? '' }
}
const joining = (id: string, person: string, lead = false) => ({
  kind: 'member.add',
  team: id,
  person,
  lead,
  ...open,
})

describe('the list', () => {
  test('is searched, filtered by words that combine, sorted, and cut into pages', async () => {
    const { member } = world
    await owner.change(invite('zoe@other.example', { name: 'Zoe', until: world.server.time.now + 5 * 864e5 }))
    await owner.change({ kind: 'person.describe', person: member.id, title: 'Boat builder', handle: 'mika' })
    expect(await names('')).toEqual(['Gus', 'Mika', 'Ona', 'Zoe'])
    expect([await names('find=boat'), await names('find=@mika'), await names('find=other+zoe')]).toEqual([
      ['Mika'],
      ['Mika'],
      ['Zoe'],
    ])
    expect(await names('as=member&status=invited')).toEqual(['Zoe'])
    expect([await names('only=ends+soon'), await names('only=ends+soon,in+no+team&as=guest')]).toEqual([
      ['Zoe'],
      [],
    ])
    expect(await names('sort=mail&down=1')).toEqual(['Zoe', 'Ona', 'Mika', 'Gus'])
    expect(await names('role=role-owner')).toEqual(['Ona'])
    expect((await owner.get(`${at}/people?sort=secret`)).status).toBe(400)
  })

  test('shows a member colleagues, and nothing of their status', async () => {
    const { visitor } = world.member
    const { items } = await people('', visitor)
    expect(items.map(each => [each.name, each.managed])).toEqual([
      ['Gus', null],
      ['Mika', null],
      ['Ona', null],
    ])
    const invited = (await people('status=invited')).items[0]?.id
    expect((await visitor.get(`${at}/people/${invited}`)).status).toBe(404)
    expect((await visitor.get(`${at}/people.csv`)).status).toBe(404)
    expect((await world.guest.visitor.get(`${at}/people`)).status).toBe(404)
  })

  test('goes out as CSV that spreadsheets read and that runs nothing', async () => {
    await owner.change({ kind: 'person.describe', person: world.member.id, title: '=HYPERLINK("x")' })
    const csv = await (
      await fetch(`${world.server.address}/api${at}/people.csv?as=member&status=active`, {
        headers: { cookie: owner.cookie },
      })
    ).text()
    const [head, ...rows] = csv.trim().split('\r\n')
    expect(head).toMatch(/^\ufeff?Mail,Name,Handle,Title/)
    expect(rows).toHaveLength(2)
    expect(rows[0]).toContain(`"'=HYPERLINK(""x"")"`)
    expect(csv).not.toContain('zoe@')
  })

  test('tells who was here last', async () => {
    const { items } = await people('find=ona')
    expect(items[0]?.managed?.lastActive).toBeGreaterThan(0)
  })
})

describe('a handle', () => {
  test('leads to its person for ever, and is never another’s', async () => {
    const { member, guest } = world
    const describe = (person: string, handle: string) =>
      owner.change({ kind: 'person.describe', person, handle })
    expect((await describe(member.id, 'mika.b')).status).toBe(200)
    for (const handle of ['mika', 'mika.b', 'mika.b'])
      expect((await owner.get<PersonDetailView>(`${at}/people/@${handle}`)).body.id).toBe(member.id)
    expect((await describe(guest.id, 'mika')).body).toMatchObject(problem('already-there'))
    expect((await describe(guest.id, 'Not One')).body).toMatchObject(problem('wrong-handle'))
    expect((await describe(member.id, 'mika')).status).toBe(200)
  })
})

describe('asking to join a team', () => {
  test('reaches its leads, is answered with a word, and can be asked anew', async () => {
    const { member } = world
    const { id } = await team('Marsh', {}, joining('new:t', world.ownerId, true))
    const asking = { kind: 'request.make', wants: { of: 'team', team: id }, reason: 'I live there.' }
    expect((await member.visitor.change(asking)).status).toBe(200)
    expect((await member.visitor.change(asking)).body).toMatchObject(problem('already-there'))
    const told = async (visitor: Visitor) =>
      (await visitor.get<NotificationsView>(`${at}/notifications`)).body.notifications[0]
    expect(await told(owner)).toMatchObject({
      text: 'Mika requests to join Marsh: “I live there”.',
      team: { id },
    })
    const request = async () => {
      const { body } = await owner.get<RequestsView>(`${at}/requests`)
      return body.toDecide.find(({ wants }) => wants.of === 'team' && wants.team.id === id)?.id
    }
    const accepting = async () => ({
      kind: 'request.accept',
      request: await request(),
      gives: { of: 'team' },
      comment: '',
    })
    expect((await member.visitor.change(await accepting())).body).toMatchObject(problem('unknown'))
    const declining = { kind: 'request.decline', request: await request(), comment: 'In spring.' }
    expect((await owner.change(declining)).status).toBe(200)
    expect(await told(member.visitor)).toMatchObject({
      text: 'Ona declined your request to join Marsh: “In spring”.',
    })
    expect((await member.visitor.change(asking)).status).toBe(200)
    expect((await owner.change(await accepting())).status).toBe(200)
    expect(await told(member.visitor)).toMatchObject({ text: 'Ona accepted your request to join Marsh.' })
    const { body } = await member.visitor.get<TeamView[]>(`${at}/teams`)
    expect(body.find(each => each.id === id)).toMatchObject({ isMine: true, myRequest: null, mayAsk: false })
  })

  test('is for members, and for teams that are joined by request', async () => {
    const { id } = await team('Open crew', { joining: 'open' }, joining('new:t', world.ownerId, true))
    const asking = { kind: 'request.make', wants: { of: 'team', team: id }, reason: '' }
    expect((await world.member.visitor.change(asking)).body).toMatchObject(problem('not-by-request'))
    expect((await world.guest.visitor.change(asking)).body).toMatchObject(problem('unknown'))
  })
})

test('one’s own access tells where each piece comes from, and whoever shares there what others reach', async () => {
  const { ids, guest, member } = world
  await owner.change(share(ids.folder, guest.id, editor), share(ids.page, guest.id, reader))
  const { body: mine } = await guest.visitor.get<MyAccessView>(`${at}/me/access`)
  expect(mine).toMatchObject({
    roles: [{ name: 'Guest', privileges: [] }],
    places: [{ name: 'Dunes', actions: editor, through: ['by name'], alike: 2 }],
    contact: { name: 'Ona' },
  })
  const { body: told } = await owner.get<AccessiblePlaceView[]>(`${at}/people/${guest.id}/access`)
  expect(told.map(each => each.name)).toEqual(['Dunes'])
  expect((await member.visitor.get<AccessiblePlaceView[]>(`${at}/people/${guest.id}/access`)).body).toEqual(
    [],
  )
})

describe('leaving', () => {
  test('shows what somebody alone keeps; a taker goes in the same act, and the next request fails', async () => {
    const { server, member } = world
    const leaver = await welcome(server, owner, { name: 'Lea', role: 'role-administrator' })
    const { id, home } = await team('Nests', {}, joining('new:t', leaver.id, true))
    await owner.change(
      { kind: 'home.create', node: 'new:n', name: 'Ringing' },
      { kind: 'grant.add', node: 'new:n', principal: `person:${leaver.id}`, gives: steward, ...open },
    )
    await leaver.visitor.change(invite('hal@test.example', { name: 'Hal', as: 'guest' }))
    const { body: leaving } = await owner.get<OffboardingView>(`${at}/people/${leaver.id}/offboarding`)
    expect(leaving).toMatchObject({
      teams: [{ id, may: 'give' }],
      guests: [{ name: 'Hal' }],
      hasMore: false,
    })
    expect(leaving.places.map(each => [each.name, each.may, each.withTeam])).toEqual([
      ['Nests', 'recover', id],
      ['Ringing', 'recover', null],
    ])
    const ringing = leaving.places.find(each => each.name === 'Ringing')?.id
    const removing = [
      joining(id, member.id, true),
      { kind: 'person.remove', person: leaver.id, contact: member.id },
      { kind: 'access.recover', node: ringing, taker: member.id, limits: [] },
    ]
    expect((await owner.change(...removing)).body).toMatchObject({ made: {} })
    expect((await leaver.visitor.get(at)).status).toBe(404)
    expect((await member.visitor.get<{ actions: number }>(`${at}/nodes/${home}`)).body.actions).toBe(steward)
    expect((await member.visitor.get<{ actions: number }>(`${at}/nodes/${ringing}`)).body.actions).toBe(
      steward,
    )
    expect((await people('find=hal')).items[0]?.contact?.name).toBe('Mika')
  })

  test('a guest gets another contact from who invites guests, or from the one they turn to', async () => {
    const { guest, member, ownerId } = world
    const hand = (visitor: Visitor, contact: string) =>
      visitor.change({ kind: 'person.contact', person: guest.id, contact })
    expect((await hand(member.visitor, member.id)).body).toMatchObject(problem('privilege-missing'))
    expect((await hand(owner, member.id)).status).toBe(200)
    expect((await hand(member.visitor, guest.id)).body).toMatchObject(problem('unknown'))
    expect((await hand(member.visitor, ownerId)).status).toBe(200)
    const { notifications } = (await guest.visitor.get<NotificationsView>(`${at}/notifications`)).body
    expect(notifications[0]?.text).toBe('Your contact is now Ona.')
  })
})

describe('a picture', () => {
  const keep = (bytes: Buffer) =>
    fetch(`${world.server.address}/api${at}/pictures`, {
      method: 'POST',
      headers: {
        cookie: owner.cookie,
        'x-noskel-csrf': owner.csrf,
        'content-type': 'application/octet-stream',
      },
      body: new Uint8Array(bytes),
    })

  test('is cut, scaled, and freed of what a camera wrote into it', async () => {
    const taken = await sharp({ create: { width: 900, height: 500, channels: 3, background: '#0f665c' } })
      .withExif({ IFD0: { Copyright: 'somebody somewhere' } })
      .jpeg()
      .toBuffer()
    expect(taken.includes('somebody somewhere')).toBe(true)
    const { id } = (await (await keep(taken)).json()) as { id: string }
    expect((await owner.change({ kind: 'person.describe', person: world.ownerId, picture: id })).status).toBe(
      200,
    )
    const kept = await fetch(`${world.server.address}/api${at}/pictures/${id}`, {
      headers: { cookie: owner.cookie },
    })
    const bytes = Buffer.from(await kept.arrayBuffer())
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'webp', width: 256, height: 256 })
    expect(bytes.includes('somebody somewhere')).toBe(false)
  })

  test('that is none, or that is not there, is refused', async () => {
    expect((await keep(Buffer.from('%PDF-1.7'))).status).toBe(422)
    const edit = { kind: 'person.describe', person: world.ownerId, picture: 'nosuchpicture' }
    expect((await owner.change(edit)).body).toMatchObject(problem('wrong-picture'))
  })
})

test('who helps the people of one team is told of their status alone, and does just that', async () => {
  const { member, server } = world
  const helper = await welcome(server, owner, { name: 'Hilde' })
  const { id } = await team('Tides', {}, joining('new:t', world.ownerId, true), joining('new:t', member.id))
  const role = {
    kind: 'role.create',
    role: 'new:r',
    name: 'Sign-in help',
    note: '',
    rank: 30,
    privileges: ['reset sign-in'],
    addressable: false,
    seatExempt: false,
  }
  const giving = {
    kind: 'role.assign',
    person: helper.id,
    role: 'new:r',
    scope: { over: 'team', team: id },
    ...open,
  }
  expect((await owner.change(role, giving)).status).toBe(200)
  const { items } = await people('', helper.visitor)
  expect(items.filter(each => each.managed !== null).map(each => [each.name, each.managed?.may])).toEqual([
    ['Mika', ['reset sign-in']],
    ['Ona', []],
  ])
  // Nobody is found by what may not be known of them.
  expect((await people('role=role-guest', helper.visitor)).items).toEqual([])
  expect((await people('status=invited', helper.visitor)).items).toEqual([])
  const send = (person: string) => helper.visitor.call('POST', `${at}/people/${person}/sign-in-link`, {})
  expect([(await send(member.id)).status, (await send(world.ownerId)).body]).toMatchObject([
    204,
    problem('outranked'),
  ])
  expect((await send(world.guest.id)).body).toMatchObject(problem('privilege-missing'))
  expect((await helper.visitor.get(`${at}/people/${member.id}/offboarding`)).status).toBe(404)
  const list = { as: 'member', addresses: [{ mail: 'anton@test.example', name: '' }] }
  expect((await helper.visitor.call('POST', `${at}/people/addresses`, list)).status).toBe(404)
})
