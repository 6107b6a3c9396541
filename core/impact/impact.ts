import { actionsAsIfActive } from '../access/evaluate.ts'
import { placeOf } from '../access/place.ts'
import { isPublic, theWeb } from '../access/public.ts'
import { isComing, subjectOf } from '../access/subject.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { instantsOf, type Reach, reachOf, type Touching } from '../changes/touched.ts'
import { actions, type ActionSet, noActions } from '../levels/action.ts'
import { isSame } from '../base/same.ts'
import { momentOf } from '../state/moment.ts'
import type { Moment } from '../state/state.ts'
import { type ColumnDifference, columnDifferences } from '../access/column-differences.ts'
import { type PowerDifference, powerDifferences, powerInstants, peopleWithPowers } from './powers.ts'

/** What one person has at one place without a change set and with it. */
export interface Difference {
  readonly person: PersonId
  readonly node: NodeId
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
  const atPlaces = new Set(reach.nodes.length === 0 ? [now] : instantsOf(whole, reach))
  const atRoles = new Set([now, ...powerInstants(whole, powerful)])
  const found: ImpactAt[] = []
  let told: Omit<ImpactAt, 'at'> = { differences: [], columns: [], powers: [] }
  for (const at of [...new Set([...atPlaces, ...atRoles])].sort((a, b) => a - b)) {
    const was = momentOf(whole.before.state, at)
    const will = momentOf(whole.after.state, at)
    const next = {
      ...told,
      ...(atPlaces.has(at) ? placesAt(reach, was, will) : {}),
      ...(atRoles.has(at) ? { powers: powerDifferences(powerful, was, will) } : {}),
    }
    if (found.length === 0 || !isSame(next, told)) found.push({ at, ...next })
    told = next
  }
  return found
}

const placesAt = (reach: Reach, was: Moment, will: Moment) => ({
  differences: differencesIn(reach, was, will),
  columns: columnDifferences(reach, was, will),
})

/** What is different from one moment to another by these changes, or by the time that passed for these records. */
export const differences = (touching: Touching): Difference[] =>
  differencesIn(reachOf(touching), touching.before, touching.after)

function differencesIn({ nodes, people }: Reach, was: Moment, will: Moment): Difference[] {
  return nodes.flatMap(node =>
    people.flatMap(person => {
      const difference = {
        person,
        node,
        before: heldAt(was, person, node),
        after: heldAt(will, person, node),
      }
      return difference.before === difference.after ? [] : [difference]
    }),
  )
}

function heldAt(moment: Moment, person: PersonId, node: NodeId): ActionSet {
  const subject = subjectOf(moment, person)
  const place = placeOf(moment, node)
  if (person === theWeb) return place !== undefined && isPublic(moment, place) ? onTheWeb : noActions
  if (subject === undefined || place === undefined || !(subject.isActive || isComing(moment, subject.person)))
    return noActions
  return actionsAsIfActive(moment, subject, place)
}

const onTheWeb = actions('see')
