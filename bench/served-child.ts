import { monitorEventLoopDelay } from 'node:perf_hooks'
import { pino } from 'pino'
import { startServer } from '#server/assemble.ts'
import { fixedAnswer } from './floor.ts'
import { configFor } from './seeded.ts'
import type { Noted, Served } from './served.ts'

/** The process of a server that is measured from outside: `startServed` starts it, and it answers how it is. */

const running = await startServer({
  config: configFor(process.argv[2] ?? ''),
  log: pino({ level: 'silent' }),
  clock: Date.now,
  webDir: null,
  triesPerMinute: 1e6,
  requestsPerMinute: 1e9,
})
const fixed = await fixedAnswer(running.parts, JSON.stringify({ fixed: 'x'.repeat(2000) }))
const delay = monitorEventLoopDelay({ resolution: 2 })
delay.enable()
process.on('message', message => {
  if (message === 'stop') {
    fixed.server.close()
    void running.stop().then(() => process.exit(0))
  } else {
    process.send?.({ memory: process.memoryUsage.rss() / 2 ** 20, held: delay.max / 1e6 } satisfies Noted)
    delay.reset()
  }
})
process.send?.({ address: running.address, fixedAddress: fixed.address } satisfies Served)
