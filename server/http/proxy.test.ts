import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { request as plainRequest } from 'node:http'
import { createServer, request, type Server } from 'node:https'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readConfig } from '../config.ts'
import { password, serve, type TestServer } from '../tests/client.ts'

/** People come by a proxy that speaks TLS, under another name than the server's own. */

const folder = mkdtempSync(join(tmpdir(), 'noskel-tls-'))
const baseUrl = 'https://noskel.test'
let server: TestServer
let proxy: Server

beforeAll(async () => {
  const [key, cert] = [join(folder, 'key.pem'), join(folder, 'cert.pem')]
  const self = ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', '/CN=noskel.test']
  execFileSync('openssl', [...self, '-keyout', key, '-out', cert], { stdio: 'ignore' })
  server = await serve({ baseUrl, trustProxy: 'loopback' })
  const to = new URL(server.address)
  proxy = createServer({ key: readFileSync(key), cert: readFileSync(cert) }, (incoming, outgoing) => {
    const headers = { ...incoming.headers, host: to.host, 'x-forwarded-for': '203.0.113.7' }
    const { method, url } = incoming
    const onward = plainRequest({ host: to.hostname, port: to.port, path: url, method, headers }, answer => {
      outgoing.writeHead(answer.statusCode ?? 500, answer.headers)
      answer.pipe(outgoing)
    })
    incoming.pipe(onward)
  })
  await new Promise<void>(resolve => proxy.listen(0, '127.0.0.1', resolve))
})
afterAll(async () => {
  await new Promise(resolve => proxy.close(resolve))
  await server.stop()
  rmSync(folder, { recursive: true })
})

interface Came {
  readonly status: number
  readonly cookies: readonly string[]
  readonly body: string
}

/** As a browser at the address for people: it says where it comes from, and takes what it is given. */
const call = (method: string, path: string, body?: object, cookie = '') =>
  new Promise<Came>((resolve, reject) => {
    const sent = JSON.stringify(body ?? {})
    const headers = {
      cookie,
      origin: baseUrl,
      'sec-fetch-site': 'same-origin',
      ...(body === undefined ? {} : { 'content-type': 'application/json', 'content-length': sent.length }),
    }
    const { port } = proxy.address() as AddressInfo
    const outgoing = request(
      { port, host: '127.0.0.1', path: `/api${path}`, method, headers, rejectUnauthorized: false },
      answer => {
        let text = ''
        answer.on('data', (part: Buffer) => (text += part.toString()))
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            cookies: answer.headers['set-cookie'] ?? [],
            body: text,
          }),
        )
      },
    )
    outgoing.on('error', reject)
    outgoing.end(body === undefined ? undefined : sent)
  })

test('one signs in through a TLS proxy, with cookies for this host and no open line', async () => {
  const person = { name: 'Ona', mail: 'ona@test.example', password }
  const founded = await call('POST', '/set-up', { workspace: 'Coast', timeZone: 'Europe/London', ...person })
  expect(founded.status).toBe(201)
  const signedIn = await call('POST', '/session', { mail: person.mail, password })
  expect(signedIn.status).toBe(200)
  expect(signedIn.cookies.map(each => each.split('=')[0]).sort()).toEqual([
    '__Host-noskel',
    '__Host-noskel-devices',
  ])
  for (const cookie of signedIn.cookies)
    for (const word of ['Secure', 'HttpOnly', 'SameSite=Lax', 'Path=/'])
      expect(cookie.split('; ')).toContain(word)
  const kept = signedIn.cookies.map(each => each.split(';')[0]).join('; ')
  expect((await call('GET', '/at/coast', undefined, kept)).status).toBe(200)
})

test('a page of another site writes nothing, whatever the proxy calls this server', async () => {
  const { port } = proxy.address() as AddressInfo
  const body = JSON.stringify({ mail: 'ona@test.example', password })
  const status = await new Promise<number>(resolve => {
    const headers = { 'content-type': 'application/json', origin: 'https://elsewhere.test' }
    const path = '/api/session'
    request({ port, host: '127.0.0.1', path, method: 'POST', headers, rejectUnauthorized: false }, answer =>
      resolve(answer.statusCode ?? 0),
    ).end(body)
  })
  expect(status).toBe(403)
})

test.each([
  ['', undefined],
  ['2', 2],
  ['loopback, 10.0.0.0/8, 2001:db8::/32', 'loopback, 10.0.0.0/8, 2001:db8::/32'],
])('TRUST_PROXY %j is taken', (value, expected) => {
  expect(readConfig({ TRUST_PROXY: value }, false).trustProxy).toBe(expected)
})

test.each(['yes', '10.0.0', '-1', 'proxy.test'])('TRUST_PROXY %j is refused in one sentence', value => {
  expect(() => readConfig({ TRUST_PROXY: value }, false)).toThrow('TRUST_PROXY')
})
