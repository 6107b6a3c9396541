import { QueryTypes, type Transaction } from 'sequelize'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'

/** What one person may cause in one hour. A whole workspace may be invited at once; nobody works faster than the rest. */
export const perHour = { mails: 6000, requests: 60, pictures: 30, drafts: 600, comers: 200 } as const
export type Quota = keyof typeof perHour

interface Spending {
  readonly workspace: WorkspaceId
  /** A person, or the join link by which strangers come. */
  readonly who: PersonId | string
  readonly what: Quota
  readonly count?: number
}

const hourLength = 3_600_000

/**
 * Counts in the transaction of what it is about, so that it counts where that is done, and on every server. Throws past
 * the most: then nothing is done.
 */
export async function spend(
  { writer, clock }: Pick<Parts, 'writer' | 'clock'>,
  { workspace, who, what, count = 1 }: Spending,
  transaction: Transaction,
): Promise<void> {
  if (count === 0) return
  const { database } = writer.tables
  const replacements = { workspace, who, what, hour: Math.floor(clock() / hourLength), count }
  // Of each there is one row: an hour that is over is written over.
  await database.query(
    `INSERT INTO uses (workspace, who, what, hour, times) VALUES (:workspace, :who, :what, :hour, :count)
      ON CONFLICT (workspace, who, what) DO UPDATE SET
        times = CASE WHEN uses.hour = excluded.hour THEN uses.times ELSE 0 END + excluded.times,
        hour = excluded.hour`,
    { replacements, transaction },
  )
  const [row] = await database.query<{ times: number | string }>(
    'SELECT times FROM uses WHERE workspace = :workspace AND who = :who AND what = :what',
    { replacements, transaction, type: QueryTypes.SELECT },
  )
  if (Number(row?.times ?? 0) > perHour[what]) throw problemOf(`many-${what}`)
}
