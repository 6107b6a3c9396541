import { join } from 'node:path'
import { generate } from 'otplib'
import { Sequelize } from 'sequelize'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import type { AccountView, MailView, SessionView, TwoStepView } from '#contract/views/account.ts'
import { founded, invite, password, type TestServer, Visitor, welcome } from '../../tests/client.ts'

/** Getting in: forgotten passwords, the second step, sign-ins, slowed guessing. */
const next = 'another long secret'
const problem = (code: string) => ({ type: `urn:noskel:problem:${code}` })
let server: TestServer
let owner: Visitor

beforeEach(async () => {
  ;({ server, owner } = await founded())
})
afterEach(() => server.stop())

/** The token of the newest mail to an address that has a link of this kind; waits for the mail. */
async function linkIn(mail: string, page: string, after = 0): Promise<string> {
  for (let tries = 0; tries < 100; tries += 1) {
    const { body } = await owner.get<MailView[]>('/mailbox')
    const found = body
      .filter(each => each.to === mail)
      .flatMap(each => new RegExp(`${page}#(\\S+)`).exec(each.text)?.[1] ?? [])
    if (found.length > after) return found[0] ?? ''
    await new Promise(resolve => setTimeout(resolve, 20))
  }
  throw new Error(`no link came to ${mail}`)
}

const signIn = (visitor: Visitor, more: object = {}) =>
  visitor.enter('/session', { mail: 'mika@test.example', password, ...more })

describe('a forgotten password', () => {
  test('is chosen anew by a mailed link, which works once and ends every sign-in', async () => {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const stranger = new Visitor(server)
    const known = await stranger.call('POST', '/password-resets', { mail: 'Mika@test.example' })
    const unknown = await stranger.call('POST', '/password-resets', { mail: 'nobody@test.example' })
    expect([known.status, known.body]).toEqual([unknown.status, unknown.body])
    const token = await linkIn('mika@test.example', 'account-link')
    const use = (more: object) => stranger.call('POST', '/account-links/use', { token, ...more })
    expect((await use({ password: 'mika' })).body).toMatchObject(problem('weak-password'))
    expect((await use({ password: next })).status).toBe(204)
    expect((await use({ password })).body).toMatchObject(problem('dead-link'))
    expect((await visitor.get('/account')).status).toBe(401)
    expect((await signIn(stranger)).status).toBe(401)
    expect((await signIn(stranger, { password: next })).status).toBe(200)
  })

  test('has a link that dies after an hour, and cannot be made up', async () => {
    await welcome(server, owner, { name: 'Mika' })
    const stranger = new Visitor(server)
    await stranger.call('POST', '/password-resets', { mail: 'mika@test.example' })
    const token = await linkIn('mika@test.example', 'account-link')
    const look = (token: string) => stranger.call('POST', '/account-links/read', { token })
    const forged = `${token.split('.')[0]}.${'A'.repeat(43)}`
    expect((await look(token)).body).toMatchObject({ purpose: 'password', mail: 'mika@test.example' })
    expect((await look(forged)).body).toMatchObject(problem('dead-link'))
    server.time.now += 3_600_001
    expect((await look(token)).body).toMatchObject(problem('dead-link'))
  })
})

test('guessing is slowed for the address, wherever it comes from and whether anybody has it', async () => {
  await welcome(server, owner, { name: 'Mika' })
  for (const mail of ['mika@test.example', 'nobody@test.example']) {
    const tries = []
    for (let count = 0; count < 6; count += 1)
      tries.push((await signIn(new Visitor(server), { mail, password: `wrong ${count}` })).status)
    expect(tries).toEqual([401, 401, 401, 401, 401, 429])
  }
  expect((await signIn(new Visitor(server))).body).toMatchObject(problem('sign-in-throttled'))
  server.time.now += 60_000
  expect((await signIn(new Visitor(server))).status).toBe(200)
})

