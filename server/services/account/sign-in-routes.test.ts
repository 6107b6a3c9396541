import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { SMTPServer } from 'smtp-server'
import { afterEach, describe, expect, test } from 'vitest'
import type { SessionView } from '#contract/views/account.ts'
import {
  founded,
  invite,
  password,
  serve,
  type TestServer,
  tokenFor,
  Visitor,
  welcome,
} from '../../tests/client.ts'

const open: TestServer[] = []
const kept = <T extends { server: TestServer }>(started: T): T => {
  open.push(started.server)
  return started
}

afterEach(async () => {
  for (const server of open.splice(0)) await server.stop()
})

describe('the first start', () => {
  test('makes the workspace and its Owner, once', async () => {
    const { server } = kept({ server: await serve() })
    const visitor = new Visitor(server)
    expect((await visitor.get<SessionView>('/session')).body).toMatchObject({ isSetUp: false, account: null })
    const setUp = {
      workspace: 'Dünen & Watt',
      timeZone: 'Europe/Berlin',
      name: 'Ona',
      mail: 'Ona@test.example',
      password,
    }
    expect((await visitor.enter('/set-up', { ...setUp, password: 'password1234' })).body).toMatchObject({
      status: 422,
    })
    expect(
      (await visitor.enter('/set-up', { ...setUp, timeZone: 'Europe/Nowhere' })).body.faults,
    ).toMatchObject([{ at: 'timeZone' }])
    const { body } = await visitor.enter('/set-up', setUp)
    expect(body).toMatchObject({ isSetUp: true, workspaces: [{ name: 'Dünen & Watt', slug: 'dunen-watt' }] })
    const second = await new Visitor(server).enter('/set-up', { ...setUp, mail: 'other@test.example' })
    expect(second.body).toMatchObject({ status: 409, type: 'urn:noskel:problem:already-set-up' })
  })
})

describe('signing in', () => {
  test('says the same whether the address or the password is wrong', async () => {
    const { server } = kept(await founded())
    const visitor = new Visitor(server)
    const wrong = await visitor.enter('/session', { mail: 'ona@test.example', password: 'not this one' })
    const unknown = await visitor.enter('/session', { mail: 'nobody@test.example', password })
    expect(wrong.status).toBe(401)
    expect(wrong.body).toEqual(unknown.body)
    expect((await visitor.enter('/session', { mail: ' ONA@test.example', password })).status).toBe(200)
  })

  test('gives a cookie that scripts cannot read; signing out ends the session', async () => {
    const { owner } = kept(await founded())
    const { headers } = await owner.enter('/session', { mail: 'ona@test.example', password })
    expect(headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Lax/i)
    expect((await owner.call('DELETE', '/session')).status).toBe(204)
    expect((await owner.get('/at/coast')).status).toBe(401)
  })

  test('can be tried a few times a minute and no more', async () => {
    // Setting up was the first try.
    const { server } = kept(await founded({ triesPerMinute: 4 }))
    const visitor = new Visitor(server)
    const tries = []
    for (let count = 0; count < 4; count += 1)
      tries.push((await visitor.enter('/session', { mail: 'ona@test.example', password: 'wrong' })).status)
    expect(tries).toEqual([401, 401, 401, 429])
  })
})

describe('a forged request', () => {
  const edits = { edits: [invite('x@test.example')] }

  test.each([
    ['without the session’s token', { 'x-noskel-csrf': '' }],
    ['from another site', { origin: 'https://elsewhere.example' }],
    ['that the browser calls foreign', { 'sec-fetch-site': 'cross-site' }],
    ['shaped like a form', { 'content-type': 'text/plain' }],
  ])('%s is refused', async (_how, headers) => {
    const { owner } = kept(await founded())
    const answer = await owner.call('POST', '/at/coast/changes', edits, headers)
    expect(answer.body).toMatchObject({ status: 403, type: 'urn:noskel:problem:wrong-origin' })
  })
})

describe('input that does not fit', () => {
  test.each([
    ['no JSON', '{', 'bad-json'],
    ['no edits', { edits: [] }, 'bad-input'],
    ['an unknown kind', { edits: [{ kind: 'workspace.own' }] }, 'bad-input'],
    ['a field too many', { edits: [{ kind: 'grant.end', grant: 'g', force: true }] }, 'bad-input'],
    ['accepting for another', { edits: [{ kind: 'invitation.accept', person: 'p' }] }, 'bad-input'],
    [
      'a set that is not closed',
      { edits: [{ kind: 'grant.add', node: 'n', principal: 'everyone', gives: 2, from: null, until: null }] },
      'bad-input',
    ],
    [
      'an empty name',
      { edits: [{ kind: 'node.create', node: 'new:n', parent: 'p', as: 'page', name: '  ' }] },
      'bad-input',
    ],
  ])('%s gets a clear error', async (_what, body, code) => {
    const { owner } = kept(await founded())
    const answer = await owner.call('POST', '/at/coast/changes', body)
    expect(answer.body).toMatchObject({ status: 400, type: `urn:noskel:problem:${code}` })
  })
})

