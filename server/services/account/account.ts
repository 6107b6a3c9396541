import { isTimeZone } from '#contract/dates.ts'
import type { AccountView, SessionView, WaitingInvitation } from '#contract/views/account.ts'
import type {
  AccountRequest,
  NewPasswordRequest,
  PasswordRequest,
  SignInRequest,
} from '#contract/requests.ts'
import type { AccountId } from '#core/base/ids.ts'
import { rowsBy } from '#core/base/collection.ts'
import { workspaceOf } from '#core/state/state.ts'
import { newAccountRow, writeAccount, writeAccountIf } from '../../store/accounts.ts'
import type { AccountRow } from '../../store/tables.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { nameOf } from '../viewer/asker.ts'
import { checkStrength, fits, hashOf, passwordOf } from './password.ts'
import { workspacesInviting } from '../../store/whereabouts.ts'
import { snapshotsOf, workspacesOf } from '../viewer/workspaces-of.ts'
import { takeCode } from './two-step.ts'
import { endSignInsBut, signInViews } from './sign-ins.ts'
import { accountByMail, accountRow } from './account-row.ts'
import { endMisses } from '../../store/misses.ts'
import { pairOf, takeTry, type Whence } from './throttle.ts'

/** The account that an address and a password open; the same refusal whichever of them is wrong. */
export async function signIn(
  parts: Parts,
  { mail, password, code }: SignInRequest,
  whence: Whence,
): Promise<AccountRow> {
  const account = await accountByMail(parts, mail)
  await checkPassword(parts, { account, mail, password, whence })
  if (account === undefined) throw problemOf('wrong-sign-in')
  await checkTwoStep(parts, account, { code, whence })
  return account
}

interface Tried {
  readonly account: AccountRow | undefined
  readonly mail: string
  readonly password: string
  readonly whence: Whence
}

/** Throws unless the password is right. Tries are counted for the address, whether somebody has it or not. */
export async function checkPassword(parts: Parts, { account, mail, password, whence }: Tried): Promise<void> {
  const pair = pairOf(parts, `password ${mail.trim().toLowerCase()}`, { account, whence })
  await takeTry(parts, pair)
  if (!(await fits(password, account?.passwordHash))) throw problemOf('wrong-sign-in')
  await endMisses(parts.sessions, pair)
}

/** Asks for the code where there is a second step; takes it. */
export async function checkTwoStep(
  parts: Parts,
  account: AccountRow,
  { code, whence }: { readonly code?: string | undefined; readonly whence: Whence },
): Promise<void> {
  if (account.codeSince === null) return
  if (code === undefined) throw problemOf('two-step')
  await takeCode(parts, account, { code, whence })
}

interface NewAccount {
  readonly name: string
  readonly mail: string
  readonly password: string
  /** The name of where it comes to. */
  readonly workspace: string
  /** Whether coming here showed that the address is theirs. */
  readonly isProven: boolean
}

/** A new account, not written yet. */
export async function newAccount(
  parts: Parts,
  { name, mail, password, workspace, isProven }: NewAccount,
): Promise<AccountRow> {
  checkStrength(password, { mail, words: [name, workspace] })
  const madeAt = parts.clock()
  return newAccountRow({
    id: parts.newId() as AccountId,
    mail: mail.toLowerCase(),
    name,
    passwordHash: await hashOf(password),
    madeAt,
    provenAt: isProven ? madeAt : null,
  })
}

export async function sessionView(
  parts: Parts,
  account: AccountId | undefined,
  csrf: string,
): Promise<SessionView> {
  const row =
    account === undefined ? null : await parts.writer.tables.accounts.findByPk(account, { raw: true })
  const found = row as unknown as AccountRow | null
  const here = found === null ? [] : await workspacesOf(parts, found.id)
  return {
    isSetUp: parts.writer.states.heads.size > 0,
    isDemo: parts.config.isDemo,
    account:
      found === null
        ? null
        : { name: found.name, mail: found.mail, language: found.language, timeZone: found.timeZone },
    workspaces: here.map(({ name, slug }) => ({ name, slug })),
    invitations: found?.provenAt == null ? [] : await waitingFor(parts, found.mail),
    mayMakeWorkspaces: here.some(({ kind }) => kind === 'member'),
    csrf,
  }
}

/** The open invitations to an address, whose holder it was shown to be. */
async function waitingFor(parts: Parts, mail: string): Promise<WaitingInvitation[]> {
  const snapshots = await snapshotsOf(parts, await workspacesInviting(parts.writer.tables, mail))
  return snapshots.flatMap(snapshot =>
    rowsBy(snapshot.state.persons, 'mail', mail).flatMap(person => {
      const [invitation] = rowsBy(snapshot.state.invitations, 'person', person.id)
      if (invitation === undefined || invitation.until <= parts.clock()) return []
      const { name, houseRules } = workspaceOf(snapshot.state)
      return [
        {
          id: invitation.id,
          workspace: name,
          by: nameOf(snapshot, invitation.by),
          as: person.kind,
          houseRules,
        },
      ]
    }),
  )
}

export async function accountView(parts: Parts, id: AccountId, session: string): Promise<AccountView> {
  const { mail, name, provenAt, language, timeZone, codeSince, recoveryCodes } = await accountRow(parts, id)
  return {
    mail,
    name,
    isProven: provenAt !== null,
    language,
    timeZone,
    twoStep:
      codeSince === null
        ? null
        : { since: codeSince, recoveryCodesLeft: (JSON.parse(recoveryCodes) as string[]).length },
    signIns: await signInViews(parts, id, session),
  }
}

export async function changeAccount(parts: Parts, id: AccountId, request: AccountRequest): Promise<void> {
  const { timeZone } = request
  if (timeZone != null && !isTimeZone(timeZone))
    throw problemOf('bad-input', { faults: [{ at: 'timeZone', message: 'This is not a time zone.' }] })
  await writeAccount(parts.writer, id, request)
}

/** Whoever changes how an account is signed in to shows anew that it is theirs: a sign-in left open is not enough. */
export async function checkHolder(
  parts: Parts,
  { account, whence }: { readonly account: AccountRow; readonly whence: Whence },
  { password, code }: Pick<PasswordRequest, 'password'> & { readonly code?: string | undefined },
): Promise<void> {
  await checkPassword(parts, { account, mail: account.mail, password, whence })
  await checkTwoStep(parts, account, { code, whence })
}

/** A new password ends every other sign-in: whoever knew the old one is out. */
export async function changePassword(
  parts: Parts,
  { id, session, whence }: { id: AccountId; session: string; whence: Whence },
  { password, code, next }: NewPasswordRequest,
): Promise<void> {
  const account = await accountRow(parts, id)
  await checkHolder(parts, { account, whence }, { password, code })
  checkStrength(next, await passwordOf(parts, account))
  const { passwordHash } = account
  const isFirst = await writeAccountIf(
    parts.writer,
    { id, held: { passwordHash } },
    { passwordHash: await hashOf(next) },
  )
  if (!isFirst) throw problemOf('wrong-sign-in')
  await endSignInsBut(parts, id, session)
}
