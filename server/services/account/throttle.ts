import { createHash, randomBytes } from 'node:crypto'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { isTokenOf, type Signed, tokenOf } from '../../signature.ts'
import { changeMisses } from '../../store/misses.ts'
import type { AccountRow } from '../../store/tables.ts'

/** As much of an account as tells its devices. */
export type Held = Pick<AccountRow, 'id' | 'passwordHash'>

/** From where somebody tries to sign in. */
export interface Whence {
  /** A network, or the sign-in in which somebody is already: misses in one hold up nobody elsewhere. */
  readonly place: string
  /** What the browser shows of earlier sign-ins at it: see `deviceToken`. */
  readonly devices: readonly string[]
}

/** So many wrong tries are anybody's; after them each one has to wait, twice as long each time. */
const freeTries = 5
const firstWait = 10_000
const longestWait = 15 * 60_000
/** A miss is forgotten after so long. */
const ageOfMiss = 10 * 60_000

/**
 * Takes one try at a password or a code; throws while one has to wait. It is counted before it is looked at, so that
 * guesses sent side by side are guesses one after another; the right one takes its count back.
 *
 * What waits is the pair of what is tried and where it is tried from. So whoever guesses at somebody's password shuts
 * neither them out, nor a device at which they have signed in before, nor whoever is signed in.
 */
export const takeTry = ({ sessions, clock }: Parts, pair: string): Promise<void> =>
  changeMisses(sessions, pair, missed => {
    const now = clock()
    // Another server's clock may be ahead.
    const aged = missed === undefined ? 0 : Math.max(0, Math.floor((now - missed.at) / ageOfMiss))
    const count = missed === undefined ? 0 : Math.max(0, missed.count - aged)
    const wait = count < freeTries ? 0 : Math.min(2 ** (count - freeTries) * firstWait, longestWait)
    if (missed !== undefined && wait > 0 && now < missed.at + wait) throw problemOf('sign-in-throttled')
    return { count: count + 1, at: now }
  })

/** What is tried for an address or account, and from where; a device that is known counts for itself. */
export function pairOf(
  parts: Parts,
  what: string,
  { account, whence }: { readonly account: Held | undefined; readonly whence: Whence },
): string {
  const known =
    account === undefined
      ? undefined
      : whence.devices.find(token => isTokenOf(token, parts.secret, ofDevice(account, nonceIn(token))))
  // Kept beside the sign-ins: neither addresses nor networks can be read there.
  return createHash('sha256')
    .update(`${what} ${known ?? whence.place}`)
    .digest('base64url')
}

/** What a browser keeps of having signed an account in: no way in, only a way past the misses of others. */
export const deviceToken = ({ secret }: Parts, account: Held): string =>
  tokenOf(secret, ofDevice(account, randomBytes(9).toString('base64url')))

export const isDeviceOf = ({ secret }: Parts, account: Held, token: string): boolean =>
  isTokenOf(token, secret, ofDevice(account, nonceIn(token)))

const nonceIn = (token: string): string => token.slice(0, token.indexOf('.'))

/** With a new password all devices are new. */
const ofDevice = (account: Held, nonce: string): Signed => ({
  purpose: `device of ${account.id}`,
  workspace: '',
  id: nonce,
  generation: createHash('sha256').update(account.passwordHash).digest('base64url'),
})
