import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { NodeView } from '#contract/views/content.ts'
import type { HistoryView } from '#contract/views/history.ts'
import type { PageView } from '#contract/views/page.ts'
import type { PersonDetailView, PersonView } from '#contract/views/people.ts'
import type { SettingsView, WorkspaceView } from '#contract/views/workspace.ts'
import { invite, open, password, tokenFor, Visitor, welcome } from '../../tests/client.ts'
import { at, coast, type Coast, editor, reader, share } from '../../tests/coast.ts'

/** Settings: who changes which, and that each does what it says, to whom it says. */
let world: Coast
let owner: Visitor

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
})
afterAll(() => world.server.stop())

const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })
const setting = (fields: object) => ({ kind: 'workspace.change', ...fields })
const set = (fields: object) => owner.change(setting(fields))
const settings = async () => (await owner.get<SettingsView>(`${at}/settings`)).body
const detail = async (id: string) => (await owner.get<PersonDetailView>(`${at}/people/${id}`)).body
const accept = async (mail: string, more: object = {}) => {
  const visitor = new Visitor(world.server)
  const token = await tokenFor(owner, mail)
  return {
    visitor,
    answer: await visitor.enter('/invitations/accept', { token, name: 'Somebody', password, ...more }),
  }
}

describe('settings', () => {
  test('are told to those who change some of them, and changed by the privilege that each needs', async () => {
    const { member, server } = world
    const keeper = await welcome(server, owner, { name: 'Kim' })
    await owner.change(
      {
        kind: 'role.create',
        role: 'new:r',
        name: 'Sign painter',
        note: '',
        rank: 30,
        privileges: ['view people', 'edit settings'],
        addressable: false,
        seatExempt: false,
      },
      { kind: 'role.assign', person: keeper.id, role: 'new:r', scope: { over: 'workspace' }, ...open },
    )
    expect((await member.visitor.get(`${at}/settings`)).status).toBe(404)
    expect((await keeper.visitor.get(`${at}/settings`)).status).toBe(200)
    expect((await member.visitor.change(setting({ name: 'Mine' }))).status).toBe(403)
    expect((await keeper.visitor.change(setting({ name: 'Coast and Isles' }))).status).toBe(200)
    for (const fields of [
      { guestCeiling: reader },
      { allowsPublishing: false },
      { memberDomains: ['test.example'] },
      { guestDomains: ['test.example'] },
      { twoStepFor: ['role-owner'] },
    ])
      expect((await keeper.visitor.change(setting(fields))).body).toMatchObject(problem('privilege-missing'))
    // One that they may change goes nowhere with one that they may not.
    const both = setting({ name: 'Taken along', allowsPublishing: false })
    expect((await keeper.visitor.change(both)).status).toBe(403)
    const { body } = await member.visitor.get<WorkspaceView>(at)
    expect([body.name, body.slug]).toEqual(['Coast and Isles', 'coast'])
    // A role above one's own is nobody's usual one by one's own hand.
    const usual = setting({ defaultRole: 'role-administrator' })
    expect((await keeper.visitor.change(usual)).status).toBe(403)
  })

  test.each([
    ['a name of blanks', { name: '   ' }],
    ['a time zone that is none', { timeZone: 'Europe/Atlantis' }],
    ['no days', { invitationDays: 0 }],
    ['a domain with an at sign', { memberDomains: ['a@b.example'] }],
    ['a role that is not there', { twoStepFor: ['role-of-nobody'] }],
    ['the role of guests as that of members', { defaultRole: 'role-guest' }],
    ['something else', { seats: 3 }],
    ['nothing at all', {}],
  ])('of %s are refused, and nothing is changed', async (_what, fields) => {
    const before = await settings()
    const { status, body } = await set(fields)
    expect(status, body.title).toBeGreaterThanOrEqual(400)
    expect(status).toBeLessThan(500)
    expect(await settings()).toEqual(before)
  })

  test('stand in the history with who changed them, and are undone from there', async () => {
    const before = (await settings()).timeZone
    await set({ timeZone: 'Europe/Oslo', invitationDays: 5 })
    const { body } = await owner.get<HistoryView>(`${at}/history?category=workspace`)
    const [entry] = body.entries
    expect(entry).toMatchObject({ author: { name: 'Ona' }, mayUndo: true })
    expect(entry?.events.map(event => event.text)).toEqual([
      'set the time zone to Europe/Oslo, set invitations to work for 5 days',
    ])
    expect((await owner.change({ kind: 'undo', revision: entry?.revision })).status).toBe(200)
    expect(await settings()).toMatchObject({ timeZone: before, invitationDays: 14 })
  })
})

