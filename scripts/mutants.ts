import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { mistakes } from './mistakes.ts'

/**
 * Plants one mistake after another in a copy of the core and runs its tests: each has to be caught.
 * npm run mutants [word …]: all of them, or those whose mistake has one of the words.
 */

const root = resolve(import.meta.dirname, '..')
const copy = mkdtempSync(join(tmpdir(), 'noskel-mutants-'))
for (const part of ['core', 'package.json', 'tsconfig.base.json'])
  cpSync(join(root, part), join(copy, part), { recursive: true })
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))
const config = "export default { test: { include: ['core/**/*.test.ts'], testTimeout: 60000, bail: 1 } }\n"
writeFileSync(join(copy, 'vitest.config.js'), config)

const words = process.argv.slice(2)
const planted = mistakes.filter(
  ({ mistake }) => words.length === 0 || words.some(word => mistake.includes(word)),
)
const missed: string[] = []
try {
  if (!passes()) throw new Error('the tests of the core must pass before a mistake is planted')
  for (const { mistake, file, find, put } of planted) {
    const path = join(copy, 'core', file)
    const right = readFileSync(path, 'utf8')
    if (!right.includes(find)) throw new Error(`${file} does not hold: ${find}`)
    writeFileSync(path, right.replace(find, put))
    const isCaught = !passes()
    writeFileSync(path, right)
    process.stdout.write(`${isCaught ? 'caught' : 'MISSED'}  ${mistake}\n`)
    if (!isCaught) missed.push(mistake)
  }
} finally {
  rmSync(copy, { recursive: true, force: true })
}
process.stdout.write(`${planted.length - missed.length} of ${planted.length} mistakes are caught.\n`)
process.exitCode = missed.length === 0 ? 0 : 1

function passes(): boolean {
  const { status } = spawnSync('npx', ['vitest', 'run', '--silent'], { cwd: copy, stdio: 'ignore' })
  return status === 0
}
