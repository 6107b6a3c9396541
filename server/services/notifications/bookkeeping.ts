import type { PersonId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import type { ServerProblem } from '#contract/problem.ts'
import type { Topic } from '#contract/topics.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Commit } from '../../store/commit.ts'
import { submit } from '../../store/writer.ts'
import type { Asker } from '../viewer/asker.ts'
import type { TopicConcern } from './topics.ts'

/** Refused with its problem; or somebody else was first, and it is to be looked at again. */
type Refusal = ServerProblem | 'outrun'

export interface Bookkeeping extends Pick<Commit<void, Refusal>, 'conditions' | 'rows' | 'news'> {
  /** What of the asker's changes by it, and of others. */
  readonly topics: readonly Topic[]
  readonly others?: readonly PersonId[]
}

/**
 * Written without a change of the state, so without history; the open pages of those whose it is hear of it. False where
 * somebody else was first.
 */
export async function writeBookkeeping(
  parts: Parts,
  { workspace, person, snapshot }: Asker,
  { topics, others = [], news = [], ...commit }: Bookkeeping,
): Promise<boolean> {
  const { revision } = snapshot.state
  const concerns: TopicConcern[] = [{ topics, people: [person, ...others] }]
  const result = await submit(parts.writer, () =>
    ok({
      value: undefined,
      ...commit,
      news: [...news, { of: 'event' as const, workspace, revision, concerns }],
    }),
  )
  if (!result.ok && result.error !== 'outrun') throw problemOf(result.error)
  return result.ok
}
