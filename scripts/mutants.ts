import { spawn } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { type Mistake, mistakes } from './mistakes.ts'

/**
 * Plants one mistake after another in a copy of the core and the server and runs tests until one fails: each has to be
 * caught. npm run mutants [word …]: all of them, or those whose mistake has one of the words. One copy for each processor.
 * In the core all tests are run, the quick ones before the slow ones, and before all the file that is known to catch the
 * mistake; in the server, whose tests take longer, that file alone.
 */

/** In milliseconds: the tests that are run for a mistake take half of it. */
const oneTakes = 300_000
/** All of them, on one processor. */
const allTake = 1_500_000

const root = resolve(import.meta.dirname, '..')
const words = process.argv.slice(2)
const waiting = mistakes.filter(
  ({ mistake }) => words.length === 0 || words.some(word => mistake.includes(word)),
)
const planted = waiting.length
const missed: string[] = []
/** Those that have to pass where no mistake is planted. */
const everyTest = [
  'core/',
  ...new Set(mistakes.flatMap(({ file, by }) => (file.startsWith('core/') || by === undefined ? [] : [by]))),
]
const began = Date.now()

/** Worlds of random cases take long: all others are asked before them. */
const slow = [
  'property',
  'tests/index',
  'access/evaluate',
  'impact/',
  'remedies/',
  'base/',
  'tests/large',
  'explain/',
]

const config = `
import { BaseSequencer } from 'vitest/node'
const slow = ${JSON.stringify(slow)}
const costOf = path => slow.findIndex(each => path.includes(each)) + 1 && 1 + slow.findIndex(each => path.includes(each))
class QuickFirst extends BaseSequencer {
  async sort(files) {
    const first = (process.env.FIRST ?? '').split(',').filter(Boolean)
    const rank = ({ moduleId }) => (first.some(each => moduleId.endsWith(each)) ? -1 : costOf(moduleId))
    return [...files].sort((a, b) => rank(a) - rank(b))
  }
}
export default {
  test: {
    include: ['core/**/*.test.ts', 'server/**/*.test.ts'],
    setupFiles: ['./quick-failing.ts'],
    bail: 1,
    isolate: false,
    fileParallelism: false,
    sequence: { sequencer: QuickFirst },
  },
}
`

/** The same cases each time, so that what is caught is no chance; that one fails is enough, the smallest is not looked for. */
const setup = `
import fc from 'fast-check'
fc.configureGlobal({ endOnFailure: true, seed: 29 })
`

await Promise.all(Array.from({ length: availableParallelism() }, (_, copy) => plantInCopy(copy)))
process.stdout.write(
  `${planted - missed.length} of ${planted} mistakes are caught, in ${Math.round((Date.now() - began) / 1000)} s.\n`,
)
process.exitCode = missed.length === 0 ? 0 : 1

async function plantInCopy(number: number): Promise<void> {
  const copy = makeCopy()
  try {
    // One copy tells for all whether the tests pass without a mistake.
    if (number === 0 && (await failingIn(copy, { only: everyTest, endlessAfter: allTake })) !== undefined)
      throw new Error('the tests must pass before a mistake is planted')
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) await plant(copy, next)
  } finally {
    rmSync(copy, { recursive: true, force: true })
  }
}

async function plant(copy: string, { mistake, file, find, put, by }: Mistake): Promise<void> {
  const path = join(copy, file)
  const right = readFileSync(path, 'utf8')
  if (!right.includes(find)) throw new Error(`${file} does not hold: ${find}`)
  writeFileSync(path, right.replace(find, put))
  const since = Date.now()
  const first = by === undefined ? [] : [by]
  const catcher = await failingIn(
    copy,
    file.startsWith('core/') ? { first, only: ['core/'] } : { only: first, testTimeout: 60_000 },
  )
  writeFileSync(path, right)
  const seconds = Math.round((Date.now() - since) / 1000)
  process.stdout.write(
    catcher === undefined ? `MISSED  ${mistake}\n` : `caught  ${mistake} (${catcher}, ${seconds} s)\n`,
  )
  if (catcher === undefined) missed.push(mistake)
}

function makeCopy(): string {
  const copy = mkdtempSync(join(tmpdir(), 'noskel-mutants-'))
  for (const part of ['contract', 'core', 'demo', 'server', 'package.json', 'tsconfig.base.json'])
    cpSync(join(root, part), join(copy, part), { recursive: true })
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))
  writeFileSync(join(copy, 'vitest.config.js'), config)
  writeFileSync(join(copy, 'quick-failing.ts'), setup)
  return copy
}

interface Run {
  /** The tests whose path has one of these in it. */
  readonly only: readonly string[]
  /** Those that come before all others. */
  readonly first?: readonly string[]
  readonly testTimeout?: number
  readonly endlessAfter?: number
}

/** The first test file that fails. */
function failingIn(
  copy: string,
  { only, first = [], testTimeout = 240_000, endlessAfter = oneTakes }: Run,
): Promise<string | undefined> {
  const run = spawn(
    'node_modules/.bin/vitest',
    ['run', '--reporter=json', '--silent=true', `--testTimeout=${testTimeout}`, ...only],
    {
      cwd: copy,
      detached: true,
      env: { ...process.env, FIRST: first.join(',') },
      stdio: ['ignore', 'pipe', 'ignore'],
    },
  )
  let output = ''
  let isEndless = false
  // With the processes that it has started: one that walks in a ring would go on for ever.
  const stop = setTimeout(() => {
    isEndless = true
    process.kill(-(run.pid as number), 'SIGKILL')
  }, endlessAfter)
  run.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()))
  return new Promise((resolve, reject) => {
    run.on('error', reject)
    run.on('close', code => {
      clearTimeout(stop)
      resolve(isEndless ? 'they do not end' : code === 0 ? undefined : failedIn(output))
    })
  })
}

function failedIn(output: string): string {
  const { testResults } = JSON.parse(output.slice(output.indexOf('{'))) as {
    testResults: { name: string; status: string; assertionResults: { status: string }[] }[]
  }
  const failed = testResults.find(
    each => each.status === 'failed' && !each.assertionResults.every(({ status }) => status === 'skipped'),
  )
  return failed?.name.split(/noskel-mutants-[^/]*\//)[1] ?? 'a file that could not be read'
}
