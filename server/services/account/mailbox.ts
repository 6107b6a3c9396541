import { Op } from 'sequelize'
import type { MailView } from '#contract/views/account.ts'
import type { MailRow } from '../../store/tables.ts'
import type { Parts } from '../../parts.ts'

/** What was handed over, newest first. */
export async function mailbox(parts: Parts): Promise<MailView[]> {
  const rows = (await parts.writer.tables.mails.findAll({
    where: { sentAt: { [Op.ne]: null } },
    order: [['id', 'DESC']],
    limit: 100,
    raw: true,
  })) as unknown as MailRow[]
  return rows.map(({ id, to, subject, text, madeAt }) => ({ id, to, subject, text, at: madeAt }))
}
