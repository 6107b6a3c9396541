import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { parseArgs } from 'node:util'
import { sizes } from '#demo/large.ts'
import { coreReadings } from './core.ts'
import { type Reading, tableOfSizes } from './measure.ts'
import { serverReadings } from './server.ts'

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
console.log(tableOfSizes(readings))
if (values.json !== undefined)
  writeFileSync(
    values.json,
    JSON.stringify({ node: process.version, processors: cpus().length, readings }, null, 2),
  )
if (values.size === undefined) {
  execFileSync('npm', ['run', 'build', '--', '--logLevel', 'warn'])
  await import('./people.ts')
  await import('./roles.ts')
  await import('./first-screen.ts')
}
