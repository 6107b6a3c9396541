import { createCipheriv, createDecipheriv, createHash, hkdfSync, randomBytes } from 'node:crypto'
import { generateSecret, generateURI, verify } from 'otplib'
import { toDataURL } from 'qrcode'
import type { TwoStepView } from '#contract/views/account.ts'
import { writeAccount, writeAccountIf } from '../../store/accounts.ts'
import type { AccountRow } from '../../store/tables.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { accountRow } from './account-row.ts'
import { endMisses } from '../../store/misses.ts'
import { pairOf, takeTry, type Whence } from './throttle.ts'

/** Time-based one-time codes (RFC 6238) and recovery codes: the second step at sign-in. */

const recoveryCount = 10
/** A code of the time step before or after is taken too: clocks differ. In seconds. */
const tolerance = 30

/** A secret for an app to keep, shown once. It counts from the moment at which a code of it is given. */
export async function beginTwoStep(parts: Parts, account: AccountRow): Promise<TwoStepView> {
  if (account.codeSince !== null) throw problemOf('two-step-there')
  const secret = generateSecret()
  const without = { id: account.id, held: { codeSince: null } }
  if (!(await writeAccountIf(parts.writer, without, { codeSecret: seal(parts, secret) })))
    throw problemOf('two-step-there')
  const uri = generateURI({ issuer: 'Noskel', label: account.mail, secret })
  return { secret, qr: await toDataURL(uri, { margin: 1, width: 220 }) }
}

/** A code that somebody gives, and from where. */
export interface Given {
  readonly code: string
  readonly whence: Whence
}

/** Takes the first code, and gives the recovery codes: they are never shown again. */
export async function confirmTwoStep(parts: Parts, account: AccountRow, given: Given): Promise<string[]> {
  if (account.codeSince !== null) throw problemOf('two-step-there')
  const step = await stepOf(parts, account, given)
  const codes = Array.from({ length: recoveryCount }, recoveryCode)
  const isFirst = await writeAccountIf(
    parts.writer,
    { id: account.id, held: { codeSince: null, codeSecret: account.codeSecret } },
    { codeSince: parts.clock(), codeStep: step, recoveryCodes: JSON.stringify(codes.map(digestOf)) },
  )
  if (!isFirst) throw problemOf('two-step-there')
  return codes
}

/** Takes a code of the app or a recovery code; each works once, however often it comes at the same instant. */
export async function takeCode(parts: Parts, account: AccountRow, given: Given): Promise<void> {
  const digest = digestOf(given.code)
  for (let row = account; ; row = await accountRow(parts, account.id)) {
    const left = JSON.parse(row.recoveryCodes) as string[]
    if (!left.includes(digest)) break
    const recoveryCodes = JSON.stringify(left.filter(each => each !== digest))
    const held = { recoveryCodes: row.recoveryCodes }
    // Where another one was taken meanwhile, it is looked for among those that are left.
    if (await writeAccountIf(parts.writer, { id: row.id, held }, { recoveryCodes })) return
  }
  for (let row = account; ; row = await accountRow(parts, account.id)) {
    const codeStep = await stepOf(parts, row, given)
    const held = { codeStep: row.codeStep }
    if (await writeAccountIf(parts.writer, { id: row.id, held }, { codeStep })) return
  }
}

export const noTwoStep = {
  codeSecret: null,
  codeSince: null,
  codeStep: null,
  recoveryCodes: '[]',
} as const satisfies Partial<AccountRow>

export async function endTwoStep(parts: Parts, account: AccountRow): Promise<void> {
  await writeAccount(parts.writer, account.id, noTwoStep)
}

/** The time step of a code that is right and was not taken yet. */
async function stepOf(parts: Parts, account: AccountRow, { code, whence }: Given): Promise<number> {
  const pair = pairOf(parts, `code ${account.id}`, { account, whence })
  await takeTry(parts, pair)
  const { codeSecret, codeStep } = account
  const token = code.replace(/\s/g, '')
  const result =
    codeSecret === null || !/^\d{6}$/.test(token)
      ? undefined
      : await verify({
          secret: unseal(parts, codeSecret),
          token,
          epoch: Math.floor(parts.clock() / 1000),
          epochTolerance: tolerance,
          ...(codeStep === null ? {} : { afterTimeStep: codeStep }),
        })
  if (result?.valid !== true || !('timeStep' in result)) throw problemOf('wrong-code')
  await endMisses(parts.sessions, pair)
  return result.timeStep as number
}

/** Ten signs of 32, in two halves that are easy to copy by hand. */
function recoveryCode(): string {
  const signs = 'abcdefghijkmnpqrstuvwxyz23456789'
  const code = [...randomBytes(10)].map(byte => signs[byte % signs.length]).join('')
  return `${code.slice(0, 5)}-${code.slice(5)}`
}

// Fifty random bits need no slow hash.
const digestOf = (code: string): string =>
  createHash('sha256')
    .update(`recovery ${code.replace(/[\s-]/g, '').toLowerCase()}`)
    .digest('base64url')

const keyOf = ({ secret }: Parts) => Buffer.from(hkdfSync('sha256', secret, '', 'second step', 32))

/** AES-256-GCM: a copy of the database alone gives nobody's codes. */
function seal(parts: Parts, plain: string): string {
  const iv = randomBytes(12)
  const cipher = createCipheriv('aes-256-gcm', keyOf(parts), iv)
  const sealed = Buffer.concat([cipher.update(plain, 'utf8'), cipher.final()])
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64')
}

function unseal(parts: Parts, sealed: string): string {
  const bytes = Buffer.from(sealed, 'base64')
  const decipher = createDecipheriv('aes-256-gcm', keyOf(parts), bytes.subarray(0, 12))
  decipher.setAuthTag(bytes.subarray(12, 28))
  return decipher.update(bytes.subarray(28), undefined, 'utf8') + decipher.final('utf8')
}
