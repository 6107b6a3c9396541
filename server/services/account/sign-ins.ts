import { createHash } from 'node:crypto'
import type { SignInView } from '#contract/views/account.ts'
import type { AccountId } from '#core/base/ids.ts'
import { endSignIns, lastSeenOf, signInsOf } from '../../store/sessions.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'

/** The sign-ins of an account, the one that asks marked. */
export async function signInViews(parts: Parts, account: AccountId, session: string): Promise<SignInView[]> {
  const rows = await signInsOf(parts.sessions, account)
  return rows.map(({ sid, agent, madeAt }) => ({
    id: publicId(sid),
    isThis: sid === session,
    at: deviceOf(agent ?? ''),
    since: madeAt,
    lastUsed: lastSeenOf(parts.sessions, '', publicId(sid)),
  }))
}

/** Ends one sign-in of the account. */
export async function endSignIn(parts: Parts, account: AccountId, id: string): Promise<void> {
  const rows = await signInsOf(parts.sessions, account)
  const found = rows.filter(row => publicId(row.sid) === id)
  if (found.length === 0) throw problemOf('not-found')
  await endSignIns(
    parts.sessions,
    found.map(row => row.sid),
  )
}

/** Ends all sign-ins of the account but the one with the id `kept`. */
export async function endSignInsBut(parts: Parts, account: AccountId, kept: string | null): Promise<void> {
  const rows = await signInsOf(parts.sessions, account)
  await endSignIns(
    parts.sessions,
    rows.map(row => row.sid).filter(sid => sid !== kept),
  )
}

/** What stands for a sign-in outside: its own id stands in a cookie. */
export const publicId = (sid: string): string =>
  createHash('sha256')
    .update(sid)
    .digest('base64url')
    .slice(0, 16)
    .toLowerCase()
    .replace(/[^a-z0-9]/g, '0')

const browsers: readonly (readonly [RegExp, string])[] = [
  [/Edg\//, 'Edge'],
  [/Firefox\//, 'Firefox'],
  [/Chrom(e|ium)\//, 'Chromium'],
  [/Safari\//, 'Safari'],
]
const systems: readonly (readonly [RegExp, string])[] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/Linux|X11/, 'Linux'],
]

/** As people tell their devices apart; what no row fits is told as it is not known. */
export function deviceOf(agent: string): string {
  const named = (rows: typeof browsers) => rows.find(([pattern]) => pattern.test(agent))?.[1]
  const browser = named(browsers)
  const system = named(systems)
  if (browser === undefined) return 'something that is not a browser'
  return system === undefined ? browser : `${browser} on ${system}`
}
