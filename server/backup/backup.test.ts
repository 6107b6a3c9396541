import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { TwoStepView } from '#contract/views/account.ts'
import type { TreeItem } from '#contract/views/content.ts'
import type { HistoryView } from '#contract/views/history.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { backUp } from './backup.ts'
import { restore } from './restore.ts'
import { password, serve, type TestServer, Visitor } from '../tests/client.ts'
import { dropUnnamed } from '../services/content/sweep.ts'
import { at, type Coast, coast } from '../tests/coast.ts'
import { announce, fileIn } from '../tests/uploads.ts'

/** One file holds all that a server keeps, made while it runs; what is made of it again is the same. */

let world: Coast
let folder: string
const started: TestServer[] = []
const passphrase = 'a passphrase of some length'

beforeEach(async () => {
  world = await coast()
  folder = mkdtempSync(join(tmpdir(), 'noskel-backup-'))
})
afterEach(async () => {
  for (const each of started.splice(0)) await each.stop()
  await world.server.stop()
  rmSync(folder, { recursive: true, force: true })
})

const file = () => join(folder, 'all.noskel')
const restoredDir = () => join(folder, 'restored')
const rename = (name: string) => world.owner.change({ kind: 'node.describe', node: world.ids.folder, name })

async function startOn(dataDir: string): Promise<TestServer> {
  const server = await serve({ dataDir })
  server.time.now = world.server.time.now
  started.push(server)
  return server
}

test('while others write: whole, with sign-ins, the second step and all that was confirmed before', async () => {
  const { body: step } = await world.owner.call<TwoStepView>('POST', '/account/two-step', { password })
  await rename('Before')
  const going = { is: true }
  const writing = (async () => {
    for (let count = 0; going.is; count += 1) expect((await rename(`During ${count}`)).status).toBe(200)
  })()
  await backUp(world.server.dataDir, file(), { passphrase })
  going.is = false
  await writing
  const { body: now } = await world.owner.get<HistoryView>(`${at}/history`)
  await restore(file(), restoredDir(), { passphrase, replaces: false })
  const server = await startOn(restoredDir())
  // The browser that was signed in is, with the same cookie; so is the secret that signed it.
  const again = Object.assign(new Visitor(server), {
    jar: Reflect.get(world.owner, 'jar') as unknown,
  }) as Visitor
  const { body, status } = await again.get<WorkspaceView>(at)
  expect([status, body.name]).toEqual([200, 'Coast'])
  const { body: then } = await again.get<HistoryView>(`${at}/history`)
  expect(JSON.stringify(then.entries)).toContain('Before')
  // Of what was written meanwhile it has the first part, without a gap.
  const entriesOf = ({ entries }: HistoryView) => entries.map(({ revision, at }) => ({ revision, at }))
  expect(entriesOf(now).slice(-then.entries.length)).toEqual(entriesOf(then))
  const stranger = new Visitor(server)
  expect((await stranger.enter('/session', { mail: 'ona@test.example', password })).status).toBe(200)
  expect(step.secret).not.toBe('')
})

test('has the bytes of files, also of those that come and go while it is made, and none that is on its way', async () => {
  const { owner, server, ids } = world
  const put = (name: string) =>
    fileIn(server, owner, { name, bytes: Buffer.from(`the words of ${name}`), place: ids.folder })
  const kept = await put('kept')
  const lost = await put('lost')
  await owner.change({ kind: 'node.state', node: lost, binned: true })
  await announce(server, owner, { name: 'coming', bytes: Buffer.from('half'), place: ids.folder })
  const going = { is: true }
  const writing = (async () => {
    for (let count = 0; going.is; count += 1) await put(`during ${count}`)
  })()
  const made = backUp(server.dataDir, file(), { passphrase })
  await owner.change({ kind: 'node.delete', node: lost })
  await dropUnnamed(server.parts)
  await made
  going.is = false
  await writing
  expect(readdirSync(server.dataDir).filter(each => each.startsWith('files-for'))).toEqual([])
  await restore(file(), restoredDir(), { passphrase, replaces: false })
  const again = Object.assign(new Visitor(await startOn(restoredDir())), {
    jar: Reflect.get(owner, 'jar') as unknown,
  }) as Visitor
  const { body: within } = await again.get<TreeItem[]>(`${at}/nodes/${ids.folder}/children`)
  const files = within.filter(each => each.kind === 'file')
  expect(files.map(each => each.id)).toContain(kept)
  for (const { id, name } of files)
    expect(await again.text(`${at}/nodes/${id}/file/bytes`)).toBe(`the words of ${name}`)
  expect((await again.get(`${at}/uploads`)).body).toMatchObject({ uploads: [] })
})

