import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Logger } from 'pino'
import { monotonicFactory } from 'ulid'
import { createApp } from './app.ts'
import { endBoardThread } from './boards/asking.ts'
import { canWriteIn, closeToOthers, openDataDir, readSecret } from './data-dir.ts'
import { trackRequests } from './half-sent.ts'
import type { Config } from './config.ts'
import { createHasher, endHasher } from './files/hasher.ts'
import { createFileStore } from './files/store.ts'
import { makeReady } from './http/check.ts'
import { createSessions } from './http/session.ts'
import { closeStreams, createHub } from './live/hub.ts'
import { createPost } from './mail/transport.ts'
import { followerOfMails, startOutbox, stopOutbox } from './mail/outbox.ts'
import type { Parts } from './parts.ts'
import { problemOf } from './problem-error.ts'
import { createRenderer, endRenderer } from './renderer/renderer.ts'
import { followerOfEnds, followerOfEvents, topicsFor } from './services/notifications/live-events.ts'
import { followerOfChoices } from './services/notifications/choices.ts'
import { followerOfNewest } from './services/notifications/newest.ts'
import { passing, putAwayUnused, startClockwork, stopClockwork } from './services/changes/scheduled.ts'
import { followerOfFiles, startSweeper, stopSweeper } from './services/content/sweep.ts'
import { createHeldBoards, dropUnusedBoards, followerOfBoards } from './services/boards/held-boards.ts'
import { readDocumentNodes } from './services/search/document-nodes.ts'
import { createIndexer, followerOfSearch, stopIndexer, whenIndexed } from './services/search/indexer.ts'
import { createTurns } from './services/viewer/turns.ts'
import { dialect, openDatabase, openKept } from './store/database.ts'
import { lockDataDir } from './store/dialects/sqlite/lock.ts'
import { followerOfAccounts } from './store/accounts.ts'
import type { OnProgress } from './store/loading.ts'
import { follow } from './store/log.ts'
import { forgetMisses } from './store/misses.ts'
import { followerOfSessions, keepSeen, openSessions } from './store/sessions.ts'
import { agedIn, createStates, followerOfStates, readWorkspace } from './store/states.ts'
import { createTables } from './store/tables.ts'
import { type Watch, watch } from './store/watch.ts'
import { createWriter, whenIdle } from './store/writer.ts'
import { createThread, endThread, startThread } from './worker/asking.ts'
import { isLarge } from './worker/by-id.ts'

export interface Running {
  readonly parts: Parts
  readonly address: string
  /** Resolves once all that was written is in the index of words. */
  readonly indexed: () => Promise<void>
  /** Takes no new requests, finishes those that run, writes what waits, closes the files. */
  readonly stop: () => Promise<void>
}

export interface Environment {
  readonly config: Config
  readonly log: Logger
  readonly clock: () => number
  /** Told how far the reading of the workspaces is. */
  readonly onProgress?: OnProgress
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
  onProgress = () => {},
}: Omit<Environment, 'webDir' | 'triesPerMinute' | 'requestsPerMinute'>): Promise<Opened> {
  const { dataDir, readsOnly = false } = config
  openDataDir(dataDir)
  // Whoever only reads stands beside the one who writes, and leaves the tables to them.
  const lock = readsOnly ? undefined : await lockDataDir(dataDir)
  const open = readsOnly ? openKept : openDatabase
  const secret = readSecret(dataDir)
  const tables = createTables(await open(dataDir, 'noskel'))
  const writer = createWriter(tables, createStates({ tables, clock, onProgress }), clock)
  if (readsOnly) writer.refusal = () => problemOf('reads-only')
  const ulid = monotonicFactory()
  const hasher = createHasher()
  const parts: Parts = {
    config,
    writer,
    log,
    clock,
    newId: () => ulid(clock()).toLowerCase(),
    hub: createHub(topicsFor),
    thread: createThread(),
    turns: createTurns(),
    renderer: createRenderer(),
    files: createFileStore(dataDir, hasher),
    index: await dialect.search(dataDir, { readsOnly }),
    indexing: { done: 1 },
    documentNodes: new Map(),
    boards: createHeldBoards(),
    receiving: new Map(),
    zipping: new Map(),
    secret,
    sessions: await openSessions(dataDir, open),
    secured: new Set(),
    unproven: new Set(),
    choices: new Map(),
    newest: new Map(),
  }
  const watches = await followAll(parts)
  closeToOthers(dataDir)
  writer.pass = workspace => passing(parts, workspace)
  writer.fault = error => log.error({ err: error as Error }, 'starts and ends could not be written')
  const close = async () => {
    await whenIdle(writer)
    await Promise.all(watches.map(each => each.stop()))
    await endThread(parts.thread)
    await endBoardThread(parts.boards.thread)
    endRenderer(parts.renderer)
    await endHasher(hasher)
    await parts.index.close()
    await keepHouse(parts)
    await parts.sessions.database.close()
    await tables.database.close()
    await lock?.release()
  }
  return { parts, close }
}

