import { monitorEventLoopDelay } from 'node:perf_hooks'
import { fixedAnswer } from './floor.ts'
import type { Noted, Served } from './served.ts'
import { builtWeb, quietServer } from './quiet-server.ts'

/** The process of a server that is measured from outside: `startServed` starts it, and it answers how it is. */

const [, , dataDir = '', pages] = process.argv
const running = await quietServer(dataDir, pages === undefined ? null : builtWeb)
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