describe('an invitation', () => {
  test('opens an account of its own; somebody who has one uses its password', async () => {
    const { server, owner } = kept(await founded())
    const { visitor } = await welcome(server, owner, { name: 'Mika' })
    expect((await visitor.get('/at/coast')).status).toBe(200)
    const again = await new Visitor(server).enter('/invitations/accept', {
      token: 'made-up.token-of-no-one',
      name: 'M',
      password,
    })
    expect(again.body).toMatchObject({ status: 404, type: 'urn:noskel:problem:dead-link' })
  })

  test('cannot be forged, and a weak password or no name does not use it up', async () => {
    const { server, owner } = kept(await founded())
    await owner.change(invite('mika@test.example'))
    const token = await tokenFor(owner, 'mika@test.example')
    const visitor = new Visitor(server)
    const accept = (more: object) =>
      visitor.enter('/invitations/accept', { token, name: 'Mika', password, ...more })
    const forged = `${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`
    expect((await accept({ token: forged })).status).toBe(404)
    expect((await accept({ password: 'short' })).body).toMatchObject({
      type: 'urn:noskel:problem:weak-password',
    })
    expect((await accept({ name: undefined })).status).toBe(400)
    expect((await accept({})).status).toBe(200)
    expect((await accept({})).status).toBe(404)
  })

  test('two at once accept one invitation: one comes in', async () => {
    const { server, owner } = kept(await founded())
    await owner.change(invite('mika@test.example'))
    const token = await tokenFor(owner, 'mika@test.example')
    const both = await Promise.all(
      [1, 2].map(() => new Visitor(server).enter('/invitations/accept', { token, name: 'M', password })),
    )
    expect(both.map(answer => answer.status).sort()).toEqual([200, 404])
  })
})

describe('mail', () => {
  test('goes out by SMTP where it is configured, with a part in plain text', async () => {
    const received: string[] = []
    const smtp = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onData: (stream, _session, done) => {
        let text = ''
        stream.on('data', (part: Buffer) => (text += part.toString()))
        stream.on('end', () => {
          received.push(text)
          done()
        })
      },
    })
    await new Promise<void>(resolve => smtp.listen(0, '127.0.0.1', resolve))
    const { port } = smtp.server.address() as { port: number }
    const { owner } = kept(await founded({ smtpUrl: `smtp://127.0.0.1:${port}` }))
    await owner.change(invite('mika@test.example'))
    await expect.poll(() => received.length, { timeout: 5000 }).toBe(1)
    expect(received[0]).toMatch(/To: mika@test\.example/)
    expect(received[0]).toMatch(/Content-Type: text\/plain/)
    await new Promise<void>(resolve => smtp.close(() => resolve()))
  })

  test('is kept in the built-in mailbox otherwise; its page is there in the demo only', async () => {
    const { server, owner } = kept(await founded({ isDemo: false }))
    await owner.change(invite('mika@test.example'))
    const box = join(server.dataDir, 'mailbox')
    const files = () => {
      try {
        return readdirSync(box).filter(each => each.endsWith('.eml'))
      } catch {
        return []
      }
    }
    await expect.poll(() => files().length, { timeout: 5000 }).toBe(1)
    expect(readFileSync(join(box, files()[0]!), 'utf8')).toMatch(/http:\/\/noskel\.test\/join#/)
    expect((await owner.get('/mailbox')).status).toBe(404)
  })
})

test('pages may load nothing from elsewhere and run nothing that is not theirs', async () => {
  const { owner } = kept(await founded())
  const policy = (await owner.get('/session')).headers.get('content-security-policy') ?? ''
  expect(policy).toContain("default-src 'self'")
  expect(policy).not.toMatch(/unsafe/)
})

test('says that it lives and is ready', async () => {
  const { server } = kept({ server: await serve() })
  const read = async (path: string) => (await (await fetch(`${server.address}${path}`)).json()) as unknown
  expect([await read('/healthz'), await read('/readyz')]).toEqual([{ status: 'alive' }, { status: 'ready' }])
})

test('an invitation is accepted without the password by who is signed in to its address, and by nobody else', async () => {
  const { server, owner } = kept(await founded())
  const mika = await welcome(server, owner, { name: 'Mika' })
  const gus = await welcome(server, owner, { name: 'Gus' })
  await mika.visitor.call('POST', '/workspaces', { name: 'Night Herons', timeZone: 'Europe/London' })
  const herons = '/at/night-herons'
  const edits = [invite('gus@test.example')]
  await mika.visitor.call('POST', `${herons}/changes`, { edits })
  const token = await tokenFor(mika.visitor, 'gus@test.example', 'Night Herons')
  // Somebody else who is signed in has to give the password of the one who is invited, a stranger too.
  for (const visitor of [mika.visitor, new Visitor(server)])
    expect((await visitor.call('POST', '/invitations/accept', { token })).body.type).toMatch(/wrong-sign-in$/)
  const accepted = await gus.visitor.call<SessionView>('POST', '/invitations/accept', { token })
  expect(accepted.body).toMatchObject({ account: { mail: 'gus@test.example' } })
  expect(accepted.body.workspaces.map(each => each.name)).toEqual(['Coast', 'Night Herons'])
})
