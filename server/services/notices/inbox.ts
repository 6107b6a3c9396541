import type { NoticeChoiceRequest, ReadNoticesRequest } from '#contract/requests.ts'
import type { NoticesView } from '#contract/oversight-views.ts'
import type { Parts } from '../../parts.ts'
import type { Batch } from '../../store/batch.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../asker.ts'
import { keepBook } from '../bookkeeping.ts'
import { choiceOf, keepChoice } from './choices.ts'
import { kindOf, noticeKinds } from './list.ts'
import { newestOf, outdate } from './newest.ts'

/** What a person was told, newest first, as far as it may still be told. */
export async function noticesView(parts: Parts, asker: Asker): Promise<NoticesView> {
  const { workspace, person } = asker
  const rows = await newestOf(parts, asker)
  const notices = rows.flatMap(({ id, kind, at, data, readAt }) => {
    const told = kindOf(kind)?.tell(asker, JSON.parse(data))
    return told === undefined
      ? []
      : [{ id, kind, at, isRead: readAt !== null, team: null, to: null, offer: null, ...told }]
  })
  return {
    notices,
    unread: notices.filter(each => !each.isRead).length,
    choices: noticeKinds
      .filter(({ reaches }) => reaches?.(asker) ?? true)
      .map(({ kind, when, preset }) => ({
        kind,
        when,
        choice: choiceOf(parts, { workspace, person, kind }, preset),
      })),
  }
}

/** Marks one's own notices; bookkeeping, so no history. */
export async function markNotices(
  parts: Parts,
  asker: Asker,
  { ids, isRead }: ReadNoticesRequest,
): Promise<NoticesView> {
  const { workspace, person } = asker
  const where = { workspace, person, ...(ids === undefined ? {} : { id: [...ids] }) }
  const write = async ({ transaction }: Batch) => {
    await parts.writer.tables.notices.update(
      { readAt: isRead ? parts.clock() : null },
      { where, transaction },
    )
    outdate(parts, { workspace, person })
  }
  await keepBook(parts, asker, { write })
  return noticesView(parts, asker)
}

export async function chooseNotices(
  parts: Parts,
  asker: Asker,
  { kind, choice }: NoticeChoiceRequest,
): Promise<NoticesView> {
  if (kindOf(kind) === undefined) throw problemOf('not-found')
  const chosen = { workspace: asker.workspace, person: asker.person, kind }
  const write = async ({ transaction }: Batch) => {
    await parts.writer.tables.noticeChoices.upsert({ ...chosen, choice }, { transaction })
  }
  await keepBook(parts, asker, { write })
  keepChoice(parts, chosen, choice)
  return noticesView(parts, asker)
}
