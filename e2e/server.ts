import { spawn } from 'node:child_process'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

export interface DemoServer {
  readonly address: string
  /** Stops and starts again, at the same address. */
  readonly restart: () => Promise<void>
  readonly stop: () => Promise<void>
}

const root = resolve(import.meta.dirname, '..')

/** The real server as a process of its own, in demo mode, on a data folder and a port that nobody else has. */
export async function startDemo({ empty = false } = {}): Promise<DemoServer> {
  const dataDir = mkdtempSync(join(tmpdir(), 'noskel-demo-'))
  if (!empty) await fill(dataDir)
  return startOn(dataDir, !empty)
}

/** The same on a large workspace, of two thousand people and fifty thousand places. */
export async function startLarge(): Promise<DemoServer> {
  const dataDir = mkdtempSync(join(tmpdir(), 'noskel-large-'))
  await run(dataDir, ['scripts/seed-large.ts', '--size', 'M'])
  return startOn(dataDir, true)
}

async function startOn(dataDir: string, isDemo: boolean): Promise<DemoServer> {
  const port = await freePort()
  const env = {
    ...process.env,
    DATA_DIR: dataDir,
    PORT: String(port),
    BASE_URL: `http://localhost:${port}`,
    SMTP_URL: '',
  }
  const begin = async () => {
    const server = spawn('node', ['--import', 'tsx', 'server/main.ts', ...(isDemo ? ['--demo'] : [])], {
      cwd: root,
      env,
    })
    await new Promise<void>((resolve, reject) => {
      // Before it listens it may tell how far its start is.
      server.stdout.on('data', (text: Buffer) => {
        if (text.includes('http')) resolve()
      })
      server.stderr.on('data', text => process.stderr.write(text as Buffer))
      server.once('exit', code => reject(new Error(`the server ended with ${code}`)))
    })
    return server
  }
  let server = await begin()
  const end = async () => {
    const ended = new Promise(resolve => server.once('exit', resolve))
    server.kill('SIGTERM')
    await ended
  }
  const restart = async () => {
    await end()
    server = await begin()
  }
  const stop = async () => {
    await end()
    rmSync(dataDir, { recursive: true, force: true })
  }
  return { address: `http://localhost:${port}`, restart, stop }
}

/** A copy of the demo that was made for all journeys, or one made for this server. */
async function fill(dataDir: string): Promise<void> {
  const template = process.env['DEMO_TEMPLATE']
  if (template === undefined) await seededInto(dataDir)
  else cpSync(template, dataDir, { recursive: true })
}

export const seededInto = (dataDir: string): Promise<void> => run(dataDir, ['scripts/seed-demo.ts'])

function run(dataDir: string, script: readonly string[]): Promise<void> {
  // Vite sets a BASE_URL of its own.
  const env = { ...process.env, DATA_DIR: dataDir, BASE_URL: 'http://localhost', SMTP_URL: '' }
  const running = spawn('node', ['--import', 'tsx', ...script], {
    cwd: root,
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  return new Promise((resolve, reject) => {
    running.once('exit', code =>
      code === 0 ? resolve() : reject(new Error(`${script[0] ?? ''} ended with ${code}`)),
    )
  })
}

function freePort(): Promise<number> {
  return new Promise(resolve => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })
}
