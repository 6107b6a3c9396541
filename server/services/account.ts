import { isTimeZone } from '#contract/dates.ts'
import type { SetUpRequest, SignInRequest } from '#contract/requests.ts'
import type { SessionView } from '#contract/views.ts'
import type { AccountId, GrantId, HoldingId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { rowsBy } from '#core/base/collection.ts'
import { ok, refused } from '#core/base/result.ts'
import { isActive } from '#core/access/subject.ts'
import { foundWorkspace } from '#core/changes/found.ts'
import { momentOf } from '#core/state/moment.ts'
import { emptyState, workspaceOf } from '#core/state/state.ts'
import { momentAt } from '../store/states.ts'
import type { AccountRow } from '../store/tables.ts'
import { submit } from '../store/writer.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { writeJudged } from './change.ts'
import { fits, hashOf, isWeak } from './password.ts'

/** The account that an address and a password open; the same refusal whichever of them is wrong. */
export async function signIn(parts: Parts, { mail, password }: SignInRequest): Promise<AccountId> {
  const account = await accountByMail(parts, mail)
  if (!(await fits(password, account?.passwordHash)) || account === undefined)
    throw problemOf('wrong-sign-in')
  return account.id
}

export async function accountByMail(parts: Parts, mail: string): Promise<AccountRow | undefined> {
  const found = await parts.writer.tables.accounts.findOne({
    where: { mail: mail.trim().toLowerCase() },
    raw: true,
  })
  return found === null ? undefined : (found as unknown as AccountRow)
}

/** A new account, not written yet. */
export async function newAccount(
  parts: Parts,
  { name, mail, password }: { name: string; mail: string; password: string },
): Promise<AccountRow> {
  if (isWeak(password, mail)) throw problemOf('weak-password')
  const id = parts.newId() as AccountId
  return { id, mail: mail.toLowerCase(), name, passwordHash: await hashOf(password), madeAt: parts.clock() }
}

export async function sessionView(
  parts: Parts,
  account: AccountId | undefined,
  csrf: string,
): Promise<SessionView> {
  const row =
    account === undefined ? null : await parts.writer.tables.accounts.findByPk(account, { raw: true })
  const found = row as unknown as AccountRow | null
  return {
    isSetUp: parts.writer.states.published.size > 0,
    isDemo: parts.config.isDemo,
    account: found === null ? null : { name: found.name, mail: found.mail },
    workspaces: found === null ? [] : workspacesOf(parts, found.id),
    csrf,
  }
}

function workspacesOf(parts: Parts, account: AccountId): SessionView['workspaces'] {
  return [...parts.writer.states.published.keys()].flatMap(id => {
    const moment = momentAt(parts.writer.states, id, parts.clock())
    if (moment === undefined) return []
    const isIn = rowsBy(moment.state.persons, 'account', account).some(person => isActive(moment, person))
    const { name, slug } = workspaceOf(moment.state)
    return isIn ? [{ name, slug }] : []
  })
}

/** First start: the workspace, its Owner, and nothing else. Only while there is none. */
export async function setUp(parts: Parts, request: SetUpRequest): Promise<AccountId> {
  if (!isTimeZone(request.timeZone))
    throw problemOf('bad-input', { faults: [{ at: 'timeZone', message: 'is not a time zone' }] })
  const account = await newAccount(parts, request)
  const founding = {
    workspace: parts.newId() as WorkspaceId,
    name: request.workspace.trim(),
    slug: slugOf(request.workspace),
    timeZone: request.timeZone,
    at: parts.clock(),
    root: parts.newId() as NodeId,
    owner: {
      person: parts.newId() as PersonId,
      account: account.id,
      holding: parts.newId() as HoldingId,
      name: request.name.trim(),
      mail: account.mail,
      folder: parts.newId() as NodeId,
      grant: parts.newId() as GrantId,
    },
  }
  const result = await submit(parts.writer, ({ now }) => {
    if (parts.writer.states.published.size > 0) return refused('already-set-up' as const)
    const written = writeJudged(parts, {
      workspace: founding.workspace,
      before: momentOf(emptyState, now),
      changeSet: { author: founding.owner.person, reason: 'The workspace is created', edits: [] },
      judged: foundWorkspace(founding),
    })
    return ok({
      ...written,
      write: async transaction => {
        await parts.writer.tables.accounts.create({ ...account }, { transaction })
        await written.write(transaction)
      },
    })
  })
  if (!result.ok) throw problemOf(result.error)
  return account.id
}

/** How a name stands in addresses. */
export function slugOf(name: string): string {
  const plain = name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
  const slug = plain.replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '')
  return slug.slice(0, 40) || 'workspace'
}
