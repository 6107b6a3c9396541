import { brotliCompressSync, gzipSync } from 'node:zlib'
import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { get } from 'node:http'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { QueryTypes } from 'sequelize'
import { type Running, startServer } from './assemble.ts'
import { createLog } from './log.ts'
import { letter, withoutTokens } from './mail/template.ts'
import type { Parts } from './parts.ts'
import { invite, password, Visitor } from './tests/client.ts'

/** What whoever runs a server relies on: who reads its files, that it is alone on them, how it stops, what it logs. */

let dataDir: string
let lines: string[]
const running: Running[] = []

beforeEach(() => {
  dataDir = join(mkdtempSync(join(tmpdir(), 'noskel-running-')), 'data')
  lines = []
})
afterEach(async () => {
  for (const each of running.splice(0)) await each.stop()
  rmSync(join(dataDir, '..'), { recursive: true, force: true })
})

async function start(webDir: string | null = null): Promise<Running> {
  const log = createLog('warn', { write: line => void lines.push(line) })
  const config = {
    port: 0,
    host: '127.0.0.1',
    baseUrl: 'http://noskel.test',
    dataDir,
    smtpUrl: null,
    isDemo: false,
  }
  const limits = { triesPerMinute: 1000, requestsPerMinute: 10_000 }
  const started = await startServer({ config, log, clock: Date.now, webDir, ...limits })
  running.push(started)
  return started
}

async function founded() {
  const server = await start()
  const owner = new Visitor(server)
  const person = { name: 'Ona', mail: 'ona@test.example', password }
  await owner.enter('/set-up', { workspace: 'Coast', timeZone: 'Europe/London', ...person })
  return { server, owner }
}

const modesIn = (path: string): [string, string][] =>
  statSync(path).isDirectory()
    ? [
        [path, (statSync(path).mode & 0o777).toString(8)],
        ...readdirSync(path).flatMap(name => modesIn(join(path, name))),
      ]
    : [[path, (statSync(path).mode & 0o777).toString(8)]]

/** As browsers never send them: an address to the letter, without what `fetch` would put right. */
const statusOf = (address: string, path: string): Promise<number | undefined> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(address)
    get({ hostname, port, path }, response => {
      resolve(response.statusCode)
      response.resume()
    }).on('error', reject)
  })

test('files leave as they were packed, for whoever takes them so, and are kept for ever', async () => {
  const webDir = join(dataDir, '..', 'packed')
  mkdirSync(join(webDir, 'assets'), { recursive: true })
  const text = 'const answer = 42\n'.repeat(100)
  writeFileSync(join(webDir, 'index.html'), '<title>Noskel</title>')
  writeFileSync(join(webDir, 'assets', 'a.js'), text)
  writeFileSync(join(webDir, 'assets', 'a.js.br'), brotliCompressSync(text))
  writeFileSync(join(webDir, 'assets', 'a.js.gz'), gzipSync(text))
  const { address } = await start(webDir)
  for (const [accepted, packed] of [
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
    ['identity', null],
  ] as const) {
    const response = await fetch(`${address}/assets/a.js`, { headers: { 'accept-encoding': accepted } })
    expect(response.headers.get('content-encoding')).toBe(packed)
    expect(response.headers.get('content-type')).toMatch(/javascript/)
    expect(response.headers.get('vary')).toMatch(/accept-encoding/i)
    expect(response.headers.get('cache-control')).toMatch(/immutable/)
    expect(await response.text()).toBe(text)
  }
})

test('addresses of no file and of no sign are refused, or lead to the app, and break nothing', async () => {
  const webDir = join(dataDir, '..', 'web')
  mkdirSync(join(webDir, 'assets'), { recursive: true })
  writeFileSync(join(webDir, 'index.html'), '<title>Noskel</title>')
  writeFileSync(join(webDir, 'assets', 'a.js'), '')
  const { address } = await start(webDir)
  const statuses = Object.fromEntries(
    await Promise.all(
      [
        '/assets/a.js',
        '/assets/%',
        '/assets/%E0%A4%A',
        '/assets/%00',
        '/assets/b.js',
        '/%',
        '/api/%',
        '/at/x',
      ].map(async path => [path, await statusOf(address, path)] as const),
    ),
  )
  expect(statuses).toEqual({
    '/assets/a.js': 200,
    '/assets/%': 400,
    '/assets/%E0%A4%A': 400,
    '/assets/%00': 400,
    '/assets/b.js': 404,
    '/%': 200,
    '/api/%': 404,
    '/at/x': 200,
  })
  expect(lines).toEqual([])
})

describe('the data folder', () => {
  test('is read by nobody else, also where it was made by an older one', async () => {
    mkdirSync(dataDir, { mode: 0o755 })
    mkdirSync(join(dataDir, 'mailbox'), { mode: 0o755 })
    writeFileSync(join(dataDir, 'mailbox', 'old.eml'), 'To: somebody', { mode: 0o644 })
    await founded()
    const wrong = modesIn(dataDir).filter(
      ([path, mode]) => mode !== (statSync(path).isDirectory() ? '700' : '600'),
    )
    expect(wrong).toEqual([])
  })

  test('has one server at a time, and is free once that has stopped', async () => {
    const { server } = await founded()
    await expect(start()).rejects.toThrow(/another server runs on/)
    await server.stop()
    running.splice(0)
    expect((await start()).address).toContain('http')
  })

  test.each(['', 'half a secr', 'x'.repeat(60)])(
    'with the secret %j is refused in one sentence',
    async secret => {
      mkdirSync(dataDir)
      writeFileSync(join(dataDir, 'secret'), secret)
      await expect(start()).rejects.toThrow(/is empty or broken/)
    },
  )
})

