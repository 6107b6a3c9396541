import { DataTypes, type Model, type ModelStatic, Op, type Sequelize } from 'sequelize'
import type { AccountId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { openSessionFile } from './database.ts'

/**
 * Sign-ins, and who was here last when: what changes with every visit lies in a file of its own, away from
 * the workspace's one writer. When somebody was here is held in memory and written now and then: a crash
 * loses minutes of it, nothing else.
 */
export interface Visits {
  readonly file: Sequelize
  readonly signIns: ModelStatic<Model>
  readonly seen: ModelStatic<Model>
  /** What each sign-in that has not ended holds, by its id: every request reads one, so all lie in memory. */
  readonly held: Map<string, Held>
  /** By `workspace person` and by the id of a sign-in. */
  readonly lastSeen: Map<string, Instant>
  readonly unwritten: Map<string, SeenRow>
}

export interface SignInRow {
  readonly sid: string
  readonly expires: Date
  readonly account: AccountId | null
  /** What the browser calls itself. */
  readonly agent: string | null
  readonly madeAt: Instant | null
}

interface Held {
  /** JSON. */
  readonly data: string
  readonly until: Instant
}

interface KeptRow {
  readonly sid: string
  readonly data: string
  readonly expires: string
}

interface SeenRow {
  /** A workspace; empty for a sign-in. */
  readonly workspace: WorkspaceId | ''
  readonly who: string
  readonly at: Instant
}

const text = DataTypes.TEXT
const number = DataTypes.DOUBLE

export async function openVisits(dataDir: string): Promise<Visits> {
  const file = await openSessionFile(dataDir)
  const options = (tableName: string) => ({ tableName, timestamps: false })
  const signIns = file.define(
    'signIns',
    {
      sid: { type: text, primaryKey: true },
      expires: DataTypes.DATE,
      data: text,
      account: text,
      agent: text,
      madeAt: number,
    },
    { ...options('signIns'), indexes: [{ fields: ['account'] }] },
  )
  const seen = file.define(
    'seen',
    { workspace: { type: text, primaryKey: true }, who: { type: text, primaryKey: true }, at: number },
    options('seen'),
  )
  await file.sync()
  const rows = (await seen.findAll({ raw: true })) as unknown as SeenRow[]
  const attributes = ['sid', 'data', 'expires']
  const kept = (await signIns.findAll({ attributes, raw: true })) as unknown as KeptRow[]
  const held = new Map(kept.map(({ sid, data, expires }) => [sid, { data, until: Date.parse(expires) }]))
  const lastSeen = new Map(rows.map(row => [`${row.workspace} ${row.who}`, row.at]))
  return { file, signIns, seen, held, lastSeen, unwritten: new Map() }
}

/** How exact it is: noting every request would write as often. */
const grain = 60_000

export function noteLastSeen({ lastSeen, unwritten }: Visits, row: SeenRow): void {
  const key = `${row.workspace} ${row.who}`
  if (row.at - (lastSeen.get(key) ?? 0) < grain) return
  lastSeen.set(key, row.at)
  unwritten.set(key, row)
}

export const lastSeenOf = (
  { lastSeen }: Visits,
  workspace: WorkspaceId | '',
  who: PersonId | string,
): Instant | null => lastSeen.get(`${workspace} ${who}`) ?? null

export async function writeLastSeen({ seen, unwritten }: Visits): Promise<void> {
  const rows = [...unwritten.values()]
  unwritten.clear()
  if (rows.length > 0) await seen.bulkCreate(rows as never, { updateOnDuplicate: ['at'] })
}

/** Lets go of the sign-ins that have ended by themselves. */
export function forgetEnded({ held }: Visits, now: Instant): void {
  for (const [sid, { until }] of held) if (until <= now) held.delete(sid)
}

/** The sign-ins of an account that have not ended, newest first. */
export async function signInsOf({ signIns }: Visits, account: AccountId): Promise<SignInRow[]> {
  return (await signIns.findAll({
    attributes: ['sid', 'expires', 'account', 'agent', 'madeAt'],
    where: { account, expires: { [Op.gt]: new Date() } },
    order: [['madeAt', 'DESC']],
    raw: true,
  })) as unknown as SignInRow[]
}

export async function endSignIns({ signIns, held }: Visits, sids: readonly string[]): Promise<void> {
  for (const sid of sids) held.delete(sid)
  if (sids.length > 0) await signIns.destroy({ where: { sid: [...sids] } })
}
