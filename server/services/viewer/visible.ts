import { personById, evaluationOf } from '#core/access/evaluation-context.ts'
import { answersFor, visibleIn, type VisibleRows, rootsIn } from '#core/access/what.ts'
import { none } from '#core/base/vector.ts'
import type { PersonId } from '#core/base/ids.ts'
import type { AccessIndex } from '#core/index/layout.ts'
import type { Parts } from '../../parts.ts'
import { ask } from '../../worker/asking.ts'
import type { Asker } from './asker.ts'

/** With more pieces than this the thread is asked: to go through them all would hold up others for milliseconds. */
const atOnce = 40_000

/** With more than this it is worth having the thread from the start: it will be asked what wide changes do. */
const threadFrom = 5000

export const isLarge = ({ freeSegments }: AccessIndex): boolean => freeSegments.length > threadFrom

interface Of {
  readonly parts: Parts
  readonly asker: Pick<Asker, 'workspace' | 'snapshot'>
  readonly person: PersonId
}

/** All that somebody sees, piece by piece, each after the one that it stands in. */
export const visibleSegments = (parts: Parts, asker: Of['asker'], person: PersonId): Promise<VisibleRows> =>
  told('seen', { parts, asker, person })

/** The places that somebody sees without what they lie in, by number. */
export const visibleRoots = (parts: Parts, asker: Of['asker'], person: PersonId): Promise<Int32Array> =>
  told('roots', { parts, asker, person })

const inPlace = { seen: visibleIn, roots: rootsIn }

// Whole numbers all the way: an object for each would outlive the request, and thousands a second make long pauses.
async function told(
  kind: keyof typeof inPlace,
  { parts: { thread }, asker: { workspace, snapshot }, person }: Of,
): Promise<Int32Array> {
  const { index } = snapshot.state
  const evaluation = evaluationOf(snapshot)
  const number = personById(evaluation, person)
  if (number === none) return new Int32Array()
  if (index.freeSegments.length <= atOnce) return inPlace[kind](answersFor(evaluation, number))
  const question = { kind, time: snapshot.at, person: number } as const
  return ask<typeof kind>(thread, { workspace, question, indexes: [index, index] })
}
