import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { resolve } from 'node:path'
import { buildPages, installPackages, root, run } from './prepare.mjs'

installPackages()
buildPages()

const dataDir = resolve(root, process.env.DATA_DIR || '.data/demo')
const env = { ...process.env, DATA_DIR: dataDir }
if (process.argv.includes('--fresh')) {
  for (const file of [
    'noskel.sqlite',
    'noskel.sqlite-wal',
    'noskel.sqlite-shm',
    'sessions.sqlite',
    'mailbox',
    'secret',
  ])
    rmSync(resolve(dataDir, file), { recursive: true, force: true })
}
run('node', ['--import', 'tsx', 'scripts/seed-demo.ts'], { env })

const server = spawn('node', ['--import', 'tsx', 'server/main.ts', '--demo'], {
  env,
  stdio: ['ignore', 'pipe', 'inherit'],
})
server.stdout.once('data', line => {
  process.stdout.write(`${line}
Marram Coast Survey is ready. Sign in with the password  sea-holly-and-marram  as

  ilse@marram.example        Ilse Brandt, an owner
  aino@marram.example        Aino Vuori, a member, lead of Bird Counts
  sefa@lund-estate.example   Sefa Lund, a guest

Every mail that is sent stands in the mailbox: /mailbox. Stop with Ctrl+C; start anew with  npm run demo -- --fresh
`)
  server.stdout.pipe(process.stdout)
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', code => process.exit(code ?? 0))