describe('the second step', () => {
  const code = async (secret: string) => generate({ secret, epoch: Math.floor(server.time.now / 1000) })

  /** Mika with a second step, and its recovery codes. */
  async function secured() {
    const { visitor, id } = await welcome(server, owner, { name: 'Mika' })
    const { body: step } = await visitor.call<TwoStepView>('POST', '/account/two-step', { password })
    expect(step.qr).toMatch(/^data:image\/png;base64,/)
    const confirmed = await visitor.call<{ codes: string[] }>('POST', '/account/two-step/confirm', {
      code: await code(step.secret),
    })
    return { visitor, id, secret: step.secret, codes: confirmed.body.codes }
  }

  test('is asked for after the password; each code counts once', async () => {
    const { secret } = await secured()
    const visitor = new Visitor(server)
    expect((await signIn(visitor)).body).toMatchObject(problem('two-step'))
    expect((await signIn(visitor, { password: 'wrong', code: '000000' })).body).toMatchObject(
      problem('wrong-sign-in'),
    )
    expect((await signIn(visitor, { code: '000000' })).body).toMatchObject(problem('wrong-code'))
    // The one that set it up is used already.
    expect((await signIn(visitor, { code: await code(secret) })).body).toMatchObject(problem('wrong-code'))
    server.time.now += 60_000
    const fresh = await code(secret)
    expect((await signIn(visitor, { code: fresh })).status).toBe(200)
    expect((await signIn(new Visitor(server), { code: fresh })).body).toMatchObject(problem('wrong-code'))
  })

  test('lets in by each recovery code once where the app is lost, and guessing is slowed', async () => {
    const { codes } = await secured()
    expect(new Set(codes).size).toBe(10)
    const [first = ''] = codes
    expect((await signIn(new Visitor(server), { code: first.toUpperCase() })).status).toBe(200)
    expect((await signIn(new Visitor(server), { code: first })).body).toMatchObject(problem('wrong-code'))
    for (let count = 0; count < 4; count += 1) await signIn(new Visitor(server), { code: '123456' })
    expect((await signIn(new Visitor(server), { code: '123456' })).body).toMatchObject(
      problem('sign-in-throttled'),
    )
  })

  test('ends by a link that a helper has sent to the holder’s own address', async () => {
    const { id } = await secured()
    const stranger = new Visitor(server)
    await stranger.call('POST', '/password-resets', { mail: 'mika@test.example' })
    const plain = await linkIn('mika@test.example', 'account-link')
    const use = (token: string, chosen: string) =>
      stranger.call('POST', '/account-links/use', { token, password: chosen, endsTwoStep: true })
    // A link that anybody can ask for changes the password alone.
    expect((await use(plain, next)).status).toBe(204)
    expect((await signIn(stranger, { password: next })).body).toMatchObject(problem('two-step'))
    expect((await owner.call('POST', `/at/coast/people/${id}/sign-in-link`, {})).status).toBe(204)
    const token = await linkIn('mika@test.example', 'account-link', 1)
    expect((await use(token, password)).status).toBe(204)
    expect((await signIn(stranger)).status).toBe(200)
  })

  test('is needed where the workspace asks it of a role, and nobody locks themselves out', async () => {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const rule = (...roles: string[]) => owner.change({ kind: 'workspace.change', twoStepFor: roles })
    expect((await rule('role-owner')).body).toMatchObject(problem('two-step-first'))
    expect((await rule('role-member')).status).toBe(200)
    expect((await visitor.get('/at/coast')).body).toMatchObject(problem('two-step-needed'))
    expect((await visitor.get('/at/coast/people')).body).toMatchObject(problem('two-step-needed'))
    const { body: step } = await visitor.call<TwoStepView>('POST', '/account/two-step', { password })
    await visitor.call('POST', '/account/two-step/confirm', { code: await code(step.secret) })
    expect((await visitor.get('/at/coast')).status).toBe(200)
    server.time.now += 60_000
    await visitor.call('POST', '/account/two-step/end', { password, code: await code(step.secret) })
    expect((await visitor.get('/at/coast')).body).toMatchObject(problem('two-step-needed'))
  })

  test('ends where the workspace lets it end: so long after it began, or after it was used last', async () => {
    const hour = 3_600_000
    await owner.change({ kind: 'workspace.change', signInDays: 2, idleHours: 10 })
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const look = async () => (await visitor.get('/at/coast')).status
    const again = async () => expect((await signIn(visitor)).status).toBe(200)
    for (let count = 0; count < 5; count += 1) {
      server.time.now += 9 * hour
      expect(await look()).toBe(200)
    }
    server.time.now += 4 * hour
    expect([await look(), await look()]).toEqual([401, 401])
    expect((await visitor.get('/account')).status).toBe(401)
    await again()
    server.time.now += 11 * hour
    expect(await look()).toBe(401)
    await again()
    expect(await look()).toBe(200)
  })

  test('and the password are changed by who shows anew that they are theirs', async () => {
    const { visitor: plain } = await welcome(server, owner, { name: 'Lea' })
    const begin = (body: object) => plain.call('POST', '/account/two-step', body)
    expect((await begin({})).status).toBe(400)
    expect((await begin({ password: 'not this one at all' })).body).toMatchObject(problem('wrong-sign-in'))
    const { visitor, secret } = await secured()
    const acts: readonly (readonly [method: string, path: string, more: object])[] = [
      ['PUT', '/account/password', { next }],
      ['POST', '/account/two-step/end', {}],
    ]
    for (const [method, path, more] of acts) {
      const act = (shown: object) => visitor.call(method, path, { ...more, ...shown })
      expect((await act({ password })).body).toMatchObject(problem('two-step'))
      expect((await act({ password, code: '000000' })).body).toMatchObject(problem('wrong-code'))
      expect((await act({ password: 'not this one at all', code: await code(secret) })).status).toBe(401)
    }
    server.time.now += 60_000
    const shown = { password, code: await code(secret) }
    expect((await visitor.call('PUT', '/account/password', { next, ...shown })).status).toBe(204)
  })

  test('is kept sealed, and survives a restart', async () => {
    const { secret } = await secured()
    await server.restart()
    server.time.now += 60_000
    expect((await signIn(new Visitor(server))).body).toMatchObject(problem('two-step'))
    expect((await signIn(new Visitor(server), { code: await code(secret) })).status).toBe(200)
  })
})

