import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { founded, password, type TestServer, Visitor, welcome } from '../../tests/client.ts'
import type { MailView } from '#contract/views/account.ts'

/** Guessing waits, and shuts nobody out. */

let server: TestServer
let owner: Visitor
let mika: Visitor
let mikaId: string
const mail = 'mika@test.example'

beforeEach(async () => {
  ;({ server, owner } = await founded({ trustProxy: 1 }))
  ;({ visitor: mika, id: mikaId } = await welcome(server, owner, { name: 'Mika' }))
})
afterEach(() => server.stop())

/** A try from a network. */
const tryFrom = async (address: string, given: string, visitor = new Visitor(server)) =>
  (await visitor.enter('/session', { mail, password: given }, { 'x-forwarded-for': address })).status

async function attack(from = '203.0.113.7'): Promise<void> {
  for (let count = 0; count < 6; count += 1) await tryFrom(from, `wrong guess ${count}`)
  expect(await tryFrom(from, password)).toBe(429)
}

describe('whoever guesses at somebody’s password', () => {
  test('waits with their whole network, and no other one', async () => {
    await attack()
    expect([await tryFrom('203.0.113.99', password), await tryFrom('198.51.100.4', password)]).toEqual([
      429, 200,
    ])
    await attack('2001:db8:1:2::5')
    expect([
      await tryFrom('2001:db8:1:2:ffff::1', password),
      await tryFrom('2001:db8:1:3::5', password),
    ]).toEqual([429, 200])
  })

  test('does not shut out a device at which the holder has signed in', async () => {
    await attack()
    await mika.call('DELETE', '/session')
    expect(await tryFrom('203.0.113.7', password, mika)).toBe(200)
    await mika.call('DELETE', '/session')
    // A device has its own count; somebody else's is worth nothing.
    for (let count = 0; count < 6; count += 1) await tryFrom('203.0.113.7', `wrong ${count}`, mika)
    expect(await tryFrom('203.0.113.7', password, mika)).toBe(429)
    expect(await tryFrom('198.51.100.4', password, mika)).toBe(429)
    await owner.call('DELETE', '/session')
    expect(await tryFrom('203.0.113.8', password, owner)).toBe(429)
  })

  test('holds up nobody who is signed in, nor the link of a helper', async () => {
    await attack()
    const change = { password, next: 'salt marsh at low tide' }
    for (let count = 0; count < 8; count += 1)
      await new Visitor(server).call('POST', '/password-resets', { mail })
    expect((await owner.call('POST', `/at/coast/people/${mikaId}/sign-in-link`, {})).status).toBe(204)
    const mailed = async () =>
      (await owner.get<MailView[]>('/mailbox')).body
        .filter(each => each.to === mail)
        .map(each => each.subject)
    for (let tries = 0; tries < 100 && !(await mailed()).includes('Sign in to Noskel again'); tries += 1)
      await new Promise(resolve => setTimeout(resolve, 20))
    expect(await mailed()).toContain('Sign in to Noskel again')
    expect((await mika.call('PUT', '/account/password', change)).status).toBe(204)
  })
})

test('misses age', async () => {
  await attack()
  server.time.now += 30_000
  expect(await tryFrom('203.0.113.7', 'wrong again')).toBe(401)
  expect(await tryFrom('203.0.113.7', password)).toBe(429)
  // After an hour it is as if there had been none: five more are anybody's.
  server.time.now += 3_700_000
  for (let count = 0; count < 5; count += 1) expect(await tryFrom('203.0.113.7', 'wrong')).toBe(401)
  expect(await tryFrom('203.0.113.7', password)).toBe(429)
})

test('guesses sent side by side are counted before they are looked at', async () => {
  const guesses = Array.from({ length: 20 }, (_, index) => (index === 19 ? password : `guess ${index}`))
  const answers = await Promise.all(guesses.map(each => tryFrom('203.0.113.7', each)))
  expect(answers.filter(each => each !== 429).length).toBeLessThanOrEqual(5)
  expect(answers).not.toContain(200)
})

test.each([
  ['short', 'short', 'at least 12'],
  ['the address', mail, 'mail address'],
  ['a well-known one', 'password1234', 'easy to guess'],
  ['a keyboard row', 'qwertyuiop12', 'easy to guess'],
  ['one sign over and over', 'aaaaaaaaaaaaaaa', 'easy to guess'],
  ['one’s own name and the product', 'mikamika-noskel', 'your own name'],
  ['the workspace', 'coast coast!', 'your own name'],
])('a password that is %s is refused in words', async (_, next, words) => {
  const { status, body } = await mika.call('PUT', '/account/password', { password, next })
  expect([status, body.type]).toEqual([422, 'urn:noskel:problem:weak-password'])
  expect(body.faults?.[0]?.message).toContain(words)
})
