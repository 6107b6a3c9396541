import { createCipheriv, createDecipheriv, createHash, hkdfSync, randomBytes } from 'node:crypto'
import { generateSecret, generateURI, verify } from 'otplib'
import { toDataURL } from 'qrcode'
import type { SecondStepView } from '#contract/account-views.ts'
import { writeAccount } from '../store/accounts.ts'
import type { AccountRow } from '../store/tables.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { forgetMisses, holdBack, noteMiss } from './slow-down.ts'

/** Time-based one-time codes (RFC 6238) and recovery codes: the second step at sign-in. */

const recoveryCount = 10
/** A code of the time step before or after is taken too: clocks differ. In seconds. */
const tolerance = 30

/** A secret for an app to keep, shown once. It counts from the moment at which a code of it is given. */
export async function beginSecondStep(parts: Parts, account: AccountRow): Promise<SecondStepView> {
  if (account.codeSince !== null) throw problemOf('second-step-there')
  const secret = generateSecret()
  await writeAccount(parts.writer, account.id, { codeSecret: seal(parts, secret) })
  const uri = generateURI({ issuer: 'Noskel', label: account.mail, secret })
  return { secret, qr: await toDataURL(uri, { margin: 1, width: 220 }) }
}

/** Takes the first code, and gives the recovery codes: they are never shown again. */
export async function confirmSecondStep(parts: Parts, account: AccountRow, code: string): Promise<string[]> {
  if (account.codeSince !== null) throw problemOf('second-step-there')
  const step = await stepOf(parts, account, code)
  const codes = Array.from({ length: recoveryCount }, recoveryCode)
  await writeAccount(parts.writer, account.id, {
    codeSince: parts.clock(),
    codeStep: step,
    recoveryCodes: JSON.stringify(codes.map(digestOf)),
  })
  parts.secured.add(account.id)
  return codes
}

/** Takes a code of the app or a recovery code; each works once. Throws on any other. */
export async function takeCode(parts: Parts, account: AccountRow, code: string): Promise<void> {
  const left = JSON.parse(account.recoveryCodes) as string[]
  const digest = digestOf(code)
  if (left.includes(digest)) {
    forgetMisses(parts, tried(account))
    const recoveryCodes = JSON.stringify(left.filter(each => each !== digest))
    return writeAccount(parts.writer, account.id, { recoveryCodes })
  }
  await writeAccount(parts.writer, account.id, { codeStep: await stepOf(parts, account, code) })
}

export const noSecondStep = {
  codeSecret: null,
  codeSince: null,
  codeStep: null,
  recoveryCodes: '[]',
} as const satisfies Partial<AccountRow>

export async function endSecondStep(parts: Parts, account: AccountRow): Promise<void> {
  await writeAccount(parts.writer, account.id, noSecondStep)
  parts.secured.delete(account.id)
}

/** The time step of a code that is right and was not taken yet. */
async function stepOf(parts: Parts, account: AccountRow, code: string): Promise<number> {
  holdBack(parts, tried(account))
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
  if (result?.valid !== true || !('timeStep' in result)) {
    noteMiss(parts, tried(account))
    throw problemOf('wrong-code')
  }
  forgetMisses(parts, tried(account))
  return result.timeStep as number
}

const tried = ({ id }: AccountRow) => `code ${id}`

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
