import { Op } from 'sequelize'
import type { AccountLinkView } from '#contract/views/account.ts'
import type { UseLinkRequest } from '#contract/requests.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import { counted } from '#core/words/english.ts'
import { letter } from '../../mail/template.ts'
import type { AccountLinkRow, AccountRow } from '../../store/tables.ts'
import { accountUpdate, newsOf } from '../../store/accounts.ts'
import { rowsOnly } from '../../store/commit.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { idIn, isTokenOf, type Signed, tokenOf } from '../../signature.ts'
import { accountByMail, accountRow } from './account-row.ts'
import { checkStrength, hashOf, passwordOf } from './password.ts'
import { noTwoStep } from './two-step.ts'
import { endSignInsBut } from './sign-ins.ts'

/**
 * Links that are mailed to an account's own address and to nobody else: for a new password, to get in again
 * after the second step is lost, to show that the address is the holder's. Each works once and dies in time.
 * The token is signed and stands behind the `#`; the table has only its id.
 */

const hour = 3_600_000
const livesFor = { password: hour, 'sign-in': 24 * hour, address: 24 * hour } as const
/** Of each purpose no more than this many that still work are sent: what strangers ask for takes nothing from helpers. */
const openAtMost = 5

/** Asked for by anybody for any address: nothing is answered that would tell whether somebody has it. */
export async function sendForgotten(parts: Parts, mail: string): Promise<void> {
  const account = await accountByMail(parts, mail)
  if (account !== undefined) await sendLink(parts, account, 'password')
}

export async function sendLink(
  parts: Parts,
  account: AccountRow,
  purpose: AccountLinkRow['purpose'],
): Promise<void> {
  const { accountLinks } = parts.writer.tables
  const now = parts.clock()
  const open = await accountLinks.count({ where: { account: account.id, purpose, until: { [Op.gt]: now } } })
  if (open >= openAtMost) return
  const row: AccountLinkRow = {
    id: parts.newId(),
    account: account.id,
    purpose,
    until: now + livesFor[purpose],
  }
  const mail = linkMail(parts, account, row)
  await submit(parts.writer, () =>
    ok({
      ...rowsOnly(
        { kind: 'delete', table: 'accountLinks', where: { until: { [Op.lte]: now } } },
        { kind: 'put', table: 'accountLinks', rows: [row] },
        { kind: 'put', table: 'mails', rows: [mail] },
      ),
      news: [{ of: 'mails' as const }],
    }),
  )
}

const words = {
  password: {
    subject: 'Your new password for Noskel',
    sentence: 'Somebody, probably you, requested a new password. Open this link to choose one:',
  },
  'sign-in': {
    subject: 'Sign in to Noskel again',
    sentence:
      'An administrator sent you this link. Open it to choose a new password. If you have lost the app for two-step sign-in, you can turn that off there too:',
  },
  address: {
    subject: 'Confirm your address',
    sentence: 'Open this link to confirm that this address is yours:',
  },
} as const satisfies Record<AccountLinkRow['purpose'], object>

function linkMail(parts: Parts, account: AccountRow, row: AccountLinkRow) {
  const { subject, sentence } = words[row.purpose]
  const hours = livesFor[row.purpose] / hour
  const lines = [
    sentence,
    { address: `${parts.config.baseUrl}/account-link#${tokenOf(parts.secret, signedFor(row))}` },
    `The link works once, for ${counted(hours, 'hour', 'hours')}. If you did not expect this mail, ignore it: nothing has changed.`,
  ]
  // About an account, and so of no workspace.
  const workspace = '' as WorkspaceId
  return letter(parts, { workspace, to: account.mail, subject, lines, at: parts.clock() })
}

export async function linkView(parts: Parts, token: string): Promise<AccountLinkView> {
  const { account, row } = await openLink(parts, token)
  return { purpose: row.purpose, mail: account.mail, hasTwoStep: account.codeSince !== null }
}

/** Does what the link is for. Every sign-in ends with a new password. */
export async function followLink(parts: Parts, request: UseLinkRequest): Promise<void> {
  const { account, row } = await openLink(parts, request.token)
  const endsTwoStep = row.purpose === 'sign-in' && request.endsTwoStep === true
  const fields: Partial<AccountRow> = {
    provenAt: account.provenAt ?? parts.clock(),
    ...(row.purpose === 'address' ? {} : await newPassword(parts, account, request.password)),
    ...(endsTwoStep ? noTwoStep : {}),
  }
  if (!(await takeLink(parts, row, fields))) throw problemOf('dead-link')
  if (row.purpose !== 'address') await endSignInsBut(parts, account.id, null)
}

async function newPassword(parts: Parts, account: AccountRow, password = '') {
  checkStrength(password, await passwordOf(parts, account))
  return { passwordHash: await hashOf(password) }
}

/** Changes the account and takes the link away, in one: false if somebody else was first. */
async function takeLink(
  parts: Parts,
  { id, account, purpose }: AccountLinkRow,
  fields: Partial<AccountRow>,
): Promise<boolean> {
  // A new password kills whatever else was sent.
  const dead = purpose === 'address' ? { id } : { account }
  const result = await submit(parts.writer, () =>
    ok({
      value: undefined,
      conditions: [{ table: 'accountLinks' as const, where: { id }, atLeast: 1, orElse: 'outrun' as const }],
      rows: [
        { kind: 'delete' as const, table: 'accountLinks' as const, where: dead },
        accountUpdate(account, fields),
      ],
      news: newsOf(account, fields),
    }),
  )
  return result.ok
}

interface Opened {
  readonly row: AccountLinkRow
  readonly account: AccountRow
}

async function openLink(parts: Parts, token: string): Promise<Opened> {
  const found = await parts.writer.tables.accountLinks.findByPk(idIn(token), { raw: true })
  const row = found as unknown as AccountLinkRow | null
  if (row === null || row.until <= parts.clock() || !isTokenOf(token, parts.secret, signedFor(row)))
    throw problemOf('dead-link')
  return { row, account: await accountRow(parts, row.account) }
}

const signedFor = ({ id, purpose, account, until }: AccountLinkRow): Signed => ({
  purpose: `account link ${purpose} ${account}`,
  workspace: '',
  id,
  generation: until,
})
