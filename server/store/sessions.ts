import { randomUUID } from 'node:crypto'
import { DataTypes, type Model, type ModelStatic, Op, type Sequelize, type Transaction } from 'sequelize'
import type { AccountId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { beginWriting } from './database.ts'
import { append, createCommitLog, type Follower, type Log, publishEntry } from './log.ts'
import type { News } from './news.ts'
import { logModel } from './tables.ts'

/**
 * Sign-ins, wrong tries, and who was here last when: what changes with every visit lies in a database of its own, away
 * from the one writer of the workspaces. When somebody was here is held in memory and written now and then: a crash
 * loses minutes of it, nothing else.
 */
export interface Sessions {
  readonly database: Sequelize
  readonly signIns: ModelStatic<Model>
  readonly seen: ModelStatic<Model>
  readonly misses: ModelStatic<Model>
  readonly log: Log
  /** What sign-ins hold that have not ended, by their ids: every request reads one, so those in use lie in memory. */
  readonly held: Map<string, HeldSignIn>
  /** By `workspace person` and by the id of a sign-in. */
  readonly lastSeen: Map<string, Instant>
  readonly unwritten: Map<string, SeenRow>
  /** How often sign-ins changed: what was read before is not held after. */
  changes: number
  /** The write that runs: one after another. */
  writing: Promise<unknown>
}

export interface SignInRow {
  readonly sid: string
  readonly until: Instant
  /** JSON. */
  readonly data: string
  readonly account: AccountId | null
  /** What the browser calls itself. */
  readonly agent: string | null
  readonly madeAt: Instant | null
}

export type HeldSignIn = Pick<SignInRow, 'data' | 'until'>

interface SeenRow {
  /** A workspace; empty for a sign-in. */
  readonly workspace: WorkspaceId | ''
  readonly who: string
  readonly at: Instant
}

const text = DataTypes.TEXT
const number = DataTypes.DOUBLE

type Open = (dataDir: string, name: 'sessions') => Promise<Sequelize>

/** `open` knows whether the tables are this process's to keep. */
export async function openSessions(dataDir: string, open: Open): Promise<Sessions> {
  const database = await open(dataDir, 'sessions')
  const define = (name: string, fields: Parameters<Sequelize['define']>[1]) =>
    database.define(name, fields, { tableName: name, timestamps: false })
  return {
    database,
    signIns: define('signIns', {
      sid: { type: text, primaryKey: true },
      until: number,
      data: text,
      account: text,
      agent: text,
      madeAt: number,
    }),
    seen: define('seen', {
      workspace: { type: text, primaryKey: true },
      who: { type: text, primaryKey: true },
      at: number,
    }),
    misses: define('misses', { pair: { type: text, primaryKey: true }, count: number, at: number }),
    log: createCommitLog(logModel(database)),
    held: new Map(),
    lastSeen: new Map(),
    unwritten: new Map(),
    changes: 0,
    writing: Promise.resolve(),
  }
}

/** Keeps what lies in memory as it is in the database. */
export const followerOfSessions = (sessions: Sessions): Follower => ({
  load: async () => {
    sessions.held.clear()
    sessions.changes += 1
    await readSeen(sessions, 0)
  },
  hear: async ({ news }) => {
    for (const each of news) {
      if (each.of === 'sign-ins') {
        sessions.changes += 1
        for (const sid of each.sids) sessions.held.delete(sid)
      } else if (each.of === 'seen') await readSeen(sessions, each.since)
    }
  },
})

async function readSeen({ seen, lastSeen }: Sessions, since: Instant): Promise<void> {
  const where = { at: { [Op.gte]: since } }
  const rows = (await seen.findAll({ where, raw: true })) as unknown as SeenRow[]
  for (const { workspace, who, at } of rows) {
    const key = `${workspace} ${who}`
    lastSeen.set(key, Math.max(at, lastSeen.get(key) ?? at))
  }
}

/**
 * One write after another, each with what is to be heard of it. None goes past this: a statement that waits for another
 * one's transaction holds one of the few threads that this would need to end.
 */
export function writeSessions(
  sessions: Sessions,
  work: (transaction: Transaction) => Promise<readonly News[]>,
): Promise<void> {
  const { database, log } = sessions
  const next = sessions.writing.then(async () => {
    const entry = await beginWriting(database, async transaction => {
      const news = await work(transaction)
      if (news.length === 0) return undefined
      return append(log, { id: randomUUID(), at: Date.now(), news }, transaction)
    })
    if (entry !== undefined) publishEntry(log, { ...entry, states: new Map() })
  })
  sessions.writing = next.catch(() => undefined)
  return next
}

/** What a sign-in holds; nothing where it has ended. */
export async function signInHeld(sessions: Sessions, sid: string): Promise<HeldSignIn | undefined> {
  const { changes } = sessions
  const row = (await sessions.signIns.findOne({
    attributes: ['data', 'until'],
    where: { sid },
    raw: true,
  })) as unknown as HeldSignIn | null
  if (row === null) return undefined
  if (changes === sessions.changes) sessions.held.set(sid, row)
  return row
}

export const keepSignIn = (sessions: Sessions, row: SignInRow): Promise<void> =>
  writeSessions(sessions, async transaction => {
    await sessions.signIns.upsert({ ...row }, { transaction })
    return [{ of: 'sign-ins', sids: [row.sid] }]
  })

/** The sign-ins of an account that have not ended, newest first. */
export async function signInsOf({ signIns }: Sessions, account: AccountId): Promise<SignInRow[]> {
  return (await signIns.findAll({
    where: { account, until: { [Op.gt]: Date.now() } },
    order: [['madeAt', 'DESC']],
    raw: true,
  })) as unknown as SignInRow[]
}

export const endSignIns = (sessions: Sessions, sids: readonly string[]): Promise<void> =>
  sids.length === 0
    ? Promise.resolve()
    : writeSessions(sessions, async transaction => {
        await sessions.signIns.destroy({ where: { sid: [...sids] }, transaction })
        return [{ of: 'sign-ins', sids }]
      })

/** How exact it is: noting every request would write as often. */
const grain = 60_000

export function noteLastSeen({ lastSeen, unwritten }: Sessions, row: SeenRow): void {
  const key = `${row.workspace} ${row.who}`
  if (row.at - (lastSeen.get(key) ?? 0) < grain) return
  lastSeen.set(key, row.at)
  unwritten.set(key, row)
}

export const lastSeenOf = (
  { lastSeen }: Sessions,
  workspace: WorkspaceId | '',
  who: PersonId | string,
): Instant | null => lastSeen.get(`${workspace} ${who}`) ?? null

/** Writes down who was here, and lets go of sign-ins that are over. */
export async function keepSeen(sessions: Sessions): Promise<void> {
  const { seen, signIns, unwritten, held } = sessions
  const now = Date.now()
  const rows = [...unwritten.values()]
  unwritten.clear()
  for (const [sid, { until }] of held) if (until <= now) held.delete(sid)
  await writeSessions(sessions, async transaction => {
    await signIns.destroy({ where: { until: { [Op.lte]: now } }, transaction })
    if (rows.length === 0) return []
    await seen.bulkCreate(rows as never, { updateOnDuplicate: ['at'], transaction })
    return [{ of: 'seen', since: Math.min(...rows.map(row => row.at)) }]
  })
}
