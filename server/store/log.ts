import { type Model, type ModelStatic, Op, type Transaction } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { State } from '#core/state/state.ts'
import type { News } from './news.ts'

/**
 * What was written, in order: one entry for all that was committed together. Whatever is kept beside a database, in this
 * process or another, is a follower of its log: it hears each entry once, in order, and can be stopped and catch up.
 */
export interface Log {
  readonly rows: ModelStatic<Model>
  readonly followings: Following[]
  catching: Promise<void> | null
  /** Told what went wrong with a follower: it catches up with the next entry. */
  fault: (error: unknown) => void
}

export interface LogEntry {
  /** From 1, without a gap. */
  readonly position: number
  /** Not to be guessed: it may be told. */
  readonly id: string
  readonly at: Instant
  readonly news: readonly News[]
}

/** An entry, with the states that it made where it was written in this process. */
export interface Heard extends LogEntry {
  readonly states: ReadonlyMap<WorkspaceId, State>
}

export interface Follower {
  /** Reads anew what it keeps: to begin with, and where it fell behind what the log still has. */
  readonly load: () => Promise<void> | void
  /** Waits for nothing where the states are given. */
  readonly hear: (entry: Heard) => Promise<void> | void
}

export interface Following {
  readonly follower: Follower
  /** Up to where it has heard. */
  position: number
  isStopped: boolean
}

interface Row {
  readonly position: number
  readonly id: string
  readonly at: Instant
  readonly news: string
}

/** So many entries are kept for those who fell behind. */
const kept = 20_000
/** They are looked through after so many. */
const cutEvery = 500
const together = 200

export const createCommitLog = (rows: ModelStatic<Model>): Log => ({
  rows,
  followings: [],
  catching: null,
  fault: () => {},
})

/** Has some follow from now on, in this order, each loaded first. */
export async function follow(log: Log, ...followers: readonly Follower[]): Promise<Following[]> {
  // Before anything is loaded: what is written meanwhile is heard again, and changes nothing then.
  const position = await lastIn(log.rows, null)
  const followings: Following[] = []
  for (const follower of followers) {
    await follower.load()
    followings.push({ follower, position, isStopped: false })
  }
  log.followings.push(...followings)
  return followings
}

export const stopFollowing = (following: Following): void => void (following.isStopped = true)

export async function followAgain(log: Log, following: Following): Promise<void> {
  following.isStopped = false
  await catchUp(log)
}

/** Puts what is to be heard behind the last entry, in the transaction of what it is about. */
export async function append(
  { rows }: Log,
  { id, at, news }: Pick<LogEntry, 'id' | 'at' | 'news'>,
  transaction: Transaction,
): Promise<LogEntry> {
  const entry = { position: (await lastIn(rows, transaction)) + 1, id, at, news }
  await rows.create({ ...entry, news: JSON.stringify(news) }, { transaction })
  if (entry.position % cutEvery === 0)
    await rows.destroy({ where: { position: { [Op.lte]: entry.position - kept } }, transaction })
  return entry
}

const lastIn = async (rows: ModelStatic<Model>, transaction: Transaction | null): Promise<number> =>
  Number((await rows.max('position', { transaction })) ?? 0)

/** Tells all who are up to date, at once; who is behind catches up. */
export function publishEntry(log: Log, heard: Heard): void {
  for (const following of log.followings) {
    if (following.isStopped || following.position !== heard.position - 1) continue
    try {
      // What waits for more than it was given says itself what went wrong with it.
      following.follower.hear(heard)?.catch(log.fault)
      following.position = heard.position
    } catch (error) {
      log.fault(error)
    }
  }
  if (log.followings.some(each => !each.isStopped && each.position < heard.position))
    catchUp(log).catch(log.fault)
}

/** Reads what was written elsewhere, or while somebody was stopped, and tells each what they have not heard. */
export function catchUp(log: Log): Promise<void> {
  log.catching ??= readOn(log).finally(() => {
    log.catching = null
  })
  return log.catching
}

async function readOn(log: Log): Promise<void> {
  for (;;) {
    const behind = log.followings.filter(each => !each.isStopped)
    const from = Math.min(...behind.map(each => each.position))
    if (behind.length === 0) return
    const rows = (await log.rows.findAll({
      where: { position: { [Op.gt]: from } },
      order: [['position', 'ASC']],
      limit: together,
      raw: true,
    })) as unknown as Row[]
    const [first] = rows
    if (first === undefined) return
    if (first.position > from + 1) await loadAnew(behind, first.position - 1)
    for (const row of rows) await tellBehind(behind, row)
  }
}

/** What they would have heard is not kept any more. */
async function loadAnew(behind: readonly Following[], position: number): Promise<void> {
  for (const each of behind)
    if (each.position < position) {
      await each.follower.load()
      each.position = position
    }
}

async function tellBehind(behind: readonly Following[], row: Row): Promise<void> {
  const heard: Heard = { ...row, news: JSON.parse(row.news) as News[], states: new Map() }
  for (const each of behind)
    if (!each.isStopped && each.position === row.position - 1) {
      await each.follower.hear(heard)
      each.position = row.position
    }
}