describe('what guests can have', () => {
  test('caps what was granted at once, is previewed, and gives back what it took', async () => {
    const { guest, ids } = world
    await owner.change(share(ids.folder, guest.id, editor))
    const mine = async () => (await guest.visitor.get<NodeView>(`${at}/nodes/${ids.folder}`)).body.actions
    expect(await mine()).toBe(editor)
    const preview = await owner.preview(setting({ guestCeiling: reader }))
    expect(JSON.stringify(preview)).toContain('Gus')
    await set({ guestCeiling: reader })
    expect(await mine()).toBe(reader)
    await set({ guestCeiling: editor })
    expect(await mine()).toBe(editor)
  })

  test('and where they come from is a matter of their domain, for who comes from now on', async () => {
    await set({ guestDomains: ['near.example'], memberDomains: ['test.example'] })
    const far = invite('far@far.example', { as: 'guest' })
    expect((await owner.change(far)).body).toMatchObject(problem('domain-not-welcome'))
    const near = await owner.change(invite('near@near.example', { as: 'guest' }))
    expect(near.status).toBe(200)
    // Who is here stays; a guest of elsewhere is not made a member.
    expect((await detail(world.guest.id)).status).toBe('active')
    const turn = { kind: 'person.convert', person: near.body.made['new:person'], as: 'member', taker: null }
    await accept('near@near.example')
    expect((await owner.change(turn)).body).toMatchObject(problem('domain-not-welcome'))
    await set({ guestDomains: [], memberDomains: [] })
    expect((await owner.change(turn)).status).toBe(200)
  })
})

describe('coming in', () => {
  test('takes as long as the workspace says, for invitations from then on', async () => {
    const { server } = world
    await owner.change(invite('slow@test.example'))
    await set({ invitationDays: 1 })
    await owner.change(invite('late@test.example'))
    server.time.now += 2 * 864e5
    expect((await accept('late@test.example')).answer.body).toMatchObject(problem('dead-link'))
    expect((await accept('slow@test.example')).answer.status).toBe(200)
    await set({ invitationDays: 14 })
  })

  test('takes accepting the house rules where there are some, and when is kept', async () => {
    await set({ houseRules: 'Shut the gate.\nLeave the nests alone.' })
    const { body } = await owner.change(invite('gate@test.example'))
    const token = await tokenFor(owner, 'gate@test.example')
    const look = await owner.call<{ houseRules: string }>('POST', '/invitations/read', { token })
    expect(look.body.houseRules).toContain('Shut the gate.')
    expect((await accept('gate@test.example')).answer.body).toMatchObject(problem('house-rules'))
    expect((await accept('gate@test.example', { agrees: true })).answer.status).toBe(200)
    expect((await detail(body.made['new:person'] ?? '')).agreedAt).toBeGreaterThan(0)
    expect((await detail(world.member.id)).agreedAt).toBeNull()
    await set({ houseRules: '' })
  })

  test('gives the usual role, and another to those who come later when that changes', async () => {
    await set({ defaultRole: 'role-people-lead' })
    await owner.change(invite('lead@test.example', { name: 'Lea' }))
    await set({ defaultRole: 'role-member' })
    const { items } = (await owner.get<PageView<PersonView>>(`${at}/people?role=role-people-lead`)).body
    expect(items.map(person => person.name)).toEqual(['Lea'])
  })
})
