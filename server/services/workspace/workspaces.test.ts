import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { SessionView } from '#contract/views/account.ts'
import type { JoinedByLinkView } from '#contract/views/onboarding.ts'
import { invite, password, Visitor } from '../../tests/client.ts'
import { at, coast, type Coast, reader } from '../../tests/coast.ts'

/** Several workspaces on one account, each for itself; and the ways into one by a link. */
let world: Coast

beforeAll(async () => {
  world = await coast()
})
afterAll(() => world.server.stop())

const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })
const session = async (visitor: Visitor) => (await visitor.get<SessionView>('/session')).body

describe('another workspace', () => {
  test('is made by a member, is its maker’s alone, and gets an address of its own', async () => {
    const { owner, guest } = world
    const make = (visitor: Visitor) =>
      visitor.call<{ slug: string }>('POST', '/workspaces', { name: 'Coast', timeZone: 'UTC' })
    expect((await make(guest.visitor)).body).toMatchObject(problem('guests-make-none'))
    expect((await make(owner)).body).toEqual({ slug: 'coast-2' })
    expect((await session(owner)).workspaces.map(each => each.slug).sort()).toEqual(['coast', 'coast-2'])
    expect((await session(world.member.visitor)).workspaces.map(each => each.slug)).toEqual(['coast'])
  })

  test('knows nothing of the others, and answers to their people as if it were not there', async () => {
    const { owner, member, ids } = world
    await owner.call('POST', '/at/coast-2/changes', {
      edits: [
        {
          kind: 'team.create',
          team: 'new:t',
          home: 'new:h',
          name: 'Hidden Crew',
          note: '',
          joining: 'open',
          welcomesGuests: true,
        },
      ],
    })
    const nowhere = await member.visitor.get('/at/no-such-place')
    const paths = [
      '',
      '/people',
      '/people/names',
      '/teams',
      '/tree',
      '/history',
      '/onboarding',
      '/me/access',
      '/settings',
    ]
    for (const path of [...paths, `/nodes/${ids.home}`, `/people/${member.id}`]) {
      const { status, body } = await member.visitor.get(`/at/coast-2${path}`)
      expect([path, status, body]).toEqual([path, nowhere.status, nowhere.body])
    }
    // Its own Owner finds nothing of the other one in it either, by whichever id.
    for (const path of [`/nodes/${ids.home}`, `/people/${member.id}`, `/people/${member.id}/places`])
      expect((await owner.get(`/at/coast-2${path}`)).status).toBe(404)
    for (const path of ['/people', '/tree', '/history', '/people/names']) {
      const text = JSON.stringify((await owner.get(`/at/coast-2${path}`)).body)
      for (const secret of ['Mika', 'Gus', 'Sites', 'Dunes'])
        expect([path, text.includes(secret)]).toEqual([path, false])
    }
    const foreign = {
      kind: 'member.add',
      team: 'new:t',
      person: member.id,
      lead: false,
      from: null,
      until: null,
    }
    const { body } = await owner.call('POST', '/at/coast-2/changes', { edits: [foreign] })
    expect(body).toMatchObject(problem('unknown'))
    expect(JSON.stringify((await owner.get(`${at}/history`)).body)).not.toContain('Hidden Crew')
  })

  test('is joined by somebody who has an account with the invitation that waits in it', async () => {
    const { owner, member } = world
    await owner.call('POST', '/at/coast-2/changes', {
      edits: [invite('mika@test.example'), { kind: 'workspace.change', houseRules: 'Shut the gate.' }],
    })
    const [waiting] = (await session(member.visitor)).invitations
    expect(waiting).toMatchObject({
      workspace: 'Coast',
      by: 'Ona',
      as: 'member',
      houseRules: 'Shut the gate.',
    })
    const accept = (visitor: Visitor, agrees: boolean) =>
      visitor.call('POST', `/account/invitations/${waiting?.id}`, { agrees })
    expect((await accept(world.guest.visitor, true)).body).toMatchObject(problem('dead-link'))
    expect((await accept(member.visitor, false)).body).toMatchObject(problem('house-rules'))
    expect((await accept(member.visitor, true)).body).toEqual({ slug: 'coast-2' })
    expect((await member.visitor.get('/at/coast-2')).status).toBe(200)
    // Suspended there, still here.
    const { body } = await owner.get<{ items: { id: string; mail: string }[] }>('/at/coast-2/people')
    const there = body.items.find(each => each.mail === 'mika@test.example')?.id
    await owner.call('POST', '/at/coast-2/changes', { edits: [{ kind: 'person.suspend', person: there }] })
    expect((await member.visitor.get('/at/coast-2')).status).toBe(403)
    expect((await member.visitor.get(at)).status).toBe(200)
  })
})

