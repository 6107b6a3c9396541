import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { resolve } from 'node:path'

// Plain JavaScript on Node alone: this runs before anything is installed.

export const root = resolve(import.meta.dirname, '..')
process.chdir(root)

/** Runs a command with its output shown; ends the process with its code if it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', ...options })
  if (error) fail(`${command} could not be run: ${error.message}`)
  if (status !== 0) process.exit(status ?? 1)
}

export function fail(message) {
  process.stderr.write(`${message}\n`)
  process.exit(1)
}

/** Installs the packages of the lock file unless they are there already. */
export function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Noskel needs Node 20.19 or newer; this is ${process.version}.`)
  const stamp = resolve(root, 'node_modules/.noskel-installed')
  const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  process.stdout.write('Installing packages (a few minutes the first time) …\n')
  const { status } = spawnSync('npm', ['ci', '--loglevel=error'], { stdio: 'inherit' })
  if (status !== 0)
    fail(
      'The packages could not be installed. Where sqlite3 has no ready binary it is compiled: that needs python3, make and a C++ compiler.',
    )
  writeFileSync(stamp, wanted)
}

/** Builds the pages, unless they are newer than everything they are made of. */
export function buildPages() {
  const built = resolve(root, '.build/web/index.html')
  const sources = ['web', 'core', 'contract', 'package-lock.json', 'vite.config.ts']
  const newest = spawnSync('find', [...sources, '-type', 'f', '-newer', built], { encoding: 'utf8' })
  if (existsSync(built) && statSync(built).size > 0 && newest.status === 0 && newest.stdout.trim() === '')
    return
  run('node', ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'])
}

/**
 * What the server is started with. Files are read and written on threads: with Node's four, a write that waits for
 * the disk holds up everybody who reads. Read before any of our code runs.
 */
export const serverEnv = { UV_THREADPOOL_SIZE: '16', ...process.env }

/**
 * New objects are gathered two MiB at a time instead of sixteen: nobody waits long while that is looked through, and
 * it fits the processor's cache.
 */
export const serverFlags = ['--max-semi-space-size=2', '--import', 'tsx']
