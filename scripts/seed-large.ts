import { mkdirSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { pino } from 'pino'
import { theWorkspace } from '#core/changes/scheduled.ts'
import { tableNames } from '#core/records/all.ts'
import { type RecordChange } from '#core/state/state.ts'
import { generateLarge, largeOwner, type Size, sizes } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { openParts } from '#server/assemble.ts'
import { type Config, readConfig } from '#server/config.ts'
import { hashOf } from '#server/services/account/password.ts'
import { newAccountRow } from '#server/store/accounts.ts'
import { beginWriting } from '#server/store/database.ts'
import { writeRows } from '#server/store/rows.ts'

const together = 2000

/** Fills an empty data folder with a workspace of a size; tells how many records are written so far. */
export async function seedLarge(
  config: Config,
  size: Size,
  onProgress: (written: number) => void,
): Promise<void> {
  const now = Date.now()
  mkdirSync(config.dataDir, { recursive: true })
  const { parts, close } = await openParts({ config, log: pino({ level: 'silent' }), clock: () => now })
  const { tables, states } = parts.writer
  if (states.heads.size > 0) throw new Error(`${config.dataDir} holds a workspace already`)
  const workspace = 'workspace-large' as never
  const passwordHash = await hashOf(demoPassword)
  let written = 0
  await beginWriting(tables.database, async transaction => {
    const { account: id, mail } = largeOwner
    const account = { id, mail, name: 'Owner', passwordHash, madeAt: now, provenAt: now }
    await tables.accounts.create({ ...newAccountRow(account) }, { transaction })
    let changes: RecordChange[] = []
    const flush = async () => {
      await writeRows(tables, [{ kind: 'records', workspace, changes }], transaction)
      written += changes.length
      changes = []
      onProgress(written)
    }
    for (const change of generateLarge(size, now)) if (changes.push(change) === together) await flush()
    await flush()
    const first = { workspace, revision: 1, at: now, author: theWorkspace, reason: 'Made for measuring' }
    await tables.changeSets.create({ ...first, edits: '[]', changes: '[]', impact: '[]' }, { transaction })
    await tables.appliedTransitions.create({ workspace, at: now }, { transaction })
  })
  await close()
}

/** Fills an empty DATA_DIR: node --import tsx scripts/seed-large.ts --size M */
if (process.argv[1] === import.meta.filename) {
  const { values } = parseArgs({ options: { size: { type: 'string', default: 'S' } } })
  if (!Object.hasOwn(sizes, values.size)) throw new Error(`--size is one of ${Object.keys(sizes).join(', ')}`)
  const size = sizes[values.size as keyof typeof sizes]
  await seedLarge(readConfig(process.env, true), size, written =>
    process.stdout.write(`\r${written} records in ${tableNames.length} tables`),
  )
  process.stdout.write(`. Sign in as ${largeOwner.mail} with the password ${demoPassword}\n`)
}
