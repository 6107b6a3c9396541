import { isIP } from 'node:net'
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
  /** Answers beside the server that writes, on the same folder, and writes nothing of workspaces and accounts. */
  readonly readsOnly?: boolean
  /** Which proxies before this server are believed about addresses: how many there are, or their networks. */
  readonly trustProxy?: number | string
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
  const smtpUrl = given(env.SMTP_URL)
  return {
    port,
    host,
    baseUrl,
    dataDir,
    smtpUrl,
    isDemo,
    readsOnly: given(env.READ_ONLY) === '1',
    ...proxiesIn(given(env.TRUST_PROXY)),
  }
}

/** An empty variable is one that is not set. */
const given = (value = ''): string | null => (value.trim() === '' ? null : value)

/** A number of hops, or addresses and networks with commas between them. */
function proxiesIn(text: string | null): Pick<Config, 'trustProxy'> {
  if (text === null) return {}
  if (/^\d+$/.test(text)) return { trustProxy: Number(text) }
  const isNetwork = (each: string) => {
    const [address = '', bits = '0'] = each.trim().split('/')
    return (
      /^(loopback|linklocal|uniquelocal)$/.test(address) || (isIP(address) !== 0 && /^\d{1,3}$/.test(bits))
    )
  }
  if (!text.split(',').every(isNetwork))
    throw new Error(`TRUST_PROXY is neither a number of proxies nor a list of networks: ${text}`)
  return { trustProxy: text }
}
