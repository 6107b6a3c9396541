import type { AccountId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import type { Commit, RowChange } from './commit.ts'
import type { Follower } from './log.ts'
import type { AccountNews, News } from './news.ts'
import type { AccountRow, Tables } from './tables.ts'
import { submit, type Writer } from './writer.ts'

/** An account as it begins: without a second step, its dates as most here write them. */
export const newAccountRow = (
  account: Pick<AccountRow, 'id' | 'mail' | 'name' | 'passwordHash' | 'madeAt' | 'provenAt'>,
): AccountRow => ({
  ...account,
  codeSecret: null,
  codeSince: null,
  codeStep: null,
  recoveryCodes: '[]',
  language: 'en-GB',
  timeZone: null,
})

/** What is written together with a new account. */
export const withAccount = <T, E>(commit: Commit<T, E>, row: AccountRow): Commit<T, E> => ({
  ...commit,
  rows: [{ kind: 'put', table: 'accounts', rows: [row] }, ...(commit.rows ?? [])],
  news: [...newsOf(row.id, row), ...(commit.news ?? [])],
})

/** Changes what is kept of one account. */
export async function writeAccount(
  writer: Writer,
  id: AccountId,
  fields: Partial<AccountRow>,
): Promise<void> {
  await writeAccountIf(writer, { id, held: {} }, fields)
}

/**
 * The same where the account still holds what was read: false if somebody was first. What may count once is written so,
 * and not looked for before.
 */
export async function writeAccountIf(
  writer: Writer,
  { id, held }: { readonly id: AccountId; readonly held: Partial<AccountRow> },
  fields: Partial<AccountRow>,
): Promise<boolean> {
  const result = await submit(writer, () =>
    ok({
      value: undefined,
      conditions: [{ table: 'accounts', where: { id, ...held }, atLeast: 1, orElse: 'outrun' as const }],
      rows: [accountUpdate(id, fields)],
      news: newsOf(id, fields),
    }),
  )
  return result.ok
}

export const accountUpdate = (id: AccountId, fields: Partial<AccountRow>): RowChange => ({
  kind: 'update',
  table: 'accounts',
  where: { id },
  fields,
})

/** What a change of these fields tells of what each request is asked about. */
export function newsOf(account: AccountId, { codeSince, provenAt }: Partial<AccountRow>): readonly News[] {
  if (codeSince === undefined && provenAt === undefined) return []
  const news: AccountNews = {
    of: 'account',
    account,
    ...(codeSince === undefined ? {} : { hasTwoStep: codeSince !== null }),
    ...(provenAt === undefined ? {} : { isConfirmed: provenAt !== null }),
  }
  return [news]
}

/** What each request is asked about accounts, kept beside the table. */
export interface AccountSets {
  /** Those that have a second step. */
  readonly secured: Set<AccountId>
  /** Those whose address nobody has confirmed. */
  readonly unproven: Set<AccountId>
}

export const followerOfAccounts = ({ accounts }: Tables, { secured, unproven }: AccountSets): Follower => ({
  load: async () => {
    const rows = (await accounts.findAll({
      attributes: ['id', 'codeSince', 'provenAt'],
      raw: true,
    })) as unknown as Pick<AccountRow, 'id' | 'codeSince' | 'provenAt'>[]
    for (const { id, codeSince, provenAt } of rows) {
      mark(secured, id, codeSince !== null)
      mark(unproven, id, provenAt === null)
    }
  },
  hear: ({ news }) => {
    for (const each of news)
      if (each.of === 'account') {
        if (each.hasTwoStep !== undefined) mark(secured, each.account, each.hasTwoStep)
        if (each.isConfirmed !== undefined) mark(unproven, each.account, !each.isConfirmed)
      }
  },
})

function mark<T>(set: Set<T>, item: T, isIn: boolean): void {
  if (isIn) set.add(item)
  else set.delete(item)
}
