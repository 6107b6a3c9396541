import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { buildPages, fail, installPackages, root, run, serverEnv, serverFlags } from './prepare.mjs'

installPackages()
buildPages()

const dataDir = resolve(root, process.env.DATA_DIR || '.data/demo')
const env = { ...serverEnv, DATA_DIR: dataDir }
// Without this mark a folder with a workspace is somebody's own: the demo neither opens nor empties it.
const mark = resolve(dataDir, 'this-is-the-demo')
if (existsSync(resolve(dataDir, 'noskel.sqlite')) && !existsSync(mark))
  fail(`${dataDir} holds a workspace that is not the demo’s. Give the demo another DATA_DIR.`)
mkdirSync(dataDir, { recursive: true })
writeFileSync(mark, 'Made by npm run demo; npm run demo -- --fresh empties this folder.\n')
if (process.argv.includes('--fresh')) {
  for (const file of [
    'noskel.sqlite',
    'noskel.sqlite-wal',
    'noskel.sqlite-shm',
    'sessions.sqlite',
    'sessions.sqlite-wal',
    'sessions.sqlite-shm',
    'mailbox',
    'secret',
  ])
    rmSync(resolve(dataDir, file), { recursive: true, force: true })
}
if (!existsSync(resolve(dataDir, 'noskel.sqlite')))
  process.stdout.write('Making Marram Coast Survey, with nine months of history: some twenty seconds …\n')
run('node', ['--import', 'tsx', 'scripts/seed-demo.ts'], { env })

const server = spawn('node', [...serverFlags, 'server/main.ts', '--demo'], {
  env,
  stdio: ['ignore', 'pipe', 'inherit'],
})
server.stdout.once('data', line => {
  process.stdout.write(`${line}
Marram Coast Survey is ready. Sign in with the password  sea-holly-and-marram  as

  ilse@marram.example        Ilse Brandt, an owner
  aino@marram.example        Aino Vuori, a member, lead of Bird Counts
  sefa@lund-estate.example   Sefa Lund, a guest

Every mail that is sent stands in the mailbox, at /mailbox. Stop with Ctrl+C; start anew with  npm run demo -- --fresh
`)
  server.stdout.pipe(process.stdout)
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', code => process.exit(code ?? 0))
