import { resolve } from 'node:path'
import { startServer } from './assemble.ts'
import { readConfig } from './config.ts'
import { createLog } from './log.ts'

// What is written is nobody else's on this machine.
process.umask(0o077)
const log = createLog(process.env.LOG_LEVEL ?? 'warn')
const began = Date.now()
/** Nobody wants to read how fast it was. */
const shortTime = 500

const { config, running } = await start().catch((error: unknown) => {
  process.stderr.write(`Noskel could not start: ${(error as Error).message}\n`)
  process.exit(1)
})

process.stdout.write(`Noskel listens on ${running.address}; its address for people is ${config.baseUrl}\n`)
if (config.readsOnly === true)
  process.stdout.write('It only answers: what is changed is changed at the server that writes this folder.\n')
else if (config.smtpUrl === null)
  process.stdout.write(
    `No SMTP_URL is set: mails are kept in ${resolve(config.dataDir, 'mailbox')} and not sent.\n`,
  )

let stopping = false
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    // A second signal, or a request that never ends, does not hold the process up.
    if (stopping) process.exit(1)
    stopping = true
    setTimeout(() => process.exit(1), 10_000).unref()
    void running.stop().then(() => process.exit(0))
  })
}

async function start() {
  const config = readConfig(process.env, process.argv.includes('--demo'))
  const webDir = resolve(import.meta.dirname, '../.build/web')
  const limits = { triesPerMinute: 20, requestsPerMinute: 6000 }
  const running = await startServer({ config, log, clock: Date.now, onProgress: report, webDir, ...limits })
  return { config, running }
}

function report(line: string): void {
  const passed = Date.now() - began
  if (passed > shortTime) process.stdout.write(`${(passed / 1000).toFixed(1)} s  ${line}\n`)
}
