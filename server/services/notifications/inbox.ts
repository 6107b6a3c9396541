import type { NotificationChoiceRequest, ReadNotificationsRequest } from '#contract/requests.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { writeBookkeeping } from './bookkeeping.ts'
import { choiceOf } from './choices.ts'
import { kindOf, notificationKinds } from './list.ts'
import { newestOf } from './newest.ts'

/** What a person was told, newest first, as far as it may still be told. */
export async function notificationsView(parts: Parts, asker: Asker): Promise<NotificationsView> {
  const { workspace, person } = asker
  const rows = await newestOf(parts, asker)
  const notifications = rows.flatMap(({ id, kind, at, data, readAt }) => {
    const text = kindOf(kind)?.tell(asker, JSON.parse(data))
    return text === undefined
      ? []
      : [{ id, kind, at, isRead: readAt !== null, team: null, to: null, offer: null, ...text }]
  })
  return {
    notifications,
    unread: notifications.filter(each => !each.isRead).length,
    choices: notificationKinds
      .filter(({ reaches }) => reaches?.(asker) ?? true)
      .map(({ kind, when, preset }) => ({
        kind,
        when,
        choice: choiceOf(parts, { workspace, person, kind }, preset),
      })),
  }
}

/** Marks one's own notifications; bookkeeping, so no history. */
export async function markNotifications(
  parts: Parts,
  asker: Asker,
  { ids, isRead }: ReadNotificationsRequest,
): Promise<NotificationsView> {
  const { workspace, person } = asker
  const where = { workspace, person, ...(ids === undefined ? {} : { id: [...ids] }) }
  const fields = { readAt: isRead ? parts.clock() : null }
  await writeBookkeeping(parts, asker, {
    topics: ['notifications'],
    rows: [{ kind: 'update', table: 'notifications', where, fields }],
    news: [{ of: 'notifications', workspace, people: [person] }],
  })
  return notificationsView(parts, asker)
}

export async function chooseNotifications(
  parts: Parts,
  asker: Asker,
  { kind, choice }: NotificationChoiceRequest,
): Promise<NotificationsView> {
  if (kindOf(kind) === undefined) throw problemOf('not-found')
  const chosen = { workspace: asker.workspace, person: asker.person, kind, choice }
  await writeBookkeeping(parts, asker, {
    topics: ['notifications'],
    rows: [{ kind: 'put', table: 'notificationChoices', rows: [chosen], replaced: ['choice'] }],
    news: [{ of: 'choice', ...chosen }],
  })
  return notificationsView(parts, asker)
}
