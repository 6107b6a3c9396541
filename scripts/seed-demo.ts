import type { Transaction } from 'sequelize'
import { pino } from 'pino'
import { nearingIn, theWorkspace } from '#core/changes/scheduled.ts'
import { nearness } from '#core/state/dates.ts'
import { recordOf } from '#core/impact/bulk.ts'
import { demoAccounts, demoTexts, generateDemo, type Made } from '#demo/generate.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { openParts } from '#server/assemble.ts'
import { type Config, readConfig } from '#server/config.ts'
import type { Parts } from '#server/parts.ts'
import { nothingWritten } from '../server/services/notifications/kind.ts'
import { notificationsOf } from '#server/services/notifications/write.ts'
import type { CommentRow, NotificationRow } from '#server/store/tables.ts'
import { hashOf } from '#server/services/account/password.ts'
import { placesChanged } from '#server/services/changes/place-changes.ts'
import { entryRows } from '#server/services/changes/audit-entry.ts'
import type { RowChange } from '#server/store/commit.ts'
import { pageText } from '#server/store/content/page-text.ts'
import { beginWriting } from '#server/store/database.ts'
import { writeRows } from '#server/store/rows.ts'
import { newAccountRow } from '#server/store/accounts.ts'
import type { Tables } from '#server/store/tables.ts'
import { noteLastSeen } from '#server/store/sessions.ts'
import type { AccountId, WorkspaceId } from '#core/base/ids.ts'
import { type State, workspaceOf } from '#core/state/state.ts'
import { demoCells } from '#demo/cells.ts'
import { demoComments } from '#demo/comments.ts'
import { mentionOf } from '#contract/mentions.ts'
import { type CellWrite, type StoredCell, writeCells } from '#server/store/content/row-cells.ts'
import { writeFiles } from './demo-files.ts'

/** Fills an empty data folder with the demo workspace; one that holds a workspace is left as it is. */
export async function seedDemo(config: Config, now: number): Promise<void> {
  const { parts, close } = await openParts({ config, log: pino({ level: 'silent' }), clock: () => now })
  const { tables, states } = parts.writer
  if (states.heads.size === 0) {
    const { sets, state } = generateDemo(now)
    const workspace = workspaceOf(state).id
    const passwordHash = await hashOf(demoPassword)
    await beginWriting(tables.database, async transaction => {
      const accounts = demoAccounts.map(account =>
        newAccountRow({ ...account, id: account.id as AccountId, passwordHash, madeAt: now, provenAt: now }),
      )
      await tables.accounts.bulkCreate(accounts as never, { transaction })
      for (const set of sets) {
        const entry = { ...set, workspace, undone: null, sentAlong: {} }
        await writeRows(tables, entryRows(entry, recordOf(set.transition)), transaction)
      }
      const notifications = notificationsIn(parts, sets, now)
      if (notifications.length > 0)
        await tables.notifications.bulkCreate(notifications as never, { transaction })
      await tables.appliedTransitions.create({ workspace, at: now }, { transaction })
      await writeTexts(tables, { workspace, now, transaction })
      await writeFiles(parts, { state, transaction })
      await writeDemoCells(tables, { state, workspace, now, transaction })
      await writeComments(tables, { workspace, now, transaction })
    })
    // Somebody was here last when they last did something.
    for (const { author: who, after } of sets)
      if (who !== theWorkspace) noteLastSeen(parts.sessions, { workspace, who, at: after.at })
  }
  await close()
}

/** Each row of the demo's boards was written once. */
async function writeDemoCells(
  tables: Tables,
  { state, workspace, now, transaction }: Seeding & { readonly state: State },
): Promise<void> {
  const writes = demoCells(state, now).map(({ node, by, at, cells }): CellWrite => {
    const stored = Object.entries(cells).map(
      ([column, value]) => [column, [value, at, by, 0] as StoredCell] as const,
    )
    const changes = stored.map(([column, cell]) => [column, [null, cell]] as const)
    const written = Object.fromEntries(stored)
    return { node, version: 1, at, by, cells: written, changes: Object.fromEntries(changes) }
  })
  await writeRows(tables, writeCells(workspace, writes, null).rows, transaction)
}

/** What was said about rows begins with whom it is for. */
async function writeComments(tables: Tables, { workspace, now, transaction }: Seeding): Promise<void> {
  const rows = demoComments(now).map(
    ({ id, node, thread, by: madeBy, at: madeAt, text, mentions, resolvedAt }): CommentRow => ({
      workspace,
      id,
      node,
      thread,
      text: [...mentions.map(mentionOf), text].join(' '),
      madeAt,
      madeBy,
      editedAt: null,
      resolvedAt,
      resolvedBy: resolvedAt === null ? null : madeBy,
      removedAt: null,
      removedBy: null,
    }),
  )
  await writeRows(tables, [{ kind: 'put', table: 'comments', rows }], transaction)
}

const days = 86_400_000

interface Seeding {
  readonly workspace: WorkspaceId
  readonly now: number
  readonly transaction: Transaction
}

/** The demo's pages were written over the last weeks, a few days apart. */
async function writeTexts(tables: Tables, { workspace, now, transaction }: Seeding): Promise<void> {
  const rows = demoTexts.flatMap(({ node, text, by: changedBy }, index): RowChange[] => {
    const changedAt = now - (2 + ((index * 7) % 40)) * days - index * 1_260_000
    const row = { workspace, node, version: 1, text, changedAt, changedBy }
    return [
      ...pageText.write(row, null).rows,
      placesChanged({ workspace, at: changedAt, by: changedBy, places: [node] }),
    ]
  })
  await writeRows(tables, rows, transaction)
}

/** What people were told in the last weeks; what is older they have read. No mail goes out for it. */
function notificationsIn(parts: Parts, sets: readonly Made[], now: number): NotificationRow[] {
  const last = sets.at(-1)
  if (last === undefined) return []
  const { id } = workspaceOf(last.after.state)
  const lately = sets.filter(set => set.after.at > now - 60 * days)
  const told = lately.flatMap(({ author, transition, after }) => {
    const { before, changes } = transition
    const impact = recordOf(transition).differences
    return notificationsOf(parts, id, { ...nothingWritten(author, after), before, changes, impact: impact })
  })
  const snapshot = { state: last.after.state, at: now }
  const near = notificationsOf(parts, id, {
    ...nothingWritten(theWorkspace, snapshot),
    nearing: nearingIn(snapshot.state, now - nearness, now),
  })
  return [...told, ...near].map(row => ({ ...row, readAt: row.at < now - 10 * days ? row.at : null }))
}

if (process.argv[1] === import.meta.filename) await seedDemo(readConfig(process.env, true), Date.now())