describe('sign-ins', () => {
  test('are listed with where they are, and end one by one or all at once', async () => {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const [other, third] = [new Visitor(server), new Visitor(server)]
    await signIn(other)
    await signIn(third)
    const { body } = await visitor.get<AccountView>('/account')
    expect(body.signIns.map(each => each.isThis).sort()).toEqual([false, false, true])
    expect(JSON.stringify(body)).not.toContain(other.signIn)
    const { body: seen } = await other.get<AccountView>('/account')
    const mine = seen.signIns.find(each => each.isThis)?.id
    expect((await visitor.call('DELETE', `/account/sign-ins/${mine}`)).status).toBe(204)
    expect((await other.get('/account')).status).toBe(401)
    expect((await visitor.call('DELETE', '/account/sign-ins')).status).toBe(204)
    expect((await third.get('/account')).status).toBe(401)
    expect((await visitor.get('/account')).status).toBe(200)
  })

  test('last over a restart, but for those that were ended and those whose time is over', async () => {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const [ended, over] = [new Visitor(server), new Visitor(server)]
    await signIn(ended)
    await visitor.call('DELETE', '/account/sign-ins')
    await signIn(over)
    const statuses = async () =>
      (await Promise.all([visitor, ended, over].map(each => each.get('/account')))).map(each => each.status)
    expect(await statuses()).toEqual([200, 401, 200])
    const file = new Sequelize({
      dialect: 'sqlite',
      storage: join(server.dataDir, 'sessions.sqlite'),
      logging: false,
    })
    const sid = over.signIn
    await file.query('UPDATE "signIns" SET "until" = 1 WHERE "sid" = $sid', { bind: { sid } })
    await file.close()
    await server.restart()
    expect(await statuses()).toEqual([200, 401, 401])
  })

  test('end with a new password, but for the one that chose it', async () => {
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    const other = new Visitor(server)
    await signIn(other)
    const choose = (now: string) => visitor.call('PUT', '/account/password', { password: now, next })
    expect((await choose('wrong')).status).toBe(401)
    expect((await choose(password)).status).toBe(204)
    expect([(await visitor.get('/account')).status, (await other.get('/account')).status]).toEqual([200, 401])
  })
})

test('an account that came by a link passed on by hand is marked until its address is confirmed', async () => {
  const { body: made } = await owner.change(invite('mika@test.example', { name: 'Mika' }))
  const id = made.made['new:person'] ?? ''
  const { body: link } = await owner.call<{ address: string }>(
    'POST',
    `/at/coast/people/${id}/invitation-link`,
    {},
  )
  const visitor = new Visitor(server)
  const token = link.address.split('#')[1]
  expect((await visitor.enter('/invitations/accept', { token, name: 'Mika', password })).status).toBe(200)
  const confirmed = async () =>
    (await owner.get<{ managed: { isConfirmed: boolean } }>(`/at/coast/people/${id}`)).body.managed
      .isConfirmed
  expect(await confirmed()).toBe(false)
  // Whoever holds such an account does not get what is sent to the address elsewhere.
  const { body: other } = await owner.call<{ slug: string }>('POST', '/workspaces', {
    name: 'Inland',
    timeZone: 'UTC',
  })
  await owner.call('POST', `/at/${other.slug}/changes`, { edits: [invite('mika@test.example')] })
  const waiting = async () => (await visitor.get<SessionView>('/session')).body.invitations.length
  expect(await waiting()).toBe(0)
  await visitor.call('POST', '/account/address', {})
  await visitor.call('POST', '/account-links/use', {
    token: await linkIn('mika@test.example', 'account-link'),
  })
  expect([await confirmed(), await waiting()]).toEqual([true, 1])
})
