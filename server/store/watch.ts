import type { Sequelize } from 'sequelize'
import { dialect } from './database.ts'
import { catchUp, type Log } from './log.ts'

export interface Watch {
  readonly stop: () => Promise<void>
}

/** Looks so often whether another process wrote, in milliseconds. */
const lookEvery = 40

/** Follows what other processes write to a database, soon after. */
export function watch(database: Sequelize, log: Log): Watch {
  const othersWrote = dialect.othersWrote(database)
  let looking: Promise<void> | null = null
  const look = async () => {
    if (await othersWrote()) await catchUp(log)
  }
  const timer = setInterval(() => {
    looking ??= look()
      .catch(log.fault)
      .finally(() => {
        looking = null
      })
  }, lookEvery)
  timer.unref()
  return {
    stop: async () => {
      clearInterval(timer)
      await looking
      await log.catching
    },
  }
}