test('is refused where one byte of a file is another one', async () => {
  const { owner, server, ids } = world
  await fileIn(server, owner, { name: 'map', bytes: Buffer.from('by boat'), place: ids.folder })
  const files = join(server.dataDir, 'files')
  const [path = ''] = readdirSync(files, { recursive: true, encoding: 'utf8' }).filter(each =>
    each.includes('/'),
  )
  writeFileSync(join(files, path), 'by foot')
  await expect(backUp(server.dataDir, file(), { passphrase })).rejects.toThrow(/is not what was written/)
  expect(existsSync(file())).toBe(false)
})

test('is closed to others, has the secret only sealed, and can have it apart', async () => {
  const apart = join(folder, 'secret')
  await backUp(world.server.dataDir, file(), { file: apart })
  expect([file(), apart].map(each => statSync(each).mode & 0o777)).toEqual([0o600, 0o600])
  const secret = readFileSync(join(world.server.dataDir, 'secret'), 'utf8')
  expect(readFileSync(apart, 'utf8')).toBe(secret)
  await expect(restore(file(), restoredDir(), { passphrase, replaces: false })).rejects.toThrow(
    '--secret FILE',
  )
  await restore(file(), restoredDir(), { secretFile: apart, replaces: false })
  expect(readdirSync(restoredDir()).sort()).toEqual(['noskel.sqlite', 'secret', 'sessions.sqlite'])
  expect(readdirSync(restoredDir()).map(each => statSync(join(restoredDir(), each)).mode & 0o777)).toEqual(
    Array(3).fill(0o600),
  )
})

test('is refused in one sentence where anything is wrong, and nothing is touched', async () => {
  await backUp(world.server.dataDir, file(), { passphrase })
  await expect(backUp(world.server.dataDir, file(), { passphrase })).rejects.toThrow('there already')
  const into = (from: string, more: object = {}) =>
    restore(from, restoredDir(), { passphrase, replaces: false, ...more })
  await expect(into(file(), { passphrase: 'another one of some length' })).rejects.toThrow(
    'not the passphrase',
  )
  const bytes = readFileSync(file())
  const broken = join(folder, 'broken.noskel')
  for (const at of [20, Math.floor(bytes.length / 2), bytes.length - 40]) {
    const changed = Buffer.from(bytes)
    changed[at] = (changed[at] ?? 0) ^ 0x55
    writeFileSync(broken, changed)
    await expect(into(broken)).rejects.toThrow(/broken/)
  }
  writeFileSync(broken, bytes.subarray(0, bytes.length / 2))
  await expect(into(broken)).rejects.toThrow(/broken/)
  expect(existsSync(restoredDir())).toBe(false)
  expect(readdirSync(folder).sort()).toEqual(['all.noskel', 'broken.noskel'])
})

test('goes into a folder that is in use only when that is said, never under a server that runs, and loses nothing', async () => {
  await rename('Kept')
  await backUp(world.server.dataDir, file(), { passphrase })
  const { dataDir } = world.server
  await expect(restore(file(), dataDir, { passphrase, replaces: false })).rejects.toThrow('not empty')
  await expect(restore(file(), dataDir, { passphrase, replaces: true })).rejects.toThrow(
    'another server runs',
  )
  expect((await rename('Still here')).status).toBe(200)
  await restore(file(), restoredDir(), { passphrase, replaces: false })
  const server = await startOn(restoredDir())
  await server.stop()
  started.length = 0
  const { aside } = await restore(file(), restoredDir(), { passphrase, replaces: true })
  expect(readdirSync(aside ?? '')).toContain('noskel.sqlite')
})
