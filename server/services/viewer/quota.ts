import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { ServerProblem } from '#contract/problem.ts'
import type { Parts } from '../../parts.ts'
import type { UseCondition } from '../../store/commit.ts'

/** What one person may cause in one hour. A whole workspace may be invited at once; nobody works faster than the rest. */
export const perHour = {
  mails: 6000,
  requests: 60,
  pictures: 30,
  uploads: 20_000,
  drafts: 600,
  comments: 1200,
  comers: 200,
} as const
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
 * Holds while no more is done than may be in an hour. It counts in the transaction of what it is about, so that it counts
 * where that is done, and on every server; past the most nothing is done.
 */
export const spending = (
  { clock }: Pick<Parts, 'clock'>,
  { workspace, who, what, count = 1 }: Spending,
): UseCondition<ServerProblem>[] =>
  count === 0
    ? []
    : [
        {
          uses: { workspace, who, what, hour: Math.floor(clock() / hourLength), count },
          atMost: perHour[what],
          orElse: `many-${what}`,
        },
      ]
