import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pino } from 'pino'
import type { MailView, SessionView } from '#contract/views/account.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import { startServer } from '../assemble.ts'
import type { Config } from '../config.ts'
import type { Parts } from '../parts.ts'
import { holdToContract } from './contract.ts'

/** A real server on a real SQLite file and a port of its own. */
export interface TestServer {
  readonly address: string
  readonly dataDir: string
  /** What the running one works with. */
  readonly parts: Parts
  /** What the server takes for now; a test moves it on. */
  readonly time: { now: number }
  /** Stops and starts again on the same folder, after something is done to it. */
  readonly restart: (meanwhile?: () => void) => Promise<void>
  /** Resolves once all that was written can be found. */
  readonly indexed: () => Promise<void>
  readonly stop: () => Promise<void>
}

export const start = Date.UTC(2026, 10, 23, 9)

/** `inRealTime`: beside other processes, whose clock is the machine's. */
export async function serve({
  inRealTime = false,
  ...more
}: Partial<Config> & {
  readonly triesPerMinute?: number
  readonly inRealTime?: boolean
} = {}): Promise<TestServer> {
  const dataDir = mkdtempSync(join(tmpdir(), 'noskel-api-'))
  const time = { now: start }
  const config: Config = {
    port: 0,
    host: '127.0.0.1',
    baseUrl: 'http://noskel.test',
    dataDir,
    smtpUrl: null,
    isDemo: true,
    ...more,
  }
  const open = () =>
    startServer({
      config,
      log: pino({ level: 'silent' }),
      clock: inRealTime ? Date.now : () => time.now++,
      webDir: null,
      triesPerMinute: more.triesPerMinute ?? 1000,
      requestsPerMinute: 100_000,
    })
  let running = await open()
  return {
    get address() {
      return running.address
    },
    dataDir,
    get parts() {
      return running.parts
    },
    time,
    indexed: () => running.indexed(),
    restart: async (meanwhile = () => {}) => {
      await running.stop()
      meanwhile()
      running = await open()
    },
    stop: async () => {
      await running.stop()
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
}

export interface Answer<T = unknown> {
  readonly status: number
  readonly body: T
  readonly headers: Headers
}

/** Somebody with a cookie jar of their own. */
export class Visitor {
  csrf = ''
  private readonly jar: Map<string, string>
  private readonly server: Pick<TestServer, 'address'>

  constructor(server: Pick<TestServer, 'address'>, jar = new Map<string, string>()) {
    this.server = server
    this.jar = jar
  }

  /** The same browser at another server. */
  at(server: Pick<TestServer, 'address'>): Visitor {
    const same = new Visitor(server, this.jar)
    same.csrf = this.csrf
    return same
  }

  /** As a browser sends it. */
  get cookie(): string {
    return [...this.jar].map(([name, value]) => `${name}=${value}`).join('; ')
  }

  /** The id of the sign-in: its cookie is that, signed. */
  get signIn(): string {
    return decodeURIComponent(this.jar.get('noskel') ?? '').split(/[:.]/)[1] ?? ''
  }

  private keep(response: Response): void {
    for (const cookie of response.headers.getSetCookie()) {
      const [name = '', value = ''] = (cookie.split(';')[0] ?? '').split('=')
      if (value === '') this.jar.delete(name)
      else this.jar.set(name, value)
    }
  }

  async call<T = Problem>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const response = await fetch(`${this.server.address}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(this.csrf === '' ? {} : { 'x-noskel-csrf': this.csrf }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    })
    this.keep(response)
    const text = await response.text()
    const answered = text === '' ? null : (JSON.parse(text) as T)
    holdToContract({ method, path, status: response.status, body: answered })
    return { status: response.status, body: answered as T, headers: response.headers }
  }

  get = <T>(path: string) => this.call<T>('GET', path)

  /** What is no JSON. */
  text = async (path: string) =>
    (await fetch(`${this.server.address}/api${path}`, { headers: { cookie: this.cookie } })).text()

  /** A call that opens a session, whose token is kept. */
  async enter(
    path: string,
    body: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<SessionView & Problem>> {
    const answer = await this.call<SessionView & Problem>('POST', path, body, headers)
    if (answer.status < 300) this.csrf = answer.body.csrf
    return answer
  }

  change = (...edits: object[]) => this.send('/changes', { edits })

  /** A change set with what goes with it: its reason, what its author saw. */
  send = (path: string, body: object) => this.call<AppliedView & Problem>('POST', `/at/coast${path}`, body)

  preview = async (...edits: object[]) =>
    (await this.call<PreviewView & Problem>('POST', '/at/coast/changes/preview', { edits })).body
}

export const password = 'a long enough secret'

/** A server with the workspace "Coast", and its Owner signed in. */
export async function founded(more: Parameters<typeof serve>[0] = {}) {
  const server = await serve(more)
  const owner = new Visitor(server)
  await owner.enter('/set-up', {
    workspace: 'Coast',
    timeZone: 'Europe/London',
    name: 'Ona',
    mail: 'ona@test.example',
    password,
  })
  // Tests let weeks pass; that sign-ins end by themselves is a test of its own.
  await owner.change({ kind: 'workspace.change', signInDays: 90, idleHours: 90 * 24 })
  return { server, owner }
}

/** The token in the newest invitation to an address, or in the newest of one workspace. */
export async function tokenFor(visitor: Visitor, mail: string, workspace = ''): Promise<string> {
  for (let tries = 0; tries < 100; tries += 1) {
    const { body } = await visitor.get<MailView[]>('/mailbox')
    const [token] = body.flatMap(each =>
      each.to === mail && each.text.includes(workspace) ? (/join#(\S+)/.exec(each.text)?.[1] ?? []) : [],
    )
    if (token !== undefined) return token
    await new Promise(resolve => setTimeout(resolve, 20))
  }
  throw new Error(`no mail came to ${mail}`)
}

export const invite = (mail: string, more: object = {}) => ({
  kind: 'person.invite',
  person: 'new:person',
  mail,
  name: '',
  as: 'member',
  role: null,
  scope: { over: 'workspace' },
  until: null,
  message: '',
  ...more,
})

/** Invites somebody and lets them come in. */
export async function welcome(
  server: TestServer,
  owner: Visitor,
  { name, ...more }: { name: string; as?: string; role?: string },
) {
  const mail = `${name.toLowerCase()}@test.example`
  const invited = await owner.change(invite(mail, more))
  const visitor = new Visitor(server)
  await visitor.enter('/invitations/accept', { token: await tokenFor(owner, mail), name, password })
  return { visitor, id: invited.body.made['new:person'] ?? '' }
}

export const open = { from: null, until: null }
