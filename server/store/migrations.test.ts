import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes, Sequelize } from 'sequelize'
import { expect, test } from 'vitest'
import type { AccountId } from '#core/base/ids.ts'
import { openDatabase } from './database.ts'
import { migrations } from './migrations/list.ts'
import { openSessions, signInsOf } from './sessions.ts'

test('every table carries the workspace’s id, but that of the accounts', async () => {
  const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
  for (const migration of migrations) await migration.up(database)
  const select = { type: QueryTypes.SELECT } as const
  const tables = await database.query<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`,
    select,
  )
  const without: string[] = []
  for (const { name } of tables) {
    const columns = await database.query<{ name: string }>(
      `SELECT name FROM pragma_table_info('${name}')`,
      select,
    )
    if (!columns.some(column => column.name === 'workspace')) without.push(name)
  }
  expect([tables.length > 15, without]).toEqual([true, ['accounts', 'accountLinks', 'log']])
  await database.close()
})

test('what was in the bin before it told since when stays there, for thirty days from now', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-migrations-'))
  const database = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'db.sqlite'), logging: false })
  const [first, second, ...later] = migrations
  await first?.up(database)
  await second?.up(database)
  await database.query('PRAGMA foreign_keys = OFF')
  const columns = 'workspace, id, kind, name, note, maker, "madeAt", "order", draft, archived, binned'
  for (const [id, binned] of [
    ['in', 1],
    ['out', 0],
  ] as const)
    await database.query(
      `INSERT INTO nodes (${columns}) VALUES ('w', '${id}', 'page', '"binned":true', '', 'p', 1, 0, 0, 0, ${binned})`,
    )
  const record = { after: { name: '"binned":true', binned: true }, before: { binned: false } }
  await database.query(
    `INSERT INTO "changeSets" (workspace, revision, at, author, reason, edits, changes) VALUES ('w', 1, 1, 'p', '', '[]', ?)`,
    { replacements: [JSON.stringify([record])] },
  )
  for (const migration of later) await migration.up(database)
  const nodes = await database.query<{ id: string; binned: string | null }>(
    'SELECT id, binned FROM nodes ORDER BY id',
    { type: QueryTypes.SELECT },
  )
  const [inBin, out] = nodes
  const mark = JSON.parse(inBin?.binned ?? '{}') as { by: string; at: number }
  expect([mark.by, Math.abs(mark.at - Date.now()) < 60_000, out?.binned]).toEqual(['p', true, null])
  const [row] = await database.query<{ changes: string }>('SELECT changes FROM "changeSets"', {
    type: QueryTypes.SELECT,
  })
  expect(JSON.parse(row?.changes ?? '')).toEqual([
    { after: { name: '"binned":true', binned: { by: '', at: 0 } }, before: { binned: null } },
  ])
  await database.close()
  rmSync(folder, { recursive: true })
})

test('people of older files have what nobody had set, in the tables and in the history', async () => {
  const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
  const people = migrations.findIndex(each => each.name === '004-people')
  for (const migration of migrations.slice(0, people)) await migration.up(database)
  await database.query('PRAGMA foreign_keys = OFF')
  await database.query(
    `INSERT INTO accounts (id, mail, name, "passwordHash", "madeAt") VALUES ('a', 'a@x.example', 'A', '', 7)`,
  )
  await database.query(
    `INSERT INTO persons (workspace, id, name, mail, title, kind, status) VALUES ('w', 'p', 'P', 'p@x.example', '', 'member', 'active')`,
  )
  const changes = [
    { table: 'persons', id: 'p', before: null, after: { id: 'p' } },
    { table: 'grants', id: 'g', before: null, after: { id: 'g' } },
  ]
  await database.query(
    `INSERT INTO "changeSets" (workspace, revision, at, author, reason, edits, changes) VALUES ('w', 1, 1, 'p', '', '[]', ?)`,
    { replacements: [JSON.stringify(changes)] },
  )
  for (const migration of migrations.slice(people)) await migration.up(database)
  const one = async <Row extends object>(sql: string) =>
    (await database.query<Row>(sql, { type: QueryTypes.SELECT }))[0]
  const profile = {
    handle: null,
    department: '',
    country: '',
    picture: null,
    agreedAt: null,
    invitedBy: null,
  }
  expect(await one('SELECT * FROM persons')).toMatchObject(profile)
  expect(await one('SELECT * FROM accounts')).toMatchObject({ provenAt: 7, codeSince: null })
  const row = await one<{ changes: string }>('SELECT changes FROM "changeSets"')
  expect(JSON.parse(row?.changes ?? '')).toEqual([
    { ...changes[0], after: { id: 'p', ...profile } },
    changes[1],
  ])
  await database.close()
})

test('roles, seats and archived teams of older files have what nobody had set; what is archived is kept from now on', async () => {
  const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
  const roles = migrations.findIndex(each => each.name === '005-roles')
  for (const migration of migrations.slice(0, roles)) await migration.up(database)
  await database.query('PRAGMA foreign_keys = OFF')
  const columns =
    'workspace, id, name, note, joining, "welcomesGuests", archived, "allowsPublishing", "madeAt"'
  for (const [id, archived] of [
    ['old', 1],
    ['new', 0],
  ] as const)
    await database.query(
      `INSERT INTO teams (${columns}) VALUES ('w', '${id}', 'T', '', 'open', 0, ${archived}, 1, 1)`,
    )
  const changes = [{ table: 'roles', id: 'r', before: null, after: { id: 'r' } }]
  await database.query(
    `INSERT INTO "changeSets" (workspace, revision, at, author, reason, edits, changes) VALUES ('w', 1, 1, 'p', '', '[]', ?)`,
    { replacements: [JSON.stringify(changes)] },
  )
  for (const migration of migrations.slice(roles)) await migration.up(database)
  const select = { type: QueryTypes.SELECT } as const
  const teams = await database.query<{ id: string; archivedAt: number | null }>(
    'SELECT id, "archivedAt" FROM teams ORDER BY id',
    select,
  )
  expect([teams[0]?.archivedAt, Math.abs((teams[1]?.archivedAt ?? 0) - Date.now()) < 60_000]).toEqual([
    null,
    true,
  ])
  const [row] = await database.query<{ changes: string }>('SELECT changes FROM "changeSets"', select)
  expect(JSON.parse(row?.changes ?? '')).toEqual([
    { ...changes[0], after: { id: 'r', madeAt: null, madeBy: null } },
  ])
  await database.close()
})

test('of older files it is known who invited whom, what things were called, and who wrote last', async () => {
  const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
  const upTo = migrations.findIndex(each => each.name === '011-latest-and-former')
  for (const migration of migrations.slice(0, upTo)) await migration.up(database)
  await database.query('PRAGMA foreign_keys = OFF')
  const person = (id: string, name: string) => ({ id, name, mail: `${id}@x.example` })
  for (const [id, name] of [
    ['f', 'Founder'],
    ['p', 'Pia'],
  ] as const)
    await database.query(
      `INSERT INTO persons (workspace, id, name, mail, title, department, country, kind, status) VALUES ('w', ?, ?, 'x', '', '', '', 'member', 'active')`,
      { replacements: [id, name] },
    )
  const sets: [author: string, changes: object[]][] = [
    ['f', [{ table: 'persons', id: 'f', before: null, after: person('f', 'Founder') }]],
    ['f', [{ table: 'persons', id: 'p', before: null, after: person('p', '') }]],
    ['p', [{ table: 'persons', id: 'p', before: person('p', ''), after: person('p', 'Pia') }]],
    ['f', [{ table: 'nodes', id: 'n', before: { name: 'Old' }, after: { name: 'New' } }]],
  ]
  for (const [index, [author, changes]] of sets.entries())
    await database.query(
      `INSERT INTO "changeSets" (workspace, revision, at, author, reason, edits, changes) VALUES ('w', ?, 1, ?, '', '[]', ?)`,
      { replacements: [index + 1, author, JSON.stringify(changes)] },
    )
  for (const [version, by] of [
    [1, 'f'],
    [2, 'p'],
  ] as const)
    await database.query(
      `INSERT INTO texts (workspace, node, version, text, "changedAt", "changedBy") VALUES ('w', 'n', ?, '', ?, ?)`,
      { replacements: [version, version * 10, by] },
    )
  await migrations[upTo]?.up(database)
  const all = <Row extends object>(sql: string) => database.query<Row>(sql, { type: QueryTypes.SELECT })
  expect(await all('SELECT id, "invitedBy" FROM persons ORDER BY id')).toEqual([
    { id: 'f', invitedBy: null },
    { id: 'p', invitedBy: 'f' },
  ])
  // A name that somebody took as they came in is no former one.
  expect(await all('SELECT * FROM "formerNames"')).toEqual([
    { workspace: 'w', table: 'nodes', id: 'n', revision: 4, name: 'Old' },
  ])
  expect(await all('SELECT * FROM "placeChanges"')).toEqual([{ workspace: 'w', id: 'n', at: 20, by: 'p' }])
  const [, , joined] = await all<{ changes: string }>('SELECT changes FROM "changeSets" ORDER BY revision')
  expect(JSON.parse(joined?.changes ?? '')).toEqual([
    {
      table: 'persons',
      id: 'p',
      before: { ...person('p', ''), invitedBy: 'f' },
      after: { ...person('p', 'Pia'), invitedBy: 'f' },
    },
  ])
  await database.close()
})

test('requests of older files are one kind, and the history and notices of them tell the same', async () => {
  const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
  const upTo = migrations.findIndex(each => each.name === '012-requests')
  for (const migration of migrations.slice(0, upTo)) await migration.up(database)
  await database.query('PRAGMA foreign_keys = OFF')
  const put = putInto(database)
  const row = { person: 'p', at: 1, word: 'Why' }
  const request = { workspace: 'w', ...row }
  const declined = { by: 'o', at: 2, word: 'No' }
  await put('requests', { ...request, id: 'a', team: 't' })
  await put('roleRequests', {
    ...request,
    id: 'b',
    wants: '{"role":"r"}',
    declined: JSON.stringify(declined),
  })
  await put('accessRequests', { ...request, id: 'c', node: 'n', wants: 3 })
  const role = { ...row, id: 'b', wants: { privilege: 'suspend' }, declined: null }
  const changes = [
    { table: 'nodes', id: 'n', before: null, after: { id: 'n' } },
    { table: 'roleRequests', id: 'b', before: role, after: { ...role, declined } },
  ]
  const edits = [
    { kind: 'access.ask', request: 'c', node: 'n', wants: 3, word: 'Why' },
    { kind: 'request.answer', request: 'a', membership: 'm', accepted: true, word: 'Come' },
    { kind: 'role.answer', request: 'b', holding: 'h', word: 'No', gives: null },
  ]
  const entry = { workspace: 'w', revision: 1, at: 1, author: 'p', reason: '' }
  await put('changeSets', { ...entry, edits: JSON.stringify(edits), changes: JSON.stringify(changes) })
  const notice = { workspace: 'w', person: 'p', at: 1 }
  await put('notices', { ...notice, id: '1', kind: 'role answered', data: '{"by":"o","wants":{"role":"r"}}' })
  await put('notices', { ...notice, id: '2', kind: 'access answered', data: '{"by":"o","word":"Yes"}' })
  await migrations[upTo]?.up(database)
  const all = <Row extends object>(sql: string) => database.query<Row>(sql, { type: QueryTypes.SELECT })
  const now = { workspace: 'w', person: 'p', at: 1, reason: 'Why', declined: null }
  expect(await all('SELECT * FROM requests ORDER BY id')).toEqual([
    { ...now, id: 'a', wants: '{"of":"team","team":"t"}' },
    { ...now, id: 'b', wants: '{"of":"role","role":"r"}', declined: '{"by":"o","at":2,"comment":"No"}' },
    { ...now, id: 'c', wants: '{"of":"access","node":"n","actions":3}' },
  ])
  const [kept] = await all<{ edits: string; changes: string }>('SELECT edits, changes FROM "changeSets"')
  const was = { id: 'b', person: 'p', wants: { of: 'privilege', privilege: 'suspend' }, at: 1, reason: 'Why' }
  expect(JSON.parse(kept?.changes ?? '')).toEqual([
    changes[0],
    {
      table: 'requests',
      id: 'b',
      before: { ...was, declined: null },
      after: { ...was, declined: { by: 'o', at: 2, comment: 'No' } },
    },
  ])
  expect(JSON.parse(kept?.edits ?? '')).toEqual([
    { kind: 'request.make', request: 'c', wants: { of: 'access', node: 'n', actions: 3 }, reason: 'Why' },
    { kind: 'request.accept', request: 'a', gives: { of: 'team', membership: 'm' }, comment: 'Come' },
    { kind: 'request.decline', request: 'b', comment: 'No' },
  ])
  expect(await all('SELECT data FROM notices ORDER BY id')).toEqual([
    { data: '{"by":"o","wants":{"of":"role","role":"r"}}' },
    { data: '{"by":"o","comment":"Yes"}' },
  ])
  await database.close()
})

test('things of older files take their final names, in tables, history, drafts and notifications', async () => {
  const database = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false })
  const upTo = migrations.findIndex(each => each.name === '013-names')
  for (const migration of migrations.slice(0, upTo)) await migration.up(database)
  await database.query('PRAGMA foreign_keys = OFF')
  const put = putInto(database)
  const role = { id: 'r', name: 'R', note: '', rung: 30 }
  await put('roles', { ...role, workspace: 'w', privileges: '[]', callable: 1, free: 0, builtIn: 0 })
  await put('looks', { workspace: 'w', id: 'l', by: 'p', through: 'q', at: 1, until: 2, word: 'Why' })
  const items = [[{ kind: 'role.give', person: 'p', role: 'r' }], [{ kind: 'grant.end', grant: 'g' }]]
  await put('drafts', {
    ...{ workspace: 'w', id: 'd', person: 'p', name: '', word: 'See' },
    ...{ items: JSON.stringify(items), madeAt: 1, changedAt: 1 },
  })
  const changes = [
    { table: 'looks', id: 'l', before: null, after: { id: 'l', word: 'Why' } },
    { table: 'roles', id: 'r', before: { ...role, callable: true, free: false }, after: null },
  ]
  const edits = [
    { kind: 'look.begin', look: 'l', through: 'q', word: 'Why' },
    { kind: 'role.delete', role: 'r' },
  ]
  await put('changeSets', {
    ...{ workspace: 'w', revision: 1, at: 1, author: 'p', reason: '', effect: '["e"]' },
    ...{ edits: JSON.stringify(edits), changes: JSON.stringify(changes) },
  })
  const notice = { workspace: 'w', person: 'q', at: 1 }
  await put('notices', { ...notice, id: '1', kind: 'looked through', data: '{"look":"l"}' })
  await put('noticeChoices', { workspace: 'w', person: 'q', kind: 'asked', choice: 'not at all' })
  await migrations[upTo]?.up(database)
  const all = <Row extends object>(sql: string) => database.query<Row>(sql, { type: QueryTypes.SELECT })
  expect(await all('SELECT rank, addressable, "seatExempt" FROM roles')).toEqual([
    { rank: 30, addressable: 1, seatExempt: 0 },
  ])
  expect(await all('SELECT id, reason FROM "viewingSessions"')).toEqual([{ id: 'l', reason: 'Why' }])
  const [kept] = await all<Record<'edits' | 'changes' | 'impact', string>>('SELECT * FROM "changeSets"')
  expect([JSON.parse(kept?.changes ?? ''), JSON.parse(kept?.edits ?? ''), kept?.impact]).toEqual([
    [
      { table: 'viewingSessions', id: 'l', before: null, after: { id: 'l', reason: 'Why' } },
      {
        ...{ table: 'roles', id: 'r', after: null },
        before: { id: 'r', name: 'R', note: '', rank: 30, addressable: true, seatExempt: false },
      },
    ],
    [{ kind: 'session.begin', session: 'l', through: 'q', reason: 'Why' }, edits[1]],
    '["e"]',
  ])
  const [draft] = await all<{ comment: string; items: string }>('SELECT comment, items FROM drafts')
  expect([draft?.comment, JSON.parse(draft?.items ?? '')]).toEqual([
    'See',
    [[{ kind: 'role.assign', person: 'p', role: 'r' }], items[1]],
  ])
  expect(await all('SELECT kind, data FROM notifications')).toEqual([
    { kind: 'seen as', data: '{"session":"l"}' },
  ])
  expect(await all('SELECT kind FROM "notificationChoices"')).toEqual([{ kind: 'team requested' }])
  await database.close()
})

const putInto = (database: Sequelize) => (table: string, row: Readonly<Record<string, unknown>>) => {
  const columns = Object.keys(row)
    .map(each => `"${each}"`)
    .join(', ')
  return database.query(`INSERT INTO "${table}" (${columns}) VALUES (:values)`, {
    replacements: { values: Object.values(row) },
  })
}

test('sign-ins of older files hold until their time is over', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-migrations-'))
  const options = { dialect: 'sqlite', storage: join(folder, 'sessions.sqlite'), logging: false } as const
  const older = new Sequelize(options)
  // As a package for sessions had laid them.
  await older.query(
    'CREATE TABLE "signIns" ("sid" TEXT PRIMARY KEY, "expires" DATETIME, "data" TEXT, "account" TEXT, "agent" TEXT, "madeAt" DOUBLE PRECISION)',
  )
  await older.query('CREATE INDEX "sign_ins_account" ON "signIns" ("account")')
  await older.query(
    `INSERT INTO "signIns" VALUES ('holds', '2126-11-28 09:00:00.000 +00:00', '{"csrf":"x"}', 'ada', 'Firefox', 5),
      ('broken', 'some day', '{}', 'ada', 'Firefox', 5)`,
  )
  await older.close()
  const sessions = await openSessions(folder, openDatabase)
  const rows = await signInsOf(sessions, 'ada' as AccountId)
  expect(rows).toEqual([
    {
      sid: 'holds',
      until: Date.UTC(2126, 10, 28, 9),
      data: '{"csrf":"x"}',
      account: 'ada',
      agent: 'Firefox',
      madeAt: 5,
    },
  ])
  await sessions.database.close()
  rmSync(folder, { recursive: true })
})
