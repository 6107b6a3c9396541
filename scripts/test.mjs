import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync } from 'node:fs'
import { buildPages, fail, installPackages, run } from './prepare.mjs'

/** Everything that has to hold: types, lint, unit, API and browser tests. */
installPackages()
installBrowser()
// The longest of the checks, on one processor: the others run beside it, and the tests that tell no times.
const lint = spawn('node_modules/.bin/eslint', ['.'], { stdio: 'inherit' })
const linted = once(lint, 'exit')
run('node_modules/.bin/tsc', ['-b'])
run('node_modules/.bin/prettier', ['--check', '--log-level', 'warn', '.'])
run('node_modules/.bin/knip', [])
buildPages()
const chosen = process.argv.slice(2)
if (chosen.length > 0) {
  await lintIsDone()
  tests(chosen)
} else {
  tests(['--project', 'unit', '--project', 'api', '--maxWorkers=100%'])
  await lintIsDone()
  // Journeys tell how long something takes: they are not run beside what keeps every processor busy.
  tests(['--project', 'browser'])
}

function tests(which) {
  run('node_modules/.bin/vitest', ['run', ...which])
}

async function lintIsDone() {
  const [status] = await linted
  if (status !== 0) fail('ESLint found what stands above.')
}

function installBrowser() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return
  const mayInstall = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
  if (!mayInstall)
    fail('The browser tests need Chromium and its driver: install the packages chromium and chromium-driver.')
  process.stdout.write('Installing chromium and chromium-driver …\n')
  spawnSync('apt-get', ['update'], { stdio: 'ignore' })
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium', 'chromium-driver'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  })
}
