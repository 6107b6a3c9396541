import { Transaction } from 'sequelize'
import { pino } from 'pino'
import { demoAccounts, demoTexts, generateDemo } from '#demo/generate.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { openParts } from '#server/assemble.ts'
import { type Config, readConfig } from '#server/config.ts'
import { hashOf } from '#server/services/password.ts'
import { rowOfEntry } from '#server/services/record.ts'
import { writeRecords } from '#server/store/tables.ts'
import { differences } from '#core/impact/impact.ts'
import { workspaceOf } from '#core/state/state.ts'

/** Fills an empty data folder with the demo workspace; one that holds a workspace is left as it is. */
export async function seedDemo(config: Config, now: number): Promise<void> {
  const { parts, close } = await openParts({ config, log: pino({ level: 'silent' }), clock: () => now })
  const { tables, states } = parts.writer
  if (states.published.size === 0) {
    const { sets, state } = generateDemo(now)
    const workspace = workspaceOf(state).id
    const passwordHash = await hashOf(demoPassword)
    await tables.database.transaction({ type: Transaction.TYPES.IMMEDIATE }, async transaction => {
      const accounts = demoAccounts.map(account => ({ ...account, passwordHash, madeAt: now }))
      await tables.accounts.bulkCreate(accounts, { transaction })
      for (const set of sets) {
        const { touching } = set
        await writeRecords(tables, { workspace, changes: touching.changes, transaction })
        const entry = { ...set, workspace, undone: null }
        await tables.changeSets.create(rowOfEntry(entry, differences(touching)), { transaction })
      }
      const texts = demoTexts.map(({ node, text, by }) => ({
        workspace,
        node,
        version: 1,
        text,
        changedAt: now,
        changedBy: by,
      }))
      await tables.texts.bulkCreate(texts, { transaction })
    })
  }
  await close()
}

if (process.argv[1] === import.meta.filename) await seedDemo(readConfig(process.env, true), Date.now())
