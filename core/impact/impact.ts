import { actionsIn } from '../access/evaluate.ts'
import { isPublicIn, theWeb } from '../access/public.ts'
import { isToldOf, nodeById, personById, sightOf } from '../access/sight.ts'
import { none } from '../base/column.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { instantsOf } from '../changes/instants.ts'
import type { Place } from '../changes/places.ts'
import { type Reach, reachOf, touchedPlaces, type Touching } from '../changes/touched.ts'
import { startsAt } from '../access/side-by-side.ts'
import { actions, type ActionSet, noActions } from '../levels/action.ts'
import { isSame } from '../base/same.ts'
import { momentOf } from '../state/moment.ts'
import type { Moment } from '../state/state.ts'
import { type ColumnDifference, columnDifferences } from '../access/column-differences.ts'
import { type PowerDifference, powerDifferences, powerInstants, peopleWithPowers } from './powers.ts'

/** What one person has at a place, and at what lies in it and answers alike, without a change set and with it. */
export interface Difference {
  readonly person: PersonId
  readonly node: NodeId
  /** How many places it speaks of, `node` included: the others lie below it. */
  readonly nodes: number
  readonly before: ActionSet
  readonly after: ActionSet
}

/** What a change set makes different from one instant on, until the next one listed. */
export interface ImpactAt {
  readonly at: Instant
  readonly differences: readonly Difference[]
  /** The same for restricted columns of boards. */
  readonly columns: readonly ColumnDifference[]
  /** What people may do in the workspace. */
  readonly powers: readonly PowerDifference[]
}

/**
 * Exactly who gains and loses what where: first now, then at each later instant from which on the
 * difference is another one, because something begins or ends. Invited people count as if they were
 * here, and the web as one person. Places that the change set makes or removes count as nothing on their missing side.
 */
export function impact(whole: Touching): ImpactAt[] {
  const reach = reachOf(whole)
  const powerful = peopleWithPowers(whole)
  const now = whole.after.at
  // What lies in no place changes by no start or end in one; and what roles give, by none but theirs.
  const indexes = [whole.before.state.index, whole.after.state.index] as const
  const starts = startsAt(indexes, reach.tops)
  const places = touchedPlaces(whole)
  const atPlaces = new Set(starts.length === 0 ? [now] : instantsOf(whole, { starts, people: reach.people }))
  const atRoles = new Set([now, ...powerInstants(whole, powerful)])
  const found: ImpactAt[] = []
  let told: Omit<ImpactAt, 'at'> = { differences: [], columns: [], powers: [] }
  for (const at of [...new Set([...atPlaces, ...atRoles])].sort((a, b) => a - b)) {
    const was = momentOf(whole.before.state, at)
    const will = momentOf(whole.after.state, at)
    const next = {
      ...told,
      ...(atPlaces.has(at) ? placesAt({ ...reach, places }, was, will) : {}),
      ...(atRoles.has(at) ? { powers: powerDifferences(powerful, was, will) } : {}),
    }
    if (found.length === 0 || !isSame(next, told)) found.push({ at, ...next })
    told = next
  }
  return found
}

interface Placed extends Reach {
  readonly places: readonly Place[]
}

const placesAt = (reach: Placed, was: Moment, will: Moment) => ({
  differences: differencesIn(reach, was, will),
  columns: columnDifferences(reach, was, will),
})

/** What is different from one moment to another by these changes, or by the time that passed for these records. */
export const differences = (touching: Touching): Difference[] =>
  differencesIn({ ...reachOf(touching), places: touchedPlaces(touching) }, touching.before, touching.after)

function differencesIn({ places, people }: Placed, was: Moment, will: Moment): Difference[] {
  return places.flatMap(place =>
    people.flatMap(person => {
      const before = heldAt(was, person, place.node)
      const after = heldAt(will, person, place.node)
      return before === after ? [] : [{ person, ...place, before, after }]
    }),
  )
}

function heldAt(moment: Moment, person: PersonId, node: NodeId): ActionSet {
  const sight = sightOf(moment)
  const place = nodeById(sight, node)
  if (place === none) return noActions
  if (person === theWeb) return isPublicIn(sight, place) ? onTheWeb : noActions
  const number = personById(sight, person)
  return number === none || !isToldOf(sight, number) ? noActions : actionsIn(sight, number, place)
}

const onTheWeb = actions('see')
