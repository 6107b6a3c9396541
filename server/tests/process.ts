import { type ChildProcess, spawn } from 'node:child_process'
import { resolve } from 'node:path'

/** A server as it runs for people: a process of its own on a data folder. */
export interface ServerProcess {
  readonly address: string
  readonly child: ChildProcess
  readonly end: (signal: NodeJS.Signals) => Promise<void>
}

export async function startProcess(
  dataDir: string,
  { env = {}, flags = [] }: { readonly env?: NodeJS.ProcessEnv; readonly flags?: readonly string[] } = {},
): Promise<ServerProcess> {
  const set = { DATA_DIR: dataDir, PORT: '0', BASE_URL: 'http://noskel.test', SMTP_URL: '', ...env }
  const child = spawn('node', ['--import', 'tsx', 'server/main.ts', ...flags], {
    cwd: resolve(import.meta.dirname, '../..'),
    env: { ...process.env, ...set },
  })
  const address = await new Promise<string>((found, failed) => {
    let output = ''
    const look = (text: Buffer) => {
      output += text.toString()
      const address = /http:\/\/127\.0\.0\.1:\d+/.exec(output)?.[0]
      if (address !== undefined) found(address)
    }
    child.stdout.on('data', look)
    child.stderr.on('data', look)
    child.once('exit', code => failed(new Error(`the server ended with ${code}: ${output}`)))
  })
  const end = async (signal: NodeJS.Signals) => {
    if (child.exitCode !== null || child.signalCode !== null) return
    const ended = new Promise(resolve => child.once('exit', resolve))
    child.kill(signal)
    await ended
  }
  return { address, child, end }
}
