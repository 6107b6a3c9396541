import { QueryTypes, type Sequelize } from 'sequelize'
import { type KeptEdit, rewriteHistory } from './history.ts'
import type { Migration } from './list.ts'

type Renaming = Readonly<Record<string, string>>

const role = { rung: 'rank', callable: 'addressable', free: 'seatExempt' }

/** Fields by their table; the history keeps records in the same form. */
const fields: Readonly<Record<string, Renaming>> = {
  roles: role,
  handovers: { word: 'reason' },
  looks: { word: 'reason' },
  workspaces: { secondFactorFor: 'twoStepFor' },
  drafts: { word: 'comment' },
  changeSets: { effect: 'impact' },
}

const tables: Renaming = {
  looks: 'viewingSessions',
  notices: 'notifications',
  noticeChoices: 'notificationChoices',
  passed: 'appliedTransitions',
}

/** Kinds of edit, as the history and drafts keep them, and their fields. */
const edits: Renaming = {
  'member.take': 'member.remove',
  'role.give': 'role.assign',
  'role.take': 'role.unassign',
  'person.turn': 'person.convert',
  'person.resume': 'person.reactivate',
  'look.begin': 'session.begin',
}
const editFields: Readonly<Record<string, Renaming>> = {
  'role.create': role,
  'role.change': role,
  'handover.offer': { word: 'reason' },
  'look.begin': { look: 'session', word: 'reason' },
  'workspace.change': { secondFactorFor: 'twoStepFor' },
}

const notificationKinds: Renaming = {
  asked: 'team requested',
  answered: 'team answered',
  'role asked': 'role requested',
  'access asked': 'access requested',
  'looked through': 'seen as',
}
const notificationFields: Readonly<Record<string, Renaming>> = {
  handed: { word: 'comment' },
  'looked through': { look: 'session' },
}

/** Things take their final names, the same in the interface, the API, the code and here. */
export const names: Migration = {
  name: '013-names',
  up: async database => {
    await renameTables(database)
    await rewriteHistory(database, {
      change: ({ table, before, after, ...change }) => {
        const now = (row: object | null) => (row === null ? null : renamed(row, fields[table]))
        return { table: tables[table] ?? table, ...change, before: now(before), after: now(after) }
      },
      edit: editNow,
    })
    await rewriteNotifications(database)
    await rewriteDrafts(database)
  },
}

async function renameTables(database: Sequelize): Promise<void> {
  for (const [table, renaming] of Object.entries(fields))
    for (const [from, to] of Object.entries(renaming))
      await database.query(`ALTER TABLE "${table}" RENAME COLUMN "${from}" TO "${to}"`)
  await database.query('DROP INDEX "noticesOfPerson"')
  for (const [from, to] of Object.entries(tables))
    await database.query(`ALTER TABLE "${from}" RENAME TO "${to}"`)
  await database.query('CREATE INDEX "notificationsOfPerson" ON notifications (workspace, person, id)')
}

const editNow = (edit: KeptEdit): KeptEdit => ({
  ...renamed(edit, editFields[edit.kind]),
  kind: edits[edit.kind] ?? edit.kind,
})

async function rewriteNotifications(database: Sequelize): Promise<void> {
  const rows = await database.query<{ workspace: string; id: string; kind: string; data: string }>(
    'SELECT workspace, id, kind, data FROM notifications WHERE kind IN (:kinds)',
    { type: QueryTypes.SELECT, replacements: { kinds: Object.keys(notificationFields) } },
  )
  for (const { workspace, id, kind, data } of rows) {
    const now = JSON.stringify(renamed(JSON.parse(data) as object, notificationFields[kind]))
    await database.query('UPDATE notifications SET data = ? WHERE workspace = ? AND id = ?', {
      replacements: [now, workspace, id],
    })
  }
  for (const [from, to] of Object.entries(notificationKinds))
    for (const table of ['notifications', 'notificationChoices'])
      await database.query(`UPDATE "${table}" SET kind = ? WHERE kind = ?`, { replacements: [to, from] })
}

/** A draft is a list of items, each a list of edits. */
async function rewriteDrafts(database: Sequelize): Promise<void> {
  const rows = await database.query<{ workspace: string; id: string; items: string }>(
    'SELECT workspace, id, items FROM drafts',
    { type: QueryTypes.SELECT },
  )
  for (const { workspace, id, items } of rows) {
    const now = (JSON.parse(items) as KeptEdit[][]).map(each => each.map(editNow))
    await database.query('UPDATE drafts SET items = ? WHERE workspace = ? AND id = ?', {
      replacements: [JSON.stringify(now), workspace, id],
    })
  }
}

const renamed = <T extends object>(value: T, renaming: Renaming = {}): T =>
  Object.fromEntries(Object.entries(value).map(([field, each]) => [renaming[field] ?? field, each])) as T