/** Writes down who was here, and lets go of what is over. */
async function keepHouse(parts: Parts): Promise<void> {
  const { sessions, config, writer } = parts
  await keepSeen(sessions)
  await forgetMisses(sessions, Date.now())
  dropUnusedBoards(parts)
  if (config.readsOnly !== true) return
  // What clockwork does where one writes.
  putAwayUnused(parts)
  for (const workspace of agedIn(writer.states)) await readWorkspace(writer.states, workspace)
}

/** Has all that lies in memory follow what is written, here and by other processes. */
async function followAll(parts: Parts): Promise<Watch[]> {
  const { writer, sessions, hub, log, config } = parts
  const { tables } = writer
  for (const each of [writer.log, sessions.log])
    each.fault = error => log.error({ err: error as Error }, 'what was written could not be followed')
  await follow(
    writer.log,
    followerOfStates(writer.states),
    followerOfAccounts(tables, parts),
    followerOfChoices(tables, parts.choices),
    followerOfNewest(parts.newest),
    followerOfBoards(parts.boards),
    followerOfEvents(hub),
  )
  await follow(sessions.log, followerOfSessions(sessions), followerOfEnds(hub))
  const others = watch(sessions.database, sessions.log)
  return config.readsOnly === true ? [watch(tables.database, writer.log), others] : [others]
}

/** For so long a request that is being sent is waited for when the server stops. */
const halfSentFor = 2000

export async function startServer(environment: Environment): Promise<Running> {
  const { config } = environment
  const { parts, close } = await openParts(environment)
  const noting = setInterval(() => {
    keepHouse(parts).catch((error: unknown) =>
      parts.log.error({ err: error as Error }, 'who was here could not be written'),
    )
  }, 60_000).unref()
  const works = config.readsOnly === true ? undefined : await startWorks(parts)
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
  // A large file takes longer than any other request: how long each may take is said where it comes in (http/coming.ts).
  server.requestTimeout = 0
  const requests = trackRequests(server)
  makeReady()
  await listen(server, config)
  if (isAnyLarge(parts)) startThread(parts.thread)
  readDocumentNodes(parts).catch((error: unknown) =>
    parts.log.error({ err: error as Error }, 'where documents lie could not be read'),
  )
  const stop = async () => {
    ready = false
    const closed = new Promise(resolve => server.close(resolve))
    closeStreams(parts.hub)
    const idling = setInterval(() => server.closeIdleConnections(), 50)
    const giveUp = setTimeout(() => requests.dropHalfSent(), halfSentFor)
    await closed
    clearInterval(idling)
    clearTimeout(giveUp)
    await works?.stop()
    clearInterval(noting)
    await close()
  }
  const { port } = server.address() as AddressInfo
  return {
    parts,
    address: `http://${config.host}:${port}`,
    indexed: works?.indexed ?? (async () => {}),
    stop,
  }
}

/** What is done without being asked for: time passes, and mails go out. Of one process for a database. */
async function startWorks(parts: Parts) {
  const outbox = startOutbox(parts, createPost(parts.config))
  await follow(parts.writer.log, followerOfMails(outbox))
  const sweeper = startSweeper(parts)
  await follow(parts.writer.log, followerOfFiles(sweeper))
  const indexer = createIndexer(parts)
  await follow(parts.writer.log, followerOfSearch(indexer))
  const clockwork = startClockwork(parts)
  const stop = async () => {
    await stopClockwork(clockwork)
    await stopSweeper(sweeper)
    await stopIndexer(indexer)
    await stopOutbox(outbox)
  }
  return { stop, indexed: () => whenIndexed(indexer) }
}

/** Whether there is a workspace of which the thread will be asked. */
const isAnyLarge = ({ writer }: Parts): boolean =>
  [...writer.states.published.values()].some(({ snapshot }) => isLarge(snapshot.state))

const listen = (server: Server, { port, host }: Config) =>
  new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, resolve)
  })
