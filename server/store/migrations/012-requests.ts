import { QueryTypes, type Sequelize } from 'sequelize'
import { type Kept, type KeptEdit, rewriteHistory } from './history.ts'
import type { Migration } from './list.ts'

const deferred = 'DEFERRABLE INITIALLY DEFERRED'

/** Requests to join, for a role and for access were three kinds of record; they are one, by what they are for. */
export const requests: Migration = {
  name: '012-requests',
  up: async database => {
    const rows = [
      ...(await allOf(database, 'requests')),
      ...(await allOf(database, 'roleRequests')),
      ...(await allOf(database, 'accessRequests')),
    ]
    for (const table of ['requests', 'roleRequests', 'accessRequests'])
      await database.query(`DROP TABLE "${table}"`)
    await database.query(
      `CREATE TABLE requests (
        workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, wants TEXT NOT NULL, "at" BIGINT NOT NULL,
        reason TEXT NOT NULL, declined TEXT,
        PRIMARY KEY (workspace, id),
        FOREIGN KEY (workspace, person) REFERENCES persons (workspace, id) ${deferred})`,
    )
    for (const { workspace, id, person, wants, at, reason, declined } of rows)
      await database.query(
        'INSERT INTO requests (workspace, id, person, wants, "at", reason, declined) VALUES (?, ?, ?, ?, ?, ?, ?)',
        {
          replacements: [workspace, id, person, JSON.stringify(wants), at, reason, jsonOrNull(declined)],
        },
      )
    await rewriteHistory(database, { change: changeNow, edit: editNow })
    await rewriteNotices(database)
  },
}

const jsonOrNull = (value: unknown) => (value === null ? null : JSON.stringify(value))

type Fields = Readonly<Record<string, unknown>>

async function allOf(database: Sequelize, table: string): Promise<Fields[]> {
  const rows = await database.query<Fields>(`SELECT * FROM "${table}"`, { type: QueryTypes.SELECT })
  return rows.map(({ workspace, ...row }) => ({
    workspace,
    ...requestNow(table, { ...row, wants: parsed(table, row['wants']), declined: fromJson(row['declined']) }),
  }))
}

const parsed = (table: string, wants: unknown) => (table === 'roleRequests' ? fromJson(wants) : wants)

const fromJson = (value: unknown): unknown => (typeof value === 'string' ? JSON.parse(value) : value)

/** A record as it was, of one of the three kinds, as it is. */
function requestNow(table: string, { id, person, at, word, declined, ...row }: Fields): Fields {
  const answer = declined as { readonly word: string } | null
  return {
    id,
    person,
    wants: wantedNow(table, row),
    at,
    reason: word,
    declined: answer === null ? null : renamed(answer, 'word', 'comment'),
  }
}

function wantedNow(table: string, { team, wants, node }: Fields): Fields {
  if (table === 'requests') return { of: 'team', team }
  return table === 'accessRequests' ? { of: 'access', node, actions: wants } : roleNow(wants as object)
}

const roleNow = (wants: object): Fields => ({ of: 'role' in wants ? 'role' : 'privilege', ...wants })

const renamed = (value: object, from: string, to: string): Fields =>
  Object.fromEntries(Object.entries(value).map(([key, each]) => [key === from ? to : key, each]))

function changeNow(change: Kept): Kept {
  if (!/^(r|roleR|accessR)equests$/.test(change.table)) return change
  const now = (row: object | null) => (row === null ? null : requestNow(change.table, row as Fields))
  return { ...change, table: 'requests', before: now(change.before), after: now(change.after) }
}

/** An edit as it would be written now. */
function editNow(edit: KeptEdit): KeptEdit {
  const { kind, request, word, wants, gives, ...rest } = edit
  switch (kind) {
    case 'request.make':
      return { kind, request, wants: { of: 'team', ...rest }, reason: word }
    case 'role.ask':
      return { kind: 'request.make', request, wants: roleNow(wants as object), reason: word }
    case 'access.ask':
      return { kind: 'request.make', request, wants: { of: 'access', ...rest, actions: wants }, reason: word }
    case 'role.unask':
    case 'access.unask':
      return { kind: 'request.withdraw', request }
    case 'request.answer': {
      const { accepted, membership } = rest
      return answerNow(edit, accepted === true ? { of: 'team', membership } : null)
    }
    case 'role.answer':
      return answerNow(edit, gives === null ? null : { of: 'role', ...rest, ...(gives as object) })
    case 'access.answer':
      return answerNow(edit, gives === null ? null : { of: 'access', ...rest, ...(gives as object) })
    default:
      return edit
  }
}

const answerNow = ({ request, word }: KeptEdit, gives: object | null): KeptEdit =>
  gives === null
    ? { kind: 'request.decline', request, comment: word }
    : { kind: 'request.accept', request, gives, comment: word }

async function rewriteNotices(database: Sequelize): Promise<void> {
  const rows = await database.query<{ workspace: string; id: string; kind: string; data: string }>(
    `SELECT workspace, id, kind, data FROM notices WHERE kind IN ('role answered', 'access answered')`,
    { type: QueryTypes.SELECT },
  )
  for (const { workspace, id, kind, data } of rows) {
    const fields = JSON.parse(data) as Fields
    const now =
      kind === 'role answered'
        ? { ...fields, wants: roleNow(fields['wants'] as object) }
        : renamed(fields, 'word', 'comment')
    await database.query('UPDATE notices SET data = ? WHERE workspace = ? AND id = ?', {
      replacements: [JSON.stringify(now), workspace, id],
    })
  }
}
