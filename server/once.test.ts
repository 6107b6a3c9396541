import { generate } from 'otplib'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import type { MailView, TwoStepView } from '#contract/views/account.ts'
import type { OnboardingView } from '#contract/views/onboarding.ts'
import {
  type Answer,
  founded,
  invite,
  open,
  password,
  type TestServer,
  tokenFor,
  Visitor,
  welcome,
} from './tests/client.ts'

/** What may count once, used twenty times at the same instant: it counts once, and nothing else is lost by it. */

let server: TestServer
let owner: Visitor
const times = Array.from({ length: 20 }, (_, index) => index)

beforeEach(async () => {
  ;({ server, owner } = await founded({ trustProxy: 1 }))
})
afterEach(() => server.stop())

/** How many of twenty calls, sent together, went well. */
async function taken(send: (visitor: Visitor, index: number) => Promise<Answer>): Promise<number> {
  const answers = await Promise.all(times.map(index => send(new Visitor(server), index)))
  const unexpected = answers.filter(({ status }) => status >= 500)
  expect(unexpected.map(each => each.body)).toEqual([])
  return answers.filter(({ status }) => status < 300).length
}

/** Each from a network of its own: what is tried side by side from one of them waits. */
const signIn = (visitor: Visitor, index: number, more: object) =>
  visitor.enter(
    '/session',
    { mail: 'mika@test.example', password, ...more },
    { 'x-forwarded-for': `198.51.${index}.1` },
  )

describe('of the second step', () => {
  const code = (secret: string) => generate({ secret, epoch: Math.floor(server.time.now / 1000) })

  async function secured() {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const { body: step } = await visitor.call<TwoStepView>('POST', '/account/two-step', { password })
    const confirmed = await visitor.call<{ codes: string[] }>('POST', '/account/two-step/confirm', {
      code: await code(step.secret),
    })
    return { secret: step.secret, codes: confirmed.body.codes }
  }

  test('a code', async () => {
    const { secret } = await secured()
    server.time.now += 60_000
    const fresh = await code(secret)
    expect(await taken((visitor, index) => signIn(visitor, index, { code: fresh }))).toBe(1)
  })

  test('a recovery code; all ten of them at once are none lost', async () => {
    const { codes } = await secured()
    const [first = '', ...others] = codes
    expect(await taken((visitor, index) => signIn(visitor, index, { code: first }))).toBe(1)
    // Each of the nine that are left twice, and two that are used.
    expect(
      await taken((visitor, index) => signIn(visitor, index, { code: others[index % 9] ?? first })),
    ).toBe(9)
  })

  test('its setting up gives one set of recovery codes', async () => {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const { body: step } = await visitor.call<TwoStepView>('POST', '/account/two-step', { password })
    const given = await code(step.secret)
    expect(await taken(() => visitor.call('POST', '/account/two-step/confirm', { code: given }))).toBe(1)
  })
})

test('a reset link', async () => {
  await welcome(server, owner, { name: 'Mika' })
  await new Visitor(server).call('POST', '/password-resets', { mail: 'mika@test.example' })
  const find = async (): Promise<string> => {
    const { body } = await owner.get<MailView[]>('/mailbox')
    const token = body.flatMap(each => /account-link#(\S+)/.exec(each.text)?.[1] ?? [])[0]
    return token ?? new Promise(resolve => setTimeout(() => resolve(find()), 20))
  }
  const token = await find()
  const next = (index: number) => `salt marsh at low tide ${index}`
  expect(
    await taken((visitor, index) =>
      visitor.call('POST', '/account-links/use', { token, password: next(index) }),
    ),
  ).toBe(1)
})

test('an invitation', async () => {
  await owner.change(invite('mika@test.example'))
  const token = await tokenFor(owner, 'mika@test.example')
  expect(
    await taken(visitor => visitor.enter('/invitations/accept', { token, name: 'Mika', password })),
  ).toBe(1)
})

test('a changed password', async () => {
  const { visitor } = await welcome(server, owner, { name: 'Mika' })
  const next = (index: number) => `salt marsh at low tide ${index}`
  expect(
    await taken((_, index) => visitor.call('PUT', '/account/password', { password, next: next(index) })),
  ).toBe(1)
})

test('a join link’s last use, and the last seat', async () => {
  const offer = { as: 'member', role: null, teams: [], places: [], ...open }
  const until = server.time.now + 864e5
  const link = { kind: 'link.create', link: 'new:l', name: 'L', until, domains: [], welcome: null, offer }
  await owner.change({ ...link, most: 3 })
  const onboarding = async () => (await owner.get<OnboardingView>('/at/coast/onboarding')).body.joinLinks
  const [made] = await onboarding()
  const token = made?.address?.split('#')[1]
  const come = (visitor: Visitor, index: number) =>
    visitor.call('POST', '/join-links/join', { token, mail: `p${index}@test.example` })
  expect(await taken(come)).toBe(3)
  expect((await onboarding())[0]?.used).toBe(3)
  await owner.change({ kind: 'seats.change', seats: 6 })
  const seated = await taken((_, index) => owner.change(invite(`q${index}@test.example`)))
  // The owner and three who came by the link take four.
  expect(seated).toBe(2)
})

test('tokens are for one thing in one workspace, and die with it', async () => {
  const { body: second } = await owner.call<{ slug: string }>('POST', '/workspaces', {
    name: 'Isles',
    timeZone: 'Europe/London',
  })
  const offer = { as: 'member', role: null, teams: [], places: [], ...open }
  const until = server.time.now + 864e5
  const link = {
    kind: 'link.create',
    link: 'new:l',
    name: 'L',
    until,
    domains: [],
    most: 3,
    welcome: null,
    offer,
  }
  const tokenAt = async (slug: string) => {
    await owner.call('POST', `/at/${slug}/changes`, { edits: [link] })
    const { body } = await owner.get<OnboardingView>(`/at/${slug}/onboarding`)
    return { id: body.joinLinks[0]?.id ?? '', token: body.joinLinks[0]?.address?.split('#')[1] ?? '' }
  }
  const here = await tokenAt('coast')
  const there = await tokenAt(second.slug)
  const look = (token: string, what = 'join-links') =>
    new Visitor(server).call<{ workspace?: string }>('POST', `/${what}/read`, { token })
  expect((await look(here.token)).body.workspace).toBe('Coast')
  const crossed = `${there.id}.${here.token.split('.')[1] ?? ''}`
  expect((await look(crossed)).status).toBe(404)
  expect((await look(here.token, 'invitations')).status).toBe(404)
  expect((await look(here.token, 'account-links')).status).toBe(404)
  await owner.change({ kind: 'link.withdraw', link: here.id })
  expect((await look(here.token)).status).toBe(404)
  // Ids are made by the server: one that is free is nobody's to take.
  const again = await owner.change({ ...link, link: here.id })
  expect([again.status, again.body.type]).toEqual([400, 'urn:noskel:problem:bad-input'])
})
