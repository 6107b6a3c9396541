import { createHash, randomBytes } from 'node:crypto'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { emptyState, tableNames } from '#core/records/all.ts'
import { applyChanges, type RecordChange, type State } from '#core/state/state.ts'
import { createHasher } from '../files/hasher.ts'
import { createFileStore, type Part } from '../files/store.ts'
import type { FileVersionRow } from './content/file-versions.ts'
import { openDatabase } from './database.ts'
import { loadStates } from './states.ts'
import {
  type BlobRow,
  type ChangeSetRow,
  createTables,
  type MailRow,
  type NotificationRow,
  type Tables,
  type UploadRow,
} from './tables.ts'
import { invite, password, Visitor } from '../tests/client.ts'
import { at, reader, share } from '../tests/coast.ts'
import { type ServerProcess, startProcess } from '../tests/process.ts'
import { announce, append } from '../tests/uploads.ts'

/** Kills the real process under load, at moments that nobody chose, and looks at what it left. */
const kills = 10
const hands = 6
const dataDir = mkdtempSync(join(tmpdir(), 'noskel-crash-'))
const mailbox = join(dataDir, 'mailbox')

let running: ServerProcess | undefined
const server = {
  get address() {
    return running?.address ?? ''
  },
}
let owner: Visitor
let memberId = ''
let home = ''
/** Files that the server said had arrived, with their hashes. */
const sent = new Map<string, string>()
/** What it said it had done: names of places, addresses of the invited, by the revision. */
const confirmed: { readonly revision: number; readonly name: string; readonly mail: string }[] = []

beforeAll(async () => {
  await begin()
  owner = new Visitor(server)
  await owner.enter('/set-up', {
    workspace: 'Coast',
    timeZone: 'UTC',
    name: 'Ona',
    mail: 'ona@test.example',
    password,
  })
  const { body } = await owner.change(invite('mika@test.example'))
  memberId = body.made['new:person'] ?? ''
  const token = await tokenInMailbox()
  const cameIn = await new Visitor(server).enter('/invitations/accept', { token, name: 'Mika', password })
  expect(cameIn.status).toBe(200)
  const me = (await owner.get<{ me: { id: string } }>(at)).body.me.id
  const made = await owner.change(
    { kind: 'home.create', node: 'new:home', name: 'Home' },
    share('new:home', me, 1023),
  )
  home = made.body.made['new:home'] ?? ''
})

afterAll(async () => {
  await running?.end('SIGKILL')
  rmSync(dataDir, { recursive: true, force: true })
})

test('whatever was confirmed is there, nothing is half-written, every mail and notification goes out', async () => {
  for (let round = 0; round < kills; round += 1) {
    const isOver = { now: false }
    const working = Array.from({ length: hands }, (_, hand) => work(`${round}-${hand}`, isOver))
    const before = [confirmed.length, sent.size]
    while (confirmed.length === before[0] || sent.size === before[1]) await pause(5)
    await pause(Math.random() * 500)
    await running?.end('SIGKILL')
    isOver.now = true
    await Promise.all(working)
    await look()
    await begin()
  }
  expect(confirmed.length).toBeGreaterThan(kills * 2)
  await expect.poll(unsent, { timeout: 20_000 }).toBe(0)
  const { mails } = await look()
  const files = new Set(readdirSync(mailbox))
  for (const mail of mails) expect(files.has(`${mail.id}noskel.eml`)).toBe(true)
  const addresses = new Set(mails.map(mail => mail.to))
  expect(confirmed.filter(each => !addresses.has(each.mail))).toEqual([])
}, 480_000)

/** Shares new places and invites people, one after another, until the server is gone. */
async function work(name: string, isOver: { now: boolean }): Promise<void> {
  for (let step = 0; !isOver.now; step += 1) {
    const place = `${name}-${step}`
    const mail = `p${place}@test.example`
    const answer = await owner
      .change(
        { kind: 'node.create', node: 'new:n', parent: home, as: 'page', name: place },
        share('new:n', memberId, reader),
        invite(mail),
      )
      .catch(() => undefined)
    if (answer?.status === 200) confirmed.push({ revision: answer.body.revision, name: place, mail })
    await sendFile(`${place}.bin`).catch(() => undefined)
  }
}

