import { isTimeZone } from '#contract/dates.ts'
import type { NewWorkspaceRequest, SetUpRequest } from '#contract/requests.ts'
import type { AccountId, GrantId, HoldingId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { ok, refused } from '#core/base/result.ts'
import { freeHandle } from '#core/changes/edits/handle.ts'
import { type Provisioning, provisionWorkspace } from '#core/changes/provisioning.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { emptyState } from '#core/records/all.ts'
import type { AccountRow } from '../../store/tables.ts'
import { withAccount } from '../../store/accounts.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { newAccount } from '../account/account.ts'
import { workspacesOf } from '../viewer/workspaces-of.ts'
import { accountRow } from '../account/account-row.ts'
import { type Failed, writeJudged } from '../changes/change.ts'

/** First start: the workspace, its Owner, and nothing else. Only while there is none. */
export async function setUp(parts: Parts, request: SetUpRequest): Promise<AccountId> {
  checkTimeZone(request.timeZone)
  // Whoever starts a Noskel of their own is taken at their word.
  const account = await newAccount(parts, { ...request, isProven: true })
  await found(parts, {
    account: { ...account, name: request.name.trim() },
    name: request.workspace,
    timeZone: request.timeZone,
    isFirst: true,
  })
  return account.id
}

/** Another workspace of an account that is a member somewhere; nothing of one is known in the other. */
export async function makeWorkspace(
  parts: Parts,
  id: AccountId,
  request: NewWorkspaceRequest,
): Promise<Slug> {
  checkTimeZone(request.timeZone)
  const here = await workspacesOf(parts, id)
  if (!here.some(({ kind }) => kind === 'member')) throw problemOf('guests-make-none')
  return found(parts, { account: await accountRow(parts, id), ...request, isFirst: false })
}

export interface Slug {
  readonly slug: string
}

interface Founded {
  readonly account: AccountRow
  readonly name: string
  readonly timeZone: string
  /** The account comes with it. */
  readonly isFirst: boolean
}

async function found(parts: Parts, { account, name, timeZone, isFirst }: Founded): Promise<Slug> {
  const { states } = parts.writer
  const result = await submit<Slug, 'already-set-up' | Failed>(parts.writer, ({ now }) => {
    if (isFirst && states.heads.size > 0) return refused('already-set-up' as const)
    const slug = freeSlug(name, states.bySlug)
    const founding: Provisioning = {
      workspace: parts.newId() as WorkspaceId,
      name: name.trim(),
      slug,
      timeZone,
      at: parts.clock(),
      root: parts.newId() as NodeId,
      owner: ownerOf(parts, account),
    }
    const written = writeJudged(parts, {
      workspace: founding.workspace,
      before: snapshotOf(emptyState, now),
      changeSet: { author: founding.owner.person, reason: 'The workspace is created', edits: [] },
      judged: provisionWorkspace(emptyState, founding),
    })
    const commit = { ...written, value: { slug } }
    return ok(isFirst ? withAccount(commit, account) : commit)
  })
  if (!result.ok) throw problemOf(result.error === 'already-set-up' ? result.error : result.error.problem)
  return result.value
}

const ownerOf = (parts: Parts, { id, name, mail }: AccountRow): Provisioning['owner'] => ({
  person: parts.newId() as PersonId,
  account: id,
  holding: parts.newId() as HoldingId,
  name,
  handle: freeHandle(emptyState, name),
  mail,
  folder: parts.newId() as NodeId,
  grant: parts.newId() as GrantId,
})

function checkTimeZone(timeZone: string): void {
  if (!isTimeZone(timeZone))
    throw problemOf('bad-input', { faults: [{ at: 'timeZone', message: 'This is not a time zone.' }] })
}

/** How a name stands in addresses; the second of a name gets a number. */
function freeSlug(name: string, taken: ReadonlyMap<string, unknown>): string {
  const plain = name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
  const slug = plain.replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '')
  const stem = slug.slice(0, 40) || 'workspace'
  for (let count = 1; ; count += 1) {
    const free = count === 1 ? stem : `${stem}-${count}`
    if (!taken.has(free)) return free
  }
}
