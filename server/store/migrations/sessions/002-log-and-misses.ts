import { QueryTypes } from 'sequelize'
import type { Migration } from '../list.ts'

/**
 * The ends of sign-ins are instants like all others; what was written is told in order to every process; wrong tries
 * count on every server alike.
 */
export const logAndMisses: Migration = {
  name: '002-log-and-misses',
  up: async database => {
    await database.query('ALTER TABLE "signIns" ADD COLUMN "until" BIGINT NOT NULL DEFAULT 0')
    const rows = await database.query<{ sid: string; expires: unknown }>(
      'SELECT sid, expires FROM "signIns"',
      { type: QueryTypes.SELECT },
    )
    for (const { sid, expires } of rows)
      await database.query('UPDATE "signIns" SET "until" = :until WHERE sid = :sid', {
        replacements: { sid, until: instantIn(expires) },
      })
    await database.query('ALTER TABLE "signIns" DROP COLUMN expires')
    await database.query('CREATE INDEX "signInsUntil" ON "signIns" ("until")')
    await database.query('CREATE INDEX "seenAt" ON seen ("at")')
    await database.query(
      'CREATE TABLE log (position BIGINT PRIMARY KEY, id TEXT NOT NULL, "at" BIGINT NOT NULL, news TEXT NOT NULL)',
    )
    await database.query(
      'CREATE TABLE misses (pair TEXT PRIMARY KEY, count BIGINT NOT NULL, "at" BIGINT NOT NULL)',
    )
    await database.query('CREATE INDEX "missesAt" ON misses ("at")')
  },
}

/** A sign-in whose end cannot be read is over. */
function instantIn(expires: unknown): number {
  const instant = expires instanceof Date ? expires.getTime() : Date.parse(String(expires))
  return Number.isNaN(instant) ? 0 : instant
}
