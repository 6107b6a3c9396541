import { Type } from '@sinclair/typebox'
import { strict, titled, view } from './pieces.ts'
import { Problem } from './views/problem.ts'

/** What comes bit by bit: live events, and the lines of an answer that takes long. */

/** What changed for the reader: the topics that something of did (contract/topics.ts). */
export const changedEvent = view('ChangedEvent', {
  revision: Type.Number(),
  id: Type.String(),
  topics: Type.Array(Type.String(), { minItems: 1 }),
})

/** With each other event: the revision that the workspace is at, and the id to go on after. */
export const liveEvent = view('LiveEvent', { revision: Type.Number(), id: Type.String() })

/** How much is done, 0 to 1; the answer, or the problem, comes as the last line. */
export const progressLine = titled(
  'ProgressLine',
  Type.Object({ done: Type.Number({ minimum: 0, maximum: 1 }) }, strict),
)
export const problemLine = titled('ProblemLine', Type.Object({ problem: Problem }, strict))
