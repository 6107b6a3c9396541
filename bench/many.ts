import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { GrantId, HandleId, HoldingId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { provisionWorkspace } from '#core/changes/provisioning.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import { emptyState } from '#core/records/all.ts'
import { largeOwner } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { hashOf } from '#server/services/account/password.ts'
import { newAccountRow } from '#server/store/accounts.ts'
import { beginWriting, openDatabase } from '#server/store/database.ts'
import { writeRows } from '#server/store/rows.ts'
import { createTables } from '#server/store/tables.ts'
import { once, type Reading } from './measure.ts'
import { sessionCookieIn } from './session-cookie.ts'
import { quietServer } from './quiet-server.ts'

/** A server that has very many small workspaces: how soon it answers, and how soon in one that nobody has used. */

const count = 5000
const now = Date.UTC(2026, 10, 1)

export async function manyReadings(): Promise<Reading[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'noskel-many-'))
  await fill(dataDir)
  const open = () => quietServer(dataDir)
  // Once with when something is due in none of them known, as after an upgrade: it is noted then.
  await (await open()).stop()
  let running = await open()
  const starting = async () => {
    await running.stop()
    return once(async () => {
      running = await open()
      await (await fetch(`${running.address}/api/session`)).text()
    })
  }
  const start = Math.min(await starting(), await starting(), await starting())
  const cookie = await signIn(running.address)
  const asking = (slug: string) =>
    once(async () => {
      const answer = await fetch(`${running.address}/api/at/${slug}`, { headers: { cookie } })
      if (answer.status !== 200) throw new Error(await answer.text())
    })
  const firsts = [await asking('isle-7'), await asking('isle-1007'), await asking('isle-2007')]
  const again = Math.min(await asking('isle-7'), await asking('isle-7'), await asking('isle-7'))
  await running.stop()
  rmSync(dataDir, { recursive: true, force: true })
  const on = { size: '5,000 workspaces', unit: 'ms' } as const
  const known = { what: 'the same asked again', value: again }
  return [
    { ...on, id: 'many.start', value: start },
    { ...on, id: 'many.first', value: Math.min(...firsts), floor: known },
  ]
}

async function signIn(address: string): Promise<string> {
  const response = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ mail: largeOwner.mail, password: demoPassword }),
  })
  return sessionCookieIn(response.headers)
}

async function fill(dataDir: string): Promise<void> {
  const tables = createTables(await openDatabase(dataDir))
  const { account, mail } = largeOwner
  const passwordHash = await hashOf(demoPassword)
  const owner = newAccountRow({ id: account, mail, name: 'Owner', passwordHash, madeAt: now, provenAt: now })
  await beginWriting(tables.database, async transaction => {
    await writeRows(tables, [{ kind: 'put', table: 'accounts', rows: [owner] }], transaction)
    for (let index = 0; index < count; index += 1) {
      const id = `isle-${index}` as WorkspaceId
      const { changes } = provisionWorkspace(emptyState, {
        workspace: id,
        name: `Isle ${index}`,
        slug: id,
        timeZone: 'UTC',
        at: now,
        root: `${id}-root` as NodeId,
        owner: {
          person: `${id}-owner` as PersonId,
          account,
          holding: `${id}-holding` as HoldingId,
          name: 'Owner',
          handle: 'owner' as HandleId,
          mail,
          folder: `${id}-folder` as NodeId,
          grant: `${id}-grant` as GrantId,
        },
      })
      const entry = {
        workspace: id,
        revision: 1,
        at: now,
        author: theWorkspace,
        reason: 'Made for measuring',
      }
      const empty = { edits: [], changes: [], impact: '[]', undoes: null }
      await writeRows(
        tables,
        [
          { kind: 'records', workspace: id, changes },
          { kind: 'put', table: 'changeSets', rows: [{ ...entry, ...empty }], json: ['edits', 'changes'] },
        ],
        transaction,
      )
    }
  })
  await tables.database.close()
}