/** Sends a file in two pieces. */
async function sendFile(name: string): Promise<void> {
  const bytes = randomBytes(2000 + Math.floor(Math.random() * 200_000))
  const announced = await announce(server, owner, { name, bytes, place: home })
  const path = announced.headers.get('location') ?? ''
  const half = Math.floor(bytes.length / 2)
  await append(server, owner, { path, offset: 0, bytes: bytes.subarray(0, half) })
  const done = await append(server, owner, { path, offset: half, bytes: bytes.subarray(half) })
  if (done.status === 204) sent.set(name, sha256(bytes))
}

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** Every row that names bytes has them, whole; and all that was confirmed to have arrived is named. */
async function lookAtFiles(tables: Tables, state: State): Promise<void> {
  const files = createFileStore(dataDir, createHasher())
  const blobs = (await tables.blobs.findAll({ raw: true })) as unknown as BlobRow[]
  for (const { hash, name } of blobs) expect(sha256(readFileSync(files.pathOf(name)))).toBe(hash)
  const versions = (await tables.fileVersions.findAll({ raw: true })) as unknown as FileVersionRow[]
  const nameOf = (node: NodeId) => rowOf(state.nodes, node)?.name ?? ''
  const there = new Map(versions.map(({ node, hash }) => [nameOf(node), hash]))
  for (const [name, hash] of sent) expect([name, there.get(name)]).toEqual([name, hash])
  const uploads = (await tables.uploads.findAll({ raw: true })) as unknown as UploadRow[]
  for (const { id, parts } of uploads)
    for (const part of JSON.parse(parts) as Part[])
      expect(statSync(join(dataDir, 'uploads', id, part.name)).size).toBeGreaterThanOrEqual(part.bytes)
}

/** Opens the file as a server that starts would, and holds it against its own history and what was confirmed. */
async function look() {
  const database = await openDatabase(dataDir)
  const tables = createTables(database)
  const [integrity] = await database.query('PRAGMA integrity_check')
  const [broken] = await database.query('PRAGMA foreign_key_check')
  expect([integrity, broken]).toEqual([[{ integrity_check: 'ok' }], []])
  const states = await loadStates(tables, Date.now())
  const state = [...states.published.values()][0]?.snapshot.state as State
  const entries = (await tables.changeSets.findAll({
    order: [['revision', 'ASC']],
    raw: true,
  })) as unknown as ChangeSetRow[]
  expect(entries.map(entry => entry.revision)).toEqual(entries.map((_, index) => index + 1))
  const replayed = entries.reduce(
    (so, entry) => applyChanges(so, JSON.parse(entry.changes) as RecordChange[]),
    emptyState,
  )
  for (const table of tableNames) expect(rowsIn(state, table)).toEqual(rowsIn(replayed, table))
  const made = new Map(allRows(state.nodes).map(node => [node.name, node]))
  for (const { revision, name } of confirmed) {
    expect([name, made.has(name)]).toEqual([name, true])
    expect(entries[revision - 1]?.changes).toContain(`"${name}"`)
  }
  const notifications = (await tables.notifications.findAll({
    where: { person: memberId },
    raw: true,
  })) as unknown as NotificationRow[]
  const mails = (await tables.mails.findAll({ raw: true })) as unknown as MailRow[]
  await lookAtFiles(tables, state)
  await database.close()
  const opened = notifications.map(notification => notification.data).join()
  expect(confirmed.filter(({ name }) => !opened.includes(made.get(name)?.id ?? '?'))).toEqual([])
  return { mails }
}

const rowsIn = (state: State, table: (typeof tableNames)[number]) =>
  new Map(allRows(state[table] as State['nodes']).map(row => [row.id as string, row]))

async function unsent(): Promise<number> {
  const database = await openDatabase(dataDir)
  const count = await createTables(database).mails.count({ where: { sentAt: null } })
  await database.close()
  return count
}

async function begin(): Promise<void> {
  running = await startProcess(dataDir)
}

/** There is no demo here that shows mails: the file is read as a mail program would find it. */
async function tokenInMailbox(): Promise<string> {
  for (let tries = 0; tries < 200; tries += 1) {
    const files = existsSync(mailbox) ? readdirSync(mailbox).filter(each => each.endsWith('.eml')) : []
    const text = files.map(file => readFileSync(join(mailbox, file), 'utf8')).join('')
    const token = /join#((?:[\w.-]|=\r?\n)+)/.exec(text)?.[1]
    if (token !== undefined) return token.replace(/=\r?\n/g, '')
    await pause(25)
  }
  throw new Error('no mail came')
}

const pause = (milliseconds: number) => new Promise(resolve => setTimeout(resolve, milliseconds))
