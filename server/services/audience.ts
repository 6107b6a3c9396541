import type { PersonId } from '#core/base/ids.ts'
import { announce, closeStreams, forgetEvents, type Hub } from '../live/hub.ts'
import type { Follower } from '../store/log.ts'
import type { Audience as StoredAudience } from '../store/news.ts'
import { type Asker, maySee } from './asker.ts'
import { knowsOf } from './audit-event.ts'

/** Whom something concerns, as it lies in the log, ready to be asked of each who listens. */
export interface Audience extends Omit<StoredAudience, 'people'> {
  readonly people: ReadonlySet<PersonId>
}

export const isInAudience = (
  reader: Asker,
  { isAll = false, people, events = [], node }: Audience,
): boolean =>
  isAll ||
  people.has(reader.person) ||
  events.some(event => event.person === reader.person || knowsOf(reader, event)) ||
  (node !== undefined && maySee(reader, node))

/** Tells open pages what was written, on whatever server. */
export const followerOfEvents = (hub: Hub<Asker, Audience>): Follower => ({
  load: () => forgetEvents(hub),
  hear: ({ id, news }) => {
    for (const [index, each] of news.entries())
      if (each.of === 'event') {
        const { workspace, revision, audience } = each
        const people = new Set(audience.people)
        announce(hub, { id: `${id}.${index}`, workspace, revision, audience: { ...audience, people } })
      }
  },
})

/** Ends the streams of sign-ins that are no more. */
export const followerOfEnds = (hub: Hub<Asker, Audience>): Follower => ({
  load: () => {},
  hear: ({ news }) => {
    for (const each of news) if (each.of === 'sign-ins') for (const sid of each.sids) closeStreams(hub, sid)
  },
})
