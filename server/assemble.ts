import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Logger } from 'pino'
import { monotonicFactory } from 'ulid'
import { createApp } from './app.ts'
import { canWriteIn, closeToOthers, lockDataDir, openDataDir, readSecret } from './data-dir.ts'
import { trackRequests } from './half-sent.ts'
import type { Config } from './config.ts'
import { makeReady } from './http/check.ts'
import { createSessions } from './http/session.ts'
import { closeStreams, createHub } from './live/hub.ts'
import { createPost } from './mail/transport.ts'
import { startOutbox, stopOutbox } from './mail/outbox.ts'
import type { Parts } from './parts.ts'
import { createScaler, endScaler } from './pictures/scaler.ts'
import { isLarge } from './services/visible.ts'
import { isInAudience } from './services/audience.ts'
import { loadChoices } from './services/notifications/choices.ts'
import { createNewest, forgetOutdated } from './services/notifications/newest.ts'
import { passing, startClockwork, stopClockwork } from './services/scheduled.ts'
import { createTurns } from './services/turns.ts'
import { openDatabase } from './store/database.ts'
import { accountSets } from './store/accounts.ts'
import { forgetEnded, openVisits, writeLastSeen } from './store/visits.ts'
import type { Said } from './store/loading.ts'
import { loadStates } from './store/states.ts'
import { createTables } from './store/tables.ts'
import { createWriter, whenIdle } from './store/writer.ts'
import { createThread, endThread, startThread } from './worker/asking.ts'

export interface Running {
  readonly parts: Parts
  readonly address: string
  /** Takes no new requests, finishes those that run, writes what waits, closes the files. */
  readonly stop: () => Promise<void>
}

export interface Environment {
  readonly config: Config
  readonly log: Logger
  readonly clock: () => number
  /** Told how far the reading of the workspaces is. */
  readonly said?: Said
  readonly webDir: string | null
  readonly triesPerMinute: number
  readonly requestsPerMinute: number
}

export interface Opened {
  readonly parts: Parts
  readonly close: () => Promise<void>
}

/** Opens the data folder: enough to read and write it without listening. */
export async function openParts({
  config,
  log,
  clock,
  said,
}: Omit<Environment, 'webDir' | 'triesPerMinute' | 'requestsPerMinute'>): Promise<Opened> {
  openDataDir(config.dataDir)
  const lock = await lockDataDir(config.dataDir)
  const secret = readSecret(config.dataDir)
  const database = await openDatabase(config.dataDir)
  const tables = createTables(database)
  const writer = createWriter(tables, await loadStates(tables, clock(), said), clock)
  const ulid = monotonicFactory()
  const newId = () => ulid(clock()).toLowerCase()
  const hub = createHub(isInAudience)
  const visits = await openVisits(config.dataDir)
  const parts: Parts = {
    config,
    writer,
    log,
    clock,
    newId,
    hub,
    thread: createThread(),
    turns: createTurns(),
    scaler: createScaler(),
    secret,
    visits,
    ...(await accountSets(tables)),
    choices: await loadChoices(tables),
    newest: createNewest(),
    misses: new Map(),
  }
  closeToOthers(config.dataDir)
  writer.pass = workspace => passing(parts, workspace)
  writer.afterCommit.push(() => forgetOutdated(parts))
  writer.fault = error => log.error({ err: error as Error }, 'starts and ends could not be written')
  const close = async () => {
    await whenIdle(writer)
    await endThread(parts.thread)
    endScaler(parts.scaler)
    await writeLastSeen(visits)
    await visits.file.close()
    await database.close()
    await lock.release()
  }
  return { parts, close }
}

/** For so long a request that is being sent is waited for when the server stops. */
const halfSentFor = 2000

export async function startServer(environment: Environment): Promise<Running> {
  const { config } = environment
  const { parts, close } = await openParts(environment)
  const noting = setInterval(() => {
    void writeLastSeen(parts.visits)
    forgetEnded(parts.visits, Date.now())
  }, 60_000).unref()
  const outbox = startOutbox(parts, createPost(config))
  const clockwork = startClockwork(parts)
  let ready = true
  const app = createApp(parts, {
    sessions: createSessions(parts),
    webDir: environment.webDir,
    triesPerMinute: environment.triesPerMinute,
    requestsPerMinute: environment.requestsPerMinute,
    isReady: async () => ready && !parts.writer.isFailing && canWriteIn(config.dataDir),
  })
  const server = createServer(app)
  // Longer than proxies and browsers keep a connection idle: they end it, so no request meets a shut one.
  server.keepAliveTimeout = 75_000
  const requests = trackRequests(server)
  makeReady()
  await listen(server, config)
  if (isAnyLarge(parts)) startThread(parts.thread)
  const stop = async () => {
    ready = false
    const closed = new Promise(resolve => server.close(resolve))
    closeStreams(parts.hub)
    const idling = setInterval(() => server.closeIdleConnections(), 50)
    const giveUp = setTimeout(() => requests.dropHalfSent(), halfSentFor)
    await closed
    clearInterval(idling)
    clearTimeout(giveUp)
    stopClockwork(clockwork)
    await stopOutbox(outbox)
    clearInterval(noting)
    await close()
  }
  const { port } = server.address() as AddressInfo
  return { parts, address: `http://${config.host}:${port}`, stop }
}

/** Whether there is a workspace of which the thread will be asked. */
const isAnyLarge = ({ writer }: Parts): boolean =>
  [...writer.states.published.values()].some(({ snapshot }) => isLarge(snapshot.state.index))

const listen = (server: Server, { port, host }: Config) =>
  new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, resolve)
  })
