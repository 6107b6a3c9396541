import { mkdirSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { Transaction } from 'sequelize'
import { pino } from 'pino'
import { theWorkspace } from '#core/changes/passing.ts'
import { type RecordChange, tableNames } from '#core/state/state.ts'
import { generateLarge, largeOwner, sizes } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { openParts } from '#server/assemble.ts'
import { readConfig } from '#server/config.ts'
import { hashOf } from '#server/services/password.ts'
import { writeRecords } from '#server/store/tables.ts'

/** Fills an empty DATA_DIR with a workspace for measuring: node --import tsx scripts/seed-large.ts --size M */
const { values } = parseArgs({ options: { size: { type: 'string', default: 'S' } } })
if (!Object.hasOwn(sizes, values.size)) throw new Error(`--size is one of ${Object.keys(sizes).join(', ')}`)
const size = sizes[values.size as keyof typeof sizes]
const now = Date.now()
const config = readConfig(process.env, true)
mkdirSync(config.dataDir, { recursive: true })
const { parts, close } = await openParts({ config, log: pino({ level: 'silent' }), clock: () => now })
const { tables, states } = parts.writer
if (states.published.size > 0) throw new Error(`${config.dataDir} holds a workspace already`)

const workspace = 'workspace-large' as never
const passwordHash = await hashOf(demoPassword)
const together = 2000
let written = 0
await tables.database.transaction({ type: Transaction.TYPES.IMMEDIATE }, async transaction => {
  const { account: id, mail } = largeOwner
  await tables.accounts.create({ id, mail, name: 'Owner', passwordHash, madeAt: now }, { transaction })
  let changes: RecordChange[] = []
  const flush = async () => {
    await writeRecords(tables, { workspace, changes, transaction })
    written += changes.length
    changes = []
    process.stdout.write(`\r${written} records`)
  }
  for (const change of generateLarge(size, now)) if (changes.push(change) === together) await flush()
  await flush()
  const first = { workspace, revision: 1, at: now, author: theWorkspace, reason: 'Made for measuring' }
  await tables.changeSets.create({ ...first, edits: '[]', changes: '[]', effect: '[]' }, { transaction })
  await tables.passed.create({ workspace, at: now }, { transaction })
})
await close()
process.stdout.write(
  `\r${written} records in ${tableNames.length} tables. Sign in as ${largeOwner.mail} with the password ${demoPassword}\n`,
)
