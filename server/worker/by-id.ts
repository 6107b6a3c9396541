import { idsIn, placesIn, sizesOf, type VisiblePlace } from '#core/access/by-id.ts'
import { type EvaluationContext, evaluationOf, personById } from '#core/access/evaluation-context.ts'
import { type Answers, answersFor, rootsIn, visibleIn } from '#core/access/what.ts'
import { rowOf, rowsSinceBase } from '#core/base/collection.ts'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { idOf, numberOf } from '#core/base/numbering.ts'
import { none } from '#core/base/vector.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { rootOf, type Snapshot, type State } from '#core/state/state.ts'
import { ask, type Thread } from './asking.ts'
import { answer } from './question.ts'

/** What the thread may be asked, in ids; little is answered in its place. */

/** With more segments than this the thread is asked: to go through them all would hold up others for milliseconds. */
const segmentsAtOnce = 40_000
/** Of more places than this the thread makes a list. */
const placesAtOnce = 5000
/** With more than this it is worth having the thread from the start: it will be asked what wide changes do. */
const threadFrom = 5000

export const isLarge = (state: State): boolean => sizesOf(state).segments > threadFrom

export interface Seeing {
  readonly workspace: WorkspaceId
  readonly snapshot: Snapshot
  readonly person: PersonId
}

/** All that somebody sees, segment by segment, each after the one that it stands in. */
export const visiblePlaces = async (thread: Thread, of: Seeing): Promise<Iterable<VisiblePlace>> =>
  placesIn(of.snapshot.state, await listOf(thread, of, 'seen'))

/** The places that somebody sees without what they lie in. */
export const visibleRoots = async (thread: Thread, of: Seeing): Promise<NodeId[]> =>
  idsIn(of.snapshot.state, await listOf(thread, of, 'roots'))

const inPlace = { seen: visibleIn, roots: rootsIn }

async function listOf(
  thread: Thread,
  { workspace, snapshot, person }: Seeing,
  kind: keyof typeof inPlace,
): Promise<Int32Array> {
  const { index } = snapshot.state
  const evaluation = evaluationOf(snapshot)
  const number = personById(evaluation, person)
  if (number === none) return new Int32Array()
  if (sizesOf(snapshot.state).segments <= segmentsAtOnce) return inPlace[kind](answersFor(evaluation, number))
  const question = { kind, time: snapshot.at, person: number } as const
  return ask<typeof kind>(thread, { workspace, question, indexes: [index, index] })
}

const asked = new WeakMap<EvaluationContext, Map<number, Promise<Answers>>>()
/** As many as are kept where they are worked out. */
const answersKept = 64

/** All that somebody may do, by number: worked out by the thread where that takes long, once for a snapshot. */
export function answersOf(
  thread: Thread,
  { workspace, snapshot }: Omit<Seeing, 'person'>,
  person: number,
): Promise<Answers> {
  const { index } = snapshot.state
  const evaluation = evaluationOf(snapshot)
  if (sizesOf(snapshot.state).segments <= segmentsAtOnce)
    return Promise.resolve(answersFor(evaluation, person))
  const kept = asked.get(evaluation) ?? new Map<number, Promise<Answers>>()
  asked.set(evaluation, kept)
  const before = kept.get(person)
  if (before !== undefined) return before
  const [oldest] = kept.size < answersKept ? [] : kept.keys()
  if (oldest !== undefined) kept.delete(oldest)
  const question = { kind: 'answers', time: snapshot.at, person } as const
  const answers = ask<'answers'>(thread, { workspace, question, indexes: [index, index] }).then(
    bySegment => ({ index, bySegment }),
  )
  // One that failed is asked anew.
  answers.catch(() => kept.delete(person))
  kept.set(person, answers)
  return answers
}

/** A page of the places that a person sees, or saw at a past instant, as far as an asker may be told now. */
export interface PlacesAsked {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly asker: PersonId
  /** Whether the asker may be told of all that they may name, not just of where they share. */
  readonly mayCheck: boolean
  /** Whether the asker may name what they do not see, but for what lies in these. */
  readonly outlinesBut: readonly NodeId[] | null
  /** Then, and when it is asked. */
  readonly then: Snapshot
  readonly now: Snapshot
  readonly from: number
  readonly count: number
}

export interface PlacesListed {
  readonly total: number
  readonly listed: readonly { readonly id: NodeId; readonly actions: ActionSet }[]
}

export async function listedPlaces(thread: Thread, query: PlacesAsked): Promise<PlacesListed> {
  const { workspace, then, now, mayCheck, from, count } = query
  const { index } = then.state
  const numberIn = (id: NodeId) => numberOf(index.nodes, id) ?? none
  const question = {
    kind: 'places',
    time: then.at,
    now: now.at,
    gone: then.state === now.state ? [] : goneSince(then.state, now.state),
    person: numberOf(index.persons, query.person) ?? none,
    asker: numberOf(now.state.index.persons, query.asker) ?? none,
    root: numberIn(rootOf(then.state).id),
    mayCheck,
    outlinesBut: query.outlinesBut?.map(numberIn) ?? null,
    from,
    count,
  } as const
  const indexes = [index, now.state.index] as const
  const isSmall = sizesOf(then.state).places <= placesAtOnce
  const { total, listed } = isSmall
    ? answer<'places'>(question, indexes)
    : await ask<'places'>(thread, { workspace, question, indexes })
  return {
    total,
    listed: listed.map(({ node, actions }) => ({ id: idOf(index.nodes, node) as NodeId, actions })),
  }
}

/** The places of a past state that are no more, by number. */
function goneSince(past: State, present: State): number[] {
  const gone: number[] = []
  for (const { id } of rowsSinceBase(past.nodes))
    if (rowOf(present.nodes, id) === undefined) gone.push(numberOf(past.index.nodes, id) ?? none)
  return gone
}
