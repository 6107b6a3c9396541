import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { resolve } from 'node:path'
import { serverFlags } from '../scripts/prepare.mjs'
import { openLarge } from './large-server.ts'
import { middle, type Reading } from './measure.ts'

/** How soon another process, which only answers, knows what was confirmed by the one that writes. */

const size = { people: 2000, teams: 100, nodes: 20_000, grants: 5000, limits: 50, breaks: 100 }
const times = 30

export async function followingReadings(): Promise<Reading[]> {
  const large = await openLarge(size)
  const second = await startBeside(large.dataDir)
  const revisionThere = async () => {
    const answer = await fetch(`${second.address}/api/at/large`, { headers: { cookie: large.cookie() } })
    await answer.text()
    return Number(answer.headers.get('noskel-revision'))
  }
  const taken: number[] = []
  const answers: number[] = []
  for (let count = 0; count < times; count += 1) {
    const edits = [{ kind: 'workspace.change', houseRules: `Boots, ${count}` }]
    const { revision } = await large.call<{ revision: number }>('POST', '/at/large/changes', { edits })
    const began = performance.now()
    while ((await revisionThere()) < revision);
    taken.push(performance.now() - began)
    const again = performance.now()
    await revisionThere()
    answers.push(performance.now() - again)
  }
  await second.stop()
  await large.stop()
  const floor = { what: 'one answer of that process', value: middle(answers) }
  const value = taken.toSorted((a, b) => a - b)[Math.floor(times * 0.95)] ?? 0
  return [{ id: 'following.state', size: '20,000 places', unit: 'ms', value, floor }]
}

/** A process that follows the folder. */
async function startBeside(dataDir: string) {
  const child = spawn('node', [...serverFlags, 'server/main.ts', '--demo'], {
    cwd: resolve(import.meta.dirname, '..'),
    env: { ...process.env, DATA_DIR: dataDir, PORT: '0', READ_ONLY: '1' },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let output = ''
  while (!/http:\/\/127\.0\.0\.1:\d+/.test(output)) output += String(await once(child.stdout, 'data'))
  const stop = async () => {
    child.kill('SIGTERM')
    await once(child, 'exit')
  }
  return { address: /http:\/\/127\.0\.0\.1:\d+/.exec(output)?.[0] ?? '', stop }
}
