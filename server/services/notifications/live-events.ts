import { seesBelow } from '#core/access/by-id.ts'
import { topicsOfPlaces } from '#contract/topics.ts'
import { checkColumn } from '#core/access/columns.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { announce, closeStreams, forgetEvents, type Hub } from '../../live/hub.ts'
import type { Follower } from '../../store/log.ts'
import type { Concern } from '../../store/news.ts'
import { type Asker, maySee } from '../viewer/asker.ts'
import { isPlaceKnown, knowsOf } from '../oversight/audit-event.ts'
import { isLarge } from '../../worker/by-id.ts'

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

const concernsPlace = (reader: Asker, { node, columns, above }: LiveConcern): boolean =>
  (node !== undefined && maySee(reader, node) && seesOneOf(reader, node, columns)) ||
  (above !== undefined && comesFromBelow(reader, above))

const seesOneOf = (
  { snapshot, person }: Asker,
  at: NodeId,
  columns: readonly ColumnId[] | undefined,
): boolean =>
  columns === undefined || columns.some(column => checkColumn(snapshot, person, { at, column }) !== 'none')

/** Whether a reader sees something below a place that they do not know. */
const comesFromBelow = (reader: Asker, above: NodeId): boolean =>
  !isPlaceKnown(reader, above) &&
  // In a large workspace it would take longer than an explanation is open.
  !isLarge(reader.snapshot.state) &&
  seesBelow(reader.snapshot, reader.person, above)

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
