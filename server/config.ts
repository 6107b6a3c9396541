import { resolve } from 'node:path'

/** What the environment says. Read once, in main. */
export interface Config {
  readonly port: number
  readonly host: string
  /** How the outside reaches this server: stands in mailed links. */
  readonly baseUrl: string
  readonly dataDir: string
  readonly smtpUrl: string | null
  readonly isDemo: boolean
}

/** Throws with one clear line on a value that cannot be used. */
export function readConfig(env: NodeJS.ProcessEnv, isDemo: boolean): Config {
  const port = Number(env.PORT ?? 4700)
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Error(`PORT is not a port number: ${env.PORT}`)
  const host = env.HOST ?? '127.0.0.1'
  const baseUrl = (env.BASE_URL ?? `http://localhost:${port}`).replace(/\/+$/, '')
  if (!URL.canParse(baseUrl)) throw new Error(`BASE_URL is not an address: ${baseUrl}`)
  const dataDir = resolve(env.DATA_DIR ?? (isDemo ? '.data/demo' : '.data/workspace'))
  const smtpUrl = env.SMTP_URL === undefined || env.SMTP_URL === '' ? null : env.SMTP_URL
  return { port, host, baseUrl, dataDir, smtpUrl, isDemo }
}
