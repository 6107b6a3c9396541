import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { parseArgs } from 'node:util'
import { sizes } from '#demo/large.ts'
import { boardReadings } from './boards.ts'
import { byteReadings } from './bytes.ts'
import { coreReadings } from './core.ts'
import { agedReadings } from './aged.ts'
import { screenReadings } from './first-screen.ts'
import { followingReadings } from './following.ts'
import { manyReadings } from './many.ts'
import { asData, type Reading, tableOf } from './measure.ts'
import { indexingReadings } from './indexing.ts'
import { peopleReadings } from './people.ts'
import { rolesReadings } from './roles.ts'
import { serverReadings } from './server.ts'
import { wordReadings } from './words.ts'

/**
 * Measures on workspaces of each size, or of one, and prints the tables; with a file, writes the same as data:
 * npm run bench -- --size M --json figures.json
 */
const { values } = parseArgs({ options: { size: { type: 'string' }, json: { type: 'string' } } })
const names = Object.keys(sizes) as (keyof typeof sizes)[]
const chosen = values.size === undefined ? names : names.filter(name => name === values.size)
if (chosen.length === 0) throw new Error(`--size is one of ${names.join(', ')}`)

const readings: Reading[] = []
for (const name of chosen) {
  process.stderr.write(`Measuring on ${name} …\n`)
  const core = coreReadings(name)
  const floor = core[0]?.floor
  if (floor === undefined) throw new Error('what the core takes has a floor')
  readings.push(...core, ...(await serverReadings(name, floor)))
}
const tables = [readings]
if (values.size === undefined) {
  execFileSync('npm', ['run', 'build', '--', '--logLevel', 'warn'])
  for (const measure of [
    agedReadings,
    manyReadings,
    followingReadings,
    peopleReadings,
    rolesReadings,
    byteReadings,
    boardReadings,
    wordReadings,
    indexingReadings,
    screenReadings,
  ]) {
    process.stderr.write(`Measuring: ${measure.name} …\n`)
    tables.push(await measure())
  }
}
for (const each of tables) process.stdout.write(`${tableOf(each)}\n\n`)
if (values.json !== undefined)
  writeFileSync(
    values.json,
    JSON.stringify(
      { node: process.version, processors: cpus().length, readings: tables.flat().map(asData) },
      null,
      2,
    ),
  )
