import { parseArgs } from 'node:util'
import { openParts } from './assemble.ts'
import { readConfig } from './config.ts'
import { createLog } from './log.ts'
import { indexAll, readFiles } from './services/search/indexer.ts'

/** Makes the index of words anew, of all that lies in the data folder, and says how far it is. */

const { values } = parseArgs({ options: { demo: { type: 'boolean', default: false } } })

try {
  await run()
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`)
  process.exitCode = 1
}

async function run(): Promise<void> {
  const config = readConfig(process.env, values.demo)
  const { parts, close } = await openParts({
    config,
    log: createLog(process.env.LOG_LEVEL ?? 'warn'),
    clock: () => Date.now(),
  })
  const tell = (what: string) =>
    process.stdout.write(process.stdout.isTTY ? `\r${what}\u001b[K` : `${what}\n`)
  const telling = setInterval(
    () => tell(`${Math.floor(parts.indexing.done * 100)} % of what is written`),
    1000,
  )
  try {
    await indexAll(parts)
    clearInterval(telling)
    const files = await readFiles(parts, done => tell(`all that is written, and ${done} files`))
    tell(`${config.dataDir} can be searched: all that is written, and ${files} files.\n`)
  } finally {
    clearInterval(telling)
    await close()
  }
}
