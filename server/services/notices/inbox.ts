import type { NoticeChoiceRequest, ReadNoticesRequest } from '#contract/requests.ts'
import type { NoticesView } from '#contract/oversight-views.ts'
import { ok } from '#core/base/result.ts'
import { announce } from '../../live/hub.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { NoticeRow } from '../../store/tables.ts'
import { type Prepared, submit } from '../../store/writer.ts'
import type { Asker } from '../asker.ts'
import { choicesOf } from './choices.ts'
import { kindOf, noticeKinds } from './list.ts'

const shownAtMost = 200

/** What a person was told, newest first, as far as it may still be told. */
export async function noticesView(parts: Parts, asker: Asker): Promise<NoticesView> {
  const { workspace, person } = asker
  const rows = (await parts.writer.tables.notices.findAll({
    where: { workspace, person },
    order: [['id', 'DESC']],
    limit: shownAtMost,
    raw: true,
  })) as unknown as NoticeRow[]
  const notices = rows.flatMap(({ id, kind, at, data, readAt }) => {
    const told = kindOf(kind)?.tell(asker, JSON.parse(data))
    return told === undefined
      ? []
      : [{ id, kind, at, isRead: readAt !== null, team: null, to: null, ...told }]
  })
  const chosen = await choicesOf(parts, { workspace, people: [person] })
  return {
    notices,
    unread: notices.filter(each => !each.isRead).length,
    choices: noticeKinds.map(({ kind, when }) => ({ kind, when, choice: chosen(person, kind) })),
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
  await keep(parts, asker, async transaction => {
    await parts.writer.tables.notices.update(
      { readAt: isRead ? parts.clock() : null },
      { where, transaction },
    )
  })
  return noticesView(parts, asker)
}

export async function chooseNotices(
  parts: Parts,
  asker: Asker,
  { kind, choice }: NoticeChoiceRequest,
): Promise<NoticesView> {
  if (kindOf(kind) === undefined) throw problemOf('not-found')
  const { workspace, person } = asker
  await keep(parts, asker, async transaction => {
    await parts.writer.tables.noticeChoices.upsert({ workspace, person, kind, choice }, { transaction })
  })
  return noticesView(parts, asker)
}

/** Written without a change of the state; the person's other pages hear of it. */
async function keep(parts: Parts, asker: Asker, write: Prepared<void>['write']): Promise<void> {
  const { workspace, person, moment } = asker
  const after = () =>
    announce(parts.hub, {
      workspace,
      revision: moment.state.revision,
      concerns: reader => reader.person === person,
    })
  await submit(parts.writer, () => ok({ value: undefined, write, after }))
}
