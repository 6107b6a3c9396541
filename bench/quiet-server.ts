import { resolve } from 'node:path'
import { pino } from 'pino'
import { type Running, startServer } from '#server/assemble.ts'
import { configFor } from './seeded.ts'

export const builtWeb = resolve(import.meta.dirname, '../.build/web')

/** The server on a data folder, with nothing written of what it does and no bounds on how often it is asked. */
export const quietServer = (dataDir: string, webDir: string | null = null): Promise<Running> =>
  startServer({
    config: configFor(dataDir),
    log: pino({ level: 'silent' }),
    clock: Date.now,
    webDir,
    triesPerMinute: 1e6,
    requestsPerMinute: 1e9,
  })
