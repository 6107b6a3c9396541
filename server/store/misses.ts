import { Op } from 'sequelize'
import type { Instant } from '#core/base/instant.ts'
import { type Sessions, writeSessions } from './sessions.ts'

/** Wrong tries in a row at something. */
export interface Missed {
  readonly count: number
  readonly at: Instant
}

/**
 * Changes what is kept of misses by what it was: tries that are sent side by side, to whatever process, count one after
 * another. Rejects with what `change` throws, and leaves it as it was.
 */
export const changeMisses = (
  sessions: Sessions,
  pair: string,
  change: (before: Missed | undefined) => Missed,
): Promise<void> =>
  writeSessions(sessions, async transaction => {
    const found = await sessions.misses.findOne({ where: { pair }, raw: true, transaction })
    const { count, at } = change((found as unknown as Missed | null) ?? undefined)
    await sessions.misses.upsert({ pair, count, at }, { transaction })
    return []
  })

export const endMisses = (sessions: Sessions, pair: string): Promise<void> =>
  writeSessions(sessions, async transaction => {
    await sessions.misses.destroy({ where: { pair }, transaction })
    return []
  })

const missesLast = 24 * 3_600_000
/** Past this many remembered tries the oldest are forgotten. */
const remembered = 100_000

/** Lets go of those that no longer make anybody wait. */
export const forgetMisses = (sessions: Sessions, now: Instant): Promise<void> =>
  writeSessions(sessions, async transaction => {
    const { misses } = sessions
    await misses.destroy({ where: { at: { [Op.lt]: now - missesLast } }, transaction })
    const [past] = (await misses.findAll({
      order: [['at', 'DESC']],
      offset: remembered,
      limit: 1,
      raw: true,
      transaction,
    })) as unknown as Missed[]
    if (past !== undefined) await misses.destroy({ where: { at: { [Op.lte]: past.at } }, transaction })
    return []
  })
