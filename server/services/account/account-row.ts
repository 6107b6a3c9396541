import type { AccountId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { AccountRow } from '../../store/tables.ts'

export async function accountByMail(parts: Parts, mail: string): Promise<AccountRow | undefined> {
  const found = await parts.writer.tables.accounts.findOne({
    where: { mail: mail.trim().toLowerCase() },
    raw: true,
  })
  return found === null ? undefined : (found as unknown as AccountRow)
}

/** The account of a sign-in; one that is no more signs nobody in. */
export async function accountRow(parts: Parts, id: AccountId): Promise<AccountRow> {
  const found = await parts.writer.tables.accounts.findByPk(id, { raw: true })
  if (found === null) throw problemOf('not-signed-in')
  return found as unknown as AccountRow
}
