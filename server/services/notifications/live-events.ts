import { topicsOfPlaces } from '#contract/topics.ts'
import { evaluationOf, personById } from '#core/access/evaluation-context.ts'
import { answersFor, rootsIn } from '#core/access/what.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { numberOf } from '#core/base/numbering.ts'
import { none, read } from '#core/base/vector.ts'
import { type AccessIndex, inTree } from '#core/index/layout.ts'
import { announce, closeStreams, forgetEvents, type Hub } from '../../live/hub.ts'
import type { Follower } from '../../store/log.ts'
import type { Concern } from '../../store/news.ts'
import { type Asker, maySee } from '../viewer/asker.ts'
import { isPlaceKnown, knowsOf } from '../oversight/audit-event.ts'
import { isLarge } from '../viewer/visible.ts'

/** Some topics and whom they concern, as it lies in the log, ready to be asked of each who listens. */
export interface LiveConcern extends Omit<Concern, 'people'> {
  readonly people: ReadonlySet<PersonId>
}

/** The topics of an event that a reader may know of, as things are now. */
export function topicsFor(reader: Asker, concerns: readonly LiveConcern[]): readonly string[] {
  const topics = new Set(concerns.flatMap(each => (concernsReader(reader, each) ? each.topics : [])))
  return [...topics].filter(topic => isTold(reader, topic))
}

function concernsReader(reader: Asker, concern: LiveConcern): boolean {
  const { isAll = false, isOfMembers = false, people, subjects = [] } = concern
  if (isAll || (isOfMembers && !reader.subject.isGuest) || people.has(reader.person)) return true
  return (
    subjects.some(subject => subject.person === reader.person || knowsOf(reader, subject)) ||
    concernsPlace(reader, concern)
  )
}

const concernsPlace = (reader: Asker, { node, above }: LiveConcern): boolean =>
  (node !== undefined && maySee(reader, node)) ||
  (above !== undefined && !isPlaceKnown(reader, above) && seesBelow(reader, above))

/** Whether somebody sees anything below a place that they do not see: one of those is seen without what it lies in. */
function seesBelow({ snapshot, person }: Asker, above: NodeId): boolean {
  const { index } = snapshot.state
  // In a large workspace it would take longer than an explanation is open.
  if (isLarge(index)) return false
  const evaluation = evaluationOf(snapshot)
  const roots = rootsIn(answersFor(evaluation, personById(evaluation, person)))
  const top = numberOf(index.nodes, above)
  return top !== undefined && roots.some(root => isWithin(index, root, top))
}

function isWithin({ tree }: AccessIndex, node: number, top: number): boolean {
  let up = node
  while (up !== none && up !== top) up = read(tree, up * inTree.width + inTree.parent)
  return up === top
}

/** A topic of a place names it: to whoever may know that it is there. */
function isTold(reader: Asker, topic: string): boolean {
  const [kind = '', place] = topic.split(':')
  const isOfPlace = (topicsOfPlaces as readonly string[]).includes(kind)
  return !isOfPlace || isPlaceKnown(reader, place as NodeId)
}

/** Tells open pages what was written, on whatever server. */
export const followerOfEvents = (hub: Hub<Asker, readonly LiveConcern[]>): Follower => ({
  load: () => forgetEvents(hub),
  hear: ({ id, news }) => {
    for (const [index, each] of news.entries())
      if (each.of === 'event') {
        const { workspace, revision } = each
        const content = each.concerns.map(concern => ({ ...concern, people: new Set(concern.people) }))
        announce(hub, { id: `${id}.${index}`, workspace, revision, content })
      }
  },
})

/** Ends the streams of sign-ins that are no more. */
export const followerOfEnds = (hub: Hub<Asker, readonly LiveConcern[]>): Follower => ({
  load: () => {},
  hear: ({ news }) => {
    for (const each of news) if (each.of === 'sign-ins') for (const sid of each.sids) closeStreams(hub, sid)
  },
})
