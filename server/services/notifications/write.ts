import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import { type Steps, toEnd } from '#core/changes/steps.ts'
import { workspaceOf } from '#core/state/state.ts'
import { letter } from '../../mail/template.ts'
import type { Parts } from '../../parts.ts'
import type { RowChange } from '../../store/commit.ts'
import type { News } from '../../store/news.ts'
import type { NotificationRow } from '../../store/tables.ts'
import { readerAt } from '../viewer/asker.ts'
import { choiceOf } from './choices.ts'
import type { Written } from './kind.ts'
import { kindOf, notificationKinds } from './list.ts'

/** Who is told what by what was written: rows without an id yet known to nobody. */
export const notificationsOf = (parts: Parts, workspace: WorkspaceId, written: Written): NotificationRow[] =>
  toEnd(notificationsIn(parts, workspace, written))

/** The same in steps: it may be very many. */
export function* notificationsIn(
  parts: Parts,
  workspace: WorkspaceId,
  written: Written,
): Steps<NotificationRow[]> {
  const rows: NotificationRow[] = []
  for (const { kind, find } of notificationKinds)
    for (const { person, data } of find(written)) {
      if (rows.length % rowsAtOnce === 0) yield 0
      const row = { workspace, id: parts.newId(), person, kind, at: written.after.at, readAt: null }
      rows.push({ ...row, data: JSON.stringify(data) })
    }
  return rows
}

const rowsAtOnce = 50

/** What some notifications are written with: the rows, the mails, and who hears of it. */
export interface Telling {
  readonly rows: readonly RowChange[]
  readonly news: readonly News[]
  readonly mails: number
}

/**
 * Notifications with their mails, as each person has chosen: written with what they are about, so that neither goes out
 * without the other.
 */
export const telling = (
  parts: Parts,
  given: { readonly rows: readonly NotificationRow[]; readonly written: Written },
): Telling => toEnd(tellingIn(parts, given))

/** The same in steps. */
export function* tellingIn(
  parts: Parts,
  { rows, written }: { readonly rows: readonly NotificationRow[]; readonly written: Written },
): Steps<Telling> {
  const [first] = rows
  if (first === undefined) return { rows: [], news: [], mails: 0 }
  const { workspace } = first
  const chosen = (row: NotificationRow) => choiceOf(parts, row, kindOf(row.kind)?.preset)
  const byPerson = new Map<PersonId, NotificationRow[]>()
  for (const row of rows)
    if (chosen(row) === 'by mail too') byPerson.set(row.person, [...(byPerson.get(row.person) ?? []), row])
  const mails: object[] = []
  for (const [person, mailed] of byPerson) {
    yield 0
    mails.push(...mailOf(parts, { workspace, person, mailed, written }))
  }
  const kept = rows.filter(row => chosen(row) !== 'not at all')
  const people = [...new Set(rows.map(row => row.person))]
  return {
    rows: [
      { kind: 'put', table: 'notifications', rows: kept },
      { kind: 'put', table: 'mails', rows: mails },
    ],
    news: [
      { of: 'notifications', workspace, people },
      ...(mails.length > 0 ? [{ of: 'mails' } as const] : []),
    ],
    mails: mails.length,
  }
}

interface Mailed {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly mailed: readonly NotificationRow[]
  readonly written: Written
}

/** One mail for all that one commit tells a person. */
function mailOf(parts: Parts, { workspace, person, mailed, written: { after } }: Mailed) {
  const reader = readerAt(workspace, after, person)
  if (reader === undefined) return []
  const texts = mailed.flatMap(row => kindOf(row.kind)?.tell(reader, JSON.parse(row.data)) ?? [])
  const [first] = texts
  if (first === undefined) return []
  const { name, slug } = workspaceOf(after.state)
  const base = `${parts.config.baseUrl}/at/${slug}`
  const links = texts.flatMap(each => (each.place === null ? [] : [`${base}/content/${each.place.id}`]))
  const lines = [
    ...texts.map(each => each.text),
    ...[...new Set(links)].map(address => ({ address })),
    `You get this mail from the workspace ${name}. Choose which notifications come by mail:`,
    { address: `${base}/notifications` },
  ]
  return [
    letter(parts, { workspace, to: reader.subject.person.mail, subject: first.text, lines, at: after.at }),
  ]
}