test('it is not ready while nothing can be written', async () => {
  const { address } = await start()
  const ready = async () => (await fetch(`${address}/readyz`)).status
  expect(await ready()).toBe(200)
  // Where the probe should be written there is something else: as on a disk that takes no more.
  mkdirSync(join(dataDir, 'probe'))
  expect(await ready()).toBe(503)
  rmSync(join(dataDir, 'probe'), { recursive: true })
  expect(await ready()).toBe(200)
})

test('stopping waits two seconds at most for a request of which half has come', async () => {
  const server = await start()
  const { hostname, port } = new URL(server.address)
  const socket = connect(Number(port), hostname)
  await new Promise(resolve => socket.on('connect', resolve))
  socket.on('error', () => {})
  socket.write(
    'POST /api/session HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 500\r\n\r\n{"ma',
  )
  await new Promise(resolve => setTimeout(resolve, 50))
  const since = Date.now()
  running.splice(0)
  await server.stop()
  expect(Date.now() - since).toBeLessThan(4000)
})

describe('a mail', () => {
  test('keeps no link in the database once it was sent', async () => {
    const { server, owner } = await founded()
    await owner.change(invite('mika@test.example'))
    const sent = async () =>
      server.parts.writer.tables.database.query<{ text: string; html: string }>(
        'SELECT text, html FROM mails WHERE "sentAt" IS NOT NULL',
        { type: QueryTypes.SELECT },
      )
    let mails = await sent()
    for (let tries = 0; mails.length === 0 && tries < 100; tries += 1) {
      await new Promise(resolve => setTimeout(resolve, 30))
      mails = await sent()
    }
    expect(mails).toHaveLength(1)
    expect(JSON.stringify(mails)).toContain('/join#…')
    expect(JSON.stringify(mails)).not.toMatch(/#[\w-]{5}/)
  })

  const written = (subject: string, ...texts: string[]) =>
    letter({ newId: () => 'id' } as unknown as Parts, {
      workspace: '' as never,
      to: 'a@test.example',
      subject,
      lines: [...texts, { address: 'http://noskel.test/join#id.signature' }],
      at: 0,
    })

  test.each(['https://evil.example/join#x', 'evil.example', 'www.evil.example/a', 'mailto:a@evil.example'])(
    'leads nowhere by what people wrote: %s',
    text => {
      const { text: plain, html } = written('S', text, `${text}\nnext`)
      expect([plain.includes(text), html.includes(`href="${text}`)]).toEqual([false, false])
      expect(html.match(/<a href="([^"]+)"/g)).toEqual(['<a href="http://noskel.test/join#id.signature"'])
    },
  )

  test('has one line as its subject, and its markup is its own', () => {
    const mail = written('Ona\r\nBcc: all@test.example', '<b>"bold"</b> & \'more\'')
    expect(mail.subject).not.toMatch(/[\r\n]/)
    expect(mail.html).not.toContain('<b>')
    expect(withoutTokens(mail.html)).not.toContain('signature')
  })
})

describe('the log', () => {
  test('tells what bears on security by stable names, and no secret', async () => {
    const { server, owner } = await founded()
    await new Visitor(server).call('POST', '/session', {
      mail: 'ona@test.example',
      password: 'wrong guess at it',
    })
    await new Visitor(server).enter('/session', { mail: 'ona@test.example', password })
    await owner.call('PUT', '/account/password', { password, next: 'salt marsh at low tide' })
    await new Visitor(server).call('POST', '/invitations/read', { token: 'made-up.token-of-no-one' })
    for (let tries = 0; tries < 7; tries += 1)
      await new Visitor(server).call('POST', '/session', {
        mail: 'x@test.example',
        password: `guess ${tries}`,
      })
    await owner.call('DELETE', '/session')
    const events = lines.map(line => (JSON.parse(line) as { security?: string }).security)
    for (const event of [
      'sign-in refused',
      'signed in',
      'password changed',
      'link refused',
      'sign-in waits',
      'signed out',
    ])
      expect(events).toContain(event)
    expect(lines.join('')).not.toMatch(/wrong guess|salt marsh|long enough|ona@|made-up/)
  })

  test('tells of a statement that failed without its values', async () => {
    const { server } = await founded()
    const row = { id: 'a', mail: 'ona@test.example', name: 'Secret name', passwordHash: 'hash', madeAt: 1 }
    const error: unknown = await server.parts.writer.tables.accounts
      .create(row)
      .catch((each: unknown) => each)
    server.parts.log.error({ err: error as Error }, 'failed')
    const output = lines.join('')
    expect(output).toContain('"failed"')
    expect(output).not.toMatch(/Secret name|ona@test|hash/)
  })
})
