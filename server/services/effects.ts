import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Touching } from '#core/changes/touched.ts'
import type { Asked } from '#core/access/effect.ts'
import { differences, impact, type ImpactAt } from '#core/impact/impact.ts'
import {
  answerTo,
  isWide,
  recordQuestion,
  type Recorded,
  wideImpact,
  wideInstants,
  wideQuestion,
  wideRecord,
  type WideAnswer,
} from '#core/impact/wide.ts'
import type { Parts } from '../parts.ts'
import { ask, type Patience } from '../worker/asking.ts'

/** What a change does, told to its author, at once. Where it is wide, rather ask the thread. */
export const effectsOf = (whole: Touching, asker: PersonId): ImpactAt[] =>
  isWide(whole)
    ? wideInstants(whole).map(at => wideImpact(whole, at, answerTo(wideQuestion(whole, at, asker))))
    : impact(whole, asker)

/** What was done, to be kept, at once. */
export const recordOf = (touching: Touching): Recorded =>
  isWide(touching)
    ? wideRecord(touching, answerTo(recordQuestion(touching)))
    : { differences: differences(touching), counted: null, tops: [] }

interface Wide {
  readonly workspace: WorkspaceId
  readonly whole: Touching
  readonly asker: PersonId
}

/** What a wide change does, asked of the thread: nobody else waits for it. */
export async function askEffects(
  parts: Parts,
  { workspace, whole, asker }: Wide,
  { signal, onProgress }: Patience = {},
): Promise<ImpactAt[]> {
  const instants = wideInstants(whole)
  const told: ImpactAt[] = []
  for (const [index, at] of instants.entries()) {
    const patience: Patience = {
      ...(signal === undefined ? {} : { signal }),
      ...(onProgress === undefined
        ? {}
        : { onProgress: done => onProgress((index + done) / instants.length) }),
    }
    const answer = await askWide(parts, { workspace, asked: wideQuestion(whole, at, asker) }, patience)
    told.push(wideImpact(whole, at, answer))
  }
  return told
}

/** What a wide change will have done, asked of the thread before it is written. */
export const askRecord = async (parts: Parts, { workspace, whole }: Omit<Wide, 'asker'>): Promise<Recorded> =>
  wideRecord(whole, await askWide(parts, { workspace, asked: recordQuestion(whole) }))

const askWide = (
  { thread }: Parts,
  { workspace, asked }: { readonly workspace: WorkspaceId; readonly asked: Asked },
  patience?: Patience,
): Promise<WideAnswer> => {
  const { sides, starts, people, isWeb, asker, mostRows } = asked
  const question = { starts, people, isWeb, asker, mostRows }
  const [was, is] = sides
  return ask<'effect'>(
    thread,
    { workspace, question: { kind: 'effect', time: is.time, ...question }, indexes: [was.index, is.index] },
    patience,
  )
}