describe('a join link', () => {
  const offer = { as: 'member', role: null, teams: [], places: [], from: null, until: null }
  const making = (more: object = {}) => ({
    kind: 'link.create',
    link: 'new:link',
    name: 'Beach day',
    until: world.server.time.now + 864e5,
    domains: ['college.example'],
    most: 2,
    welcome: null,
    offer: { ...offer, places: [{ node: world.ids.home, gives: reader }] },
    ...more,
  })

  async function linkOf(visitor: Visitor, id: string | undefined): Promise<string> {
    const { body } = await visitor.get<{ joinLinks: { id: string; address: string | null }[] }>(
      `${at}/onboarding`,
    )
    return body.joinLinks.find(each => each.id === id)?.address?.split('#')[1] ?? ''
  }

  test('invites the address that one gives, within its domains and its number', async () => {
    const { server, owner } = world
    const token = await linkOf(owner, (await owner.change(making())).body.made['new:link'])
    const stranger = new Visitor(server)
    const come = (mail: string) =>
      stranger.call<JoinedByLinkView>('POST', '/join-links/join', { token, mail })
    const { body: look } = await stranger.call('POST', '/join-links/read', { token })
    expect(look).toMatchObject({ workspace: 'Coast', by: 'Ona', places: 1, domains: ['college.example'] })
    expect(JSON.stringify(look)).not.toContain('Sites')
    expect((await come('x@elsewhere.example')).body).toMatchObject(problem('domain-not-welcome'))
    expect((await come('x@deep.college.example')).body).toMatchObject(problem('domain-not-welcome'))
    const first = await come('Ada@college.example')
    // Nobody learns whether an address is known here.
    expect([(await come('ada@college.example')).body, first.body]).toEqual([
      first.body,
      { slug: null, invitation: null },
    ])
    await come('ben@college.example')
    expect((await come('cy@college.example')).body).toMatchObject(problem('dead-link'))
    const { body } = await owner.get<{ items: { mail: string; status: string }[] }>(
      `${at}/people?status=invited`,
    )
    expect(body.items.map(each => each.mail)).toEqual(['ada@college.example', 'ben@college.example'])
  })

  test('gives by its maker’s rights when somebody comes, ends in time, and is withdrawn', async () => {
    const { server, owner, member } = world
    const give = {
      kind: 'role.assign',
      person: member.id,
      role: 'role-people-lead',
      scope: { over: 'workspace' },
      from: null,
      until: null,
    }
    await owner.change(give)
    const plain = { domains: [], most: null, offer }
    const { body: made } = await member.visitor.change(making(plain))
    const token = await linkOf(member.visitor, made.made['new:link'])
    const stranger = new Visitor(server)
    const come = (mail: string, token: string) => stranger.call('POST', '/join-links/join', { token, mail })
    expect((await come('dan@test.example', token)).status).toBe(200)
    await owner.change({ kind: 'person.suspend', person: member.id })
    expect((await come('eve@test.example', token)).body).toMatchObject(problem('link-over'))
    await owner.change({ kind: 'person.reactivate', person: member.id })
    const change = { kind: 'link.change', link: made.made['new:link'], most: 500 }
    expect((await owner.change(change)).body).toMatchObject(problem('not-its-maker'))
    expect((await owner.change({ kind: 'link.withdraw', link: made.made['new:link'] })).status).toBe(200)
    expect((await come('fay@test.example', token)).body).toMatchObject(problem('dead-link'))
    const { body: late } = await owner.change(making(plain))
    const lateToken = await linkOf(owner, late.made['new:link'])
    server.time.now += 864e5
    expect((await come('gil@test.example', lateToken)).body).toMatchObject(problem('dead-link'))
    server.time.now -= 864e5
  })

  test('lets somebody with an account in at once', async () => {
    const { server, owner } = world
    await owner.call('POST', '/at/coast-2/changes', { edits: [{ kind: 'workspace.change', houseRules: '' }] })
    const edits = [making({ domains: [], most: null, offer })]
    const { body: made } = await owner.call<{ made: Record<string, string> }>('POST', '/at/coast-2/changes', {
      edits,
    })
    const { body } = await owner.get<{ joinLinks: { id: string; address: string }[] }>(
      '/at/coast-2/onboarding',
    )
    const token = body.joinLinks.find(each => each.id === made.made['new:link'])?.address.split('#')[1]
    const gus = new Visitor(server)
    await gus.enter('/session', { mail: 'gus@test.example', password })
    expect((await gus.call('POST', '/join-links/join', { token })).body).toEqual({
      slug: 'coast-2',
      invitation: null,
    })
    expect((await session(gus)).workspaces).toHaveLength(2)
  })
})
