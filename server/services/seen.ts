import { personById, sightOf } from '#core/access/sight.ts'
import { type Seen, seenAt, seenBy, seenCount, type SeenRows } from '#core/access/what.ts'
import { none } from '#core/base/column.ts'
import type { PersonId } from '#core/base/ids.ts'
import type { AccessIndex } from '#core/index/layout.ts'
import type { Parts } from '../parts.ts'
import { ask } from '../worker/asking.ts'
import type { Asker } from './asker.ts'

/** With more pieces than this the thread is asked: to go through them all would hold up others. */
const atOnce = 5000

/** All that somebody sees, piece by piece, each after the one that it stands in. */
export async function seenPieces(
  { thread }: Parts,
  { workspace, moment }: Pick<Asker, 'workspace' | 'moment'>,
  person: PersonId,
): Promise<Seen[]> {
  const { index } = moment.state
  if (!isLarge(index)) return piecesIn(seenBy(moment, person))
  const number = personById(sightOf(moment), person)
  if (number === none) return []
  const question = { kind: 'seen', time: moment.at, person: number } as const
  return piecesIn(await ask<'seen'>(thread, { workspace, question, indexes: [index, index] }))
}

export const isLarge = ({ freeStretches }: AccessIndex): boolean => freeStretches.length > atOnce

const piecesIn = (rows: SeenRows): Seen[] =>
  Array.from({ length: seenCount(rows) }, (_, place) => seenAt(rows, place))
