import { isTimeZone } from '#contract/dates.ts'
import type { AccountView, WaitingInvitation } from '#contract/account-views.ts'
import type { AccountRequest, NewPasswordRequest, SignInRequest } from '#contract/requests.ts'
import type { SessionView } from '#contract/views.ts'
import type { AccountId } from '#core/base/ids.ts'
import { rowsBy } from '#core/base/collection.ts'
import { isActive } from '#core/access/subject.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Person } from '#core/people/person.ts'
import { type Moment, workspaceOf } from '#core/state/state.ts'
import { newAccountRow, writeAccount } from '../store/accounts.ts'
import { momentAt } from '../store/states.ts'
import type { AccountRow } from '../store/tables.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { nameOf } from './asker.ts'
import { fits, hashOf, isWeak } from './password.ts'
import { takeCode } from './second-step.ts'
import { endSignInsBut, signInViews } from './sign-ins.ts'
import { forgetMisses, holdBack, noteMiss } from './slow-down.ts'

/** The account that an address and a password open; the same refusal whichever of them is wrong. */
export async function signIn(parts: Parts, { mail, password, code }: SignInRequest): Promise<AccountId> {
  const account = await accountByMail(parts, mail)
  await checkPassword(parts, { account, mail, password })
  if (account === undefined) throw problemOf('wrong-sign-in')
  await checkSecondStep(parts, account, code)
  return account.id
}

/** Throws unless the password is right. Wrong ones are counted for the address, whether somebody has it or not. */
export async function checkPassword(
  parts: Parts,
  { account, mail, password }: { account: AccountRow | undefined; mail: string; password: string },
): Promise<void> {
  const tried = `password ${mail.trim().toLowerCase()}`
  holdBack(parts, tried)
  if (await fits(password, account?.passwordHash)) {
    forgetMisses(parts, tried)
    return
  }
  noteMiss(parts, tried)
  throw problemOf('wrong-sign-in')
}

/** Asks for the code where there is a second step; takes it. */
export async function checkSecondStep(
  parts: Parts,
  account: AccountRow,
  code: string | undefined,
): Promise<void> {
  if (account.codeSince === null) return
  if (code === undefined) throw problemOf('second-step')
  await takeCode(parts, account, code)
}

export async function accountByMail(parts: Parts, mail: string): Promise<AccountRow | undefined> {
  const found = await parts.writer.tables.accounts.findOne({
    where: { mail: mail.trim().toLowerCase() },
    raw: true,
  })
  return found === null ? undefined : (found as unknown as AccountRow)
}

export async function accountRow(parts: Parts, id: AccountId): Promise<AccountRow> {
  const found = await parts.writer.tables.accounts.findByPk(id, { raw: true })
  if (found === null) throw problemOf('not-signed-in')
  return found as unknown as AccountRow
}

interface NewAccount {
  readonly name: string
  readonly mail: string
  readonly password: string
  /** Whether coming here showed that the address is theirs. */
  readonly isProven: boolean
}

/** A new account, not written yet. */
export async function newAccount(
  parts: Parts,
  { name, mail, password, isProven }: NewAccount,
): Promise<AccountRow> {
  if (isWeak(password, mail)) throw problemOf('weak-password')
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
  const persons = found === null ? [] : personsOf(parts, found.id)
  return {
    isSetUp: parts.writer.states.published.size > 0,
    isDemo: parts.config.isDemo,
    account:
      found === null
        ? null
        : { name: found.name, mail: found.mail, language: found.language, timeZone: found.timeZone },
    workspaces: persons.map(({ moment }) => {
      const { name, slug } = workspaceOf(moment.state)
      return { name, slug }
    }),
    invitations: found?.provenAt == null ? [] : waitingFor(parts, found.mail),
    mayMakeWorkspaces: persons.some(({ person }) => person.kind === 'member'),
    csrf,
  }
}

interface Here {
  readonly moment: Moment
  readonly person: Person
}

/** Where an account is in, as whom; by the names of the workspaces. */
export function personsOf(parts: Parts, account: AccountId): Here[] {
  const found = momentsOf(parts).flatMap(moment => {
    const person = rowsBy(moment.state.persons, 'account', account).find(each => isActive(moment, each))
    return person === undefined ? [] : [{ moment, person }]
  })
  return found.sort((a, b) =>
    compareWords(workspaceOf(a.moment.state).name, workspaceOf(b.moment.state).name),
  )
}

const momentsOf = (parts: Parts): Moment[] =>
  [...parts.writer.states.published.keys()].flatMap(
    id => momentAt(parts.writer.states, id, parts.clock()) ?? [],
  )

/** The open invitations to an address, whose holder it was shown to be. */
function waitingFor(parts: Parts, mail: string): WaitingInvitation[] {
  return momentsOf(parts).flatMap(moment =>
    rowsBy(moment.state.persons, 'mail', mail).flatMap(person => {
      const [invitation] = rowsBy(moment.state.invitations, 'person', person.id)
      if (invitation === undefined || invitation.until <= parts.clock()) return []
      const { name, houseRules } = workspaceOf(moment.state)
      return [
        {
          id: invitation.id,
          workspace: name,
          by: nameOf(moment, invitation.by),
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
    secondStep:
      codeSince === null
        ? null
        : { since: codeSince, recoveryCodesLeft: (JSON.parse(recoveryCodes) as string[]).length },
    signIns: await signInViews(parts, id, session),
  }
}

export async function changeAccount(parts: Parts, id: AccountId, request: AccountRequest): Promise<void> {
  const { timeZone } = request
  if (timeZone != null && !isTimeZone(timeZone))
    throw problemOf('bad-input', { faults: [{ at: 'timeZone', message: 'is not a time zone' }] })
  await writeAccount(parts.writer, id, request)
}

/** A new password ends every other sign-in: whoever knew the old one is out. */
export async function changePassword(
  parts: Parts,
  { id, session }: { id: AccountId; session: string },
  { password, next }: NewPasswordRequest,
): Promise<void> {
  const account = await accountRow(parts, id)
  await checkPassword(parts, { account, mail: account.mail, password })
  if (isWeak(next, account.mail)) throw problemOf('weak-password')
  await writeAccount(parts.writer, id, { passwordHash: await hashOf(next) })
  await endSignInsBut(parts, id, session)
}
