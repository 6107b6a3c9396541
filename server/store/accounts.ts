import type { AccountId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
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

/** Changes what is kept of one account. */
export async function writeAccount(
  writer: Writer,
  id: AccountId,
  fields: Partial<AccountRow>,
): Promise<void> {
  await submit(writer, () =>
    ok({
      value: undefined,
      write: async ({ transaction }) => {
        await writer.tables.accounts.update(fields, { where: { id }, transaction })
      },
    }),
  )
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
  let isFirst = false
  await submit(writer, () =>
    ok({
      value: undefined,
      write: async ({ transaction }) => {
        const [count] = await writer.tables.accounts.update(fields, { where: { id, ...held }, transaction })
        isFirst = count === 1
      },
    }),
  )
  return isFirst
}

/** What each request is asked about accounts, kept beside the table: who has a second step, whose address is not confirmed. */
export async function accountSets(tables: Tables) {
  const rows = (await tables.accounts.findAll({
    attributes: ['id', 'codeSince', 'provenAt'],
    raw: true,
  })) as unknown as Pick<AccountRow, 'id' | 'codeSince' | 'provenAt'>[]
  return {
    secured: new Set(rows.filter(row => row.codeSince !== null).map(row => row.id)),
    unproven: new Set(rows.filter(row => row.provenAt === null).map(row => row.id)),
  }
}
