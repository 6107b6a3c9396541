import type { Sides } from '../access/classes.ts'
import { startsAt } from '../access/side-by-side.ts'
import { personById, type EvaluationContext, evaluationsOf } from '../access/evaluation-context.ts'
import { none } from '../base/vector.ts'
import type { PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { isSame } from '../base/same.ts'
import { instantsOf } from '../changes/instants.ts'
import { type Steps, toEnd } from '../changes/steps.ts'
import {
  everybodyIn,
  type AffectedScope,
  affectedScopeOf,
  type Transition,
} from '../changes/affected-scope.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { type ColumnDifference, columnDifferences } from '../access/column-differences.ts'
import { type DiffQuery, accessDiffOf } from '../access/access-diff.ts'
import { type PowerDifference, powerDifferences, powerInstants, peopleWithPowers } from './powers.ts'
import { type Difference, differencesFrom } from '../access/diff-rows.ts'
import type { Counted } from '../access/totals.ts'

/** What a change set makes different from one instant on, until the next one listed. */
export interface ImpactAt {
  readonly at: Instant
  readonly differences: readonly Difference[]
  /** Places with a difference that the asker gives access above, and cannot see. */
  readonly hiddenPlaces: number
  /** What all comes to, where it is too much to be told row by row: then there are no differences. */
  readonly counted: Counted | null
  /** The same for restricted columns of boards. */
  readonly columns: readonly ColumnDifference[]
  /** What people may do in the workspace. */
  readonly powers: readonly PowerDifference[]
}

export const sidesOf = ({ before, after }: Pick<Transition, 'before' | 'after'>): Sides<EvaluationContext> =>
  evaluationsOf(before, after)
export const indexesOf = ([was, is]: Sides<EvaluationContext>) => [was.index, is.index] as const
export const personCount = ([was, is]: Sides<EvaluationContext>) =>
  Math.max(was.index.persons.length, is.index.persons.length)

/**
 * Exactly who gains and loses what where: first now, then at each later instant from which on the
 * difference is another one, because something begins or ends. Invited people count as if they were
 * here, and the web as one person. Places that the change set makes or removes count as nothing on their missing side.
 *
 * With an asker as far as that person may know: where they give access, and what becomes of themselves.
 */
export const impact = (transition: Transition, asker?: PersonId): ImpactAt[] =>
  toEnd(impactIn(transition, asker))

export function* impactIn(transition: Transition, asker?: PersonId): Steps<ImpactAt[]> {
  const { roots, people, isWeb } = affectedScopeOf(transition)
  const reach = { roots, isWeb, people: people === 'everybody' ? everybodyIn(transition) : [...people] }
  const powerful = peopleWithPowers(transition)
  const now = transition.after.at
  // What lies in no place changes by no start or end in one; and what roles give, by none but theirs.
  const starts = startsAt(indexesOf(sidesOf(transition)), roots)
  const atPlaces = new Set(
    starts.length === 0 ? [now] : instantsOf(transition, { starts, people: reach.people }),
  )
  const atRoles = new Set([now, ...powerInstants(transition, powerful)])
  const found: ImpactAt[] = []
  let last: Omit<ImpactAt, 'at'> = {
    differences: [],
    hiddenPlaces: 0,
    counted: null,
    columns: [],
    powers: [],
  }
  const instants = [...new Set([...atPlaces, ...atRoles])].sort((a, b) => a - b)
  for (const [index, at] of instants.entries()) {
    yield index / instants.length
    const both = {
      before: snapshotOf(transition.before.state, at),
      after: snapshotOf(transition.after.state, at),
    }
    const next = {
      ...last,
      ...(atPlaces.has(at) ? placesAt(reach, both, asker) : {}),
      ...(atRoles.has(at) ? { powers: powerDifferences(powerful, both.before, both.after) } : {}),
    }
    if (found.length === 0 || !isSame(next, last)) found.push({ at, ...next })
    last = next
  }
  return found
}

/** What is different from one snapshot to another by these changes, or by the time that passed for these records. */
export const differences = (transition: Transition): Difference[] =>
  toldOf(diffQueryOf(affectedScopeOf(transition), transition)).differences

type Both = Pick<Transition, 'before' | 'after'>

const placesAt = (
  reach: Omit<AffectedScope, 'people'> & { readonly people: readonly PersonId[] },
  both: Both,
  asker?: PersonId,
) => ({
  ...toldOf(diffQueryOf(reach, both, asker)),
  columns: columnDifferences(reach, both.before, both.after),
})

function toldOf(query: Omit<DiffQuery, 'mostRows'>) {
  const { rows, hidden } = accessDiffOf({ ...query, mostRows: Number.POSITIVE_INFINITY })
  const differences = rows === null ? [] : differencesFrom(indexesOf(query.sides), rows)
  return { differences, hiddenPlaces: hidden }
}

/** For whom and where; everybody by number, who is looked at in numbers alone. */
interface Whom extends Omit<AffectedScope, 'people'> {
  readonly people: Iterable<PersonId> | 'everybody'
}

export function diffQueryOf(
  { roots, people, isWeb }: Whom,
  both: Both,
  asker?: PersonId,
): Omit<DiffQuery, 'mostRows'> {
  const sides = sidesOf(both)
  return {
    sides,
    starts: startsAt(indexesOf(sides), roots),
    people:
      people === 'everybody'
        ? new Int32Array(personCount(sides)).map((_, number) => number)
        : numbersOf(sides, people),
    isWeb,
    asker: asker === undefined ? none : numberIn(sides, asker),
  }
}

function numbersOf(sides: Sides<EvaluationContext>, people: Iterable<PersonId>): Int32Array {
  const numbers = new Set<number>()
  for (const id of people) numbers.add(numberIn(sides, id))
  numbers.delete(none)
  return Int32Array.from(numbers)
}

/** A person has the same number on both sides. */
function numberIn([was, is]: Sides<EvaluationContext>, id: PersonId): number {
  const number = personById(was, id)
  return number === none ? personById(is, id) : number
}
