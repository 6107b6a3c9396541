import { rowOf, rowsBy } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { isLive } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { rungFor, type Target } from '../../access/powers.ts'
import type { Moment } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, lacksPrivilege } from '../context.ts'
import type { Refusal } from '../refusal.ts'

/** Access ends now, all else is kept. */
export const suspend: EditRule<EditOf<'person.suspend'>> = {
  kind: 'person.suspend',
  lacks: (context, edit) => lacksRankOver(context, edit.person),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.persons, edit.person)
    if (before?.status !== 'active') return refused({ code: 'unknown', what: 'person' })
    return ok([{ table: 'persons', id: before.id, before, after: { ...before, status: 'suspended' } }])
  },
}

export const resume: EditRule<EditOf<'person.resume'>> = {
  kind: 'person.resume',
  lacks: (context, edit) => lacksRankOver(context, edit.person),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.persons, edit.person)
    if (before?.status !== 'suspended') return refused({ code: 'unknown', what: 'person' })
    return ok([{ table: 'persons', id: before.id, before, after: { ...before, status: 'active' } }])
  },
}

/**
 * The privilege over that person, held through a role that outranks the person's highest. Owners may act
 * on owners; oneself is no matter of rank.
 */
export function lacksRankOver(context: Context, id: PersonId): Refusal | undefined {
  const { before, author } = context
  const person = rowOf(before.state.persons, id)
  if (person === undefined || person.status === 'removed') return { code: 'unknown', what: 'person' }
  const teams = rowsBy(before.state.memberships, 'person', id).map(each => each.team)
  const target: Target = { over: person.kind, teams }
  if (lacksPrivilege(context, 'view people', target) !== undefined) return { code: 'unknown', what: 'person' }
  const rung = rungFor(before, author, { privilege: 'suspend', target })
  if (rung === undefined) return { code: 'privilege-missing', privilege: 'suspend' }
  const isFree = id === author || lacksPrivilege(context, 'own') === undefined
  return isFree || highestRung(before, id) < rung ? undefined : { code: 'outranked', person: id }
}

function highestRung(moment: Moment, id: PersonId): number {
  const rungs = rowsBy(moment.state.holdings, 'person', id)
    .filter(holding => isLive(holding, moment.at))
    .map(holding => rowOf(moment.state.roles, holding.role)?.rung ?? 0)
  return Math.max(0, ...rungs)
}
