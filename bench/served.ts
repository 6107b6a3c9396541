import { fork } from 'node:child_process'
import { once } from 'node:events'
import { rmSync } from 'node:fs'
import { resolve } from 'node:path'
import { demoPassword } from '#demo/scenario/people.ts'
import { serverEnv, serverFlags } from '../scripts/prepare.mjs'
import { sessionCookieIn } from './session-cookie.ts'

/** How the server is started; who asks it is best started alike, or its own delays are counted as the server's. */
export const asServer = { env: serverEnv, execArgv: [...serverFlags] }

export interface Served {
  readonly address: string
  /** One fixed answer through the same stack. */
  readonly fixedAddress: string
}

/** What the server says of itself: MiB, and the longest that it was held since it said so last, in milliseconds. */
export interface Noted {
  readonly memory: number
  readonly held: number
}

/** A server in a process of its own, on a data folder that is gone once it has stopped. */
export async function startServed(dataDir: string, { hasPages = false } = {}) {
  const server = fork(
    resolve(import.meta.dirname, 'served-child.ts'),
    [dataDir, ...(hasPages ? ['with pages'] : [])],
    asServer,
  )
  const [served] = (await once(server, 'message')) as [Served]
  const noted = async (): Promise<Noted> => {
    server.send('how is it')
    const [noted] = (await once(server, 'message')) as [Noted]
    return noted
  }
  const stop = async () => {
    server.send('stop')
    await once(server, 'exit')
    rmSync(dataDir, { recursive: true, force: true })
  }
  return { ...served, noted, stop }
}

export interface Client {
  readonly address: string
  readonly cookie: string
  readonly csrf: string
}

/** Somebody of the large workspace, by the part of their address before its domain. */
export async function signedIn(address: string, name: string): Promise<Client> {
  const response = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ mail: `${name}@large.example`, password: demoPassword }),
  })
  if (response.status !== 200) throw new Error(`${name} cannot sign in: ${await response.text()}`)
  const { csrf } = (await response.json()) as { csrf: string }
  return { address, cookie: sessionCookieIn(response.headers), csrf }
}

/** Sends something to write in the large workspace; the answer is not looked at. */
export const sent = (
  client: Client,
  path: string,
  { method = 'POST', body }: { method?: string; body: object },
) =>
  fetch(`${client.address}/api/at/large${path}`, {
    method,
    headers: { 'content-type': 'application/json', cookie: client.cookie, 'x-noskel-csrf': client.csrf },
    body: JSON.stringify(body),
  })
