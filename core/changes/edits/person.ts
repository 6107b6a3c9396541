import { rowOf, rowsBy } from '../../base/collection.ts'
import type { HandleId, PersonId, PictureId } from '../../base/ids.ts'
import { type Instant, isLive } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import type { Privilege } from '../../levels/privilege.ts'
import { rankFor, type Target } from '../../access/powers.ts'
import type { Person } from '../../people/person.ts'
import type { Snapshot } from '../../state/state.ts'
import { type Context, type EditRule, lacksPrivilege, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { claimHandle } from './handle.ts'

export interface SuspendPerson {
  readonly kind: 'person.suspend'
  readonly person: PersonId
}

/** Access ends now, all else is kept. */
export const suspend: EditRule<SuspendPerson> = {
  kind: 'person.suspend',
  lacks: (context, edit) => lacksOver(context, edit.person, 'suspend'),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.persons, edit.person)
    if (before?.status !== 'active') return refused({ code: 'unknown', what: 'person' })
    return ok([{ table: 'persons', id: before.id, before, after: { ...before, status: 'suspended' } }])
  },
}

export interface ReactivatePerson {
  readonly kind: 'person.reactivate'
  readonly person: PersonId
}

export const resume: EditRule<ReactivatePerson> = {
  kind: 'person.reactivate',
  lacks: (context, edit) => lacksOver(context, edit.person, 'suspend'),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.persons, edit.person)
    if (before?.status !== 'suspended') return refused({ code: 'unknown', what: 'person' })
    return ok([{ table: 'persons', id: before.id, before, after: { ...before, status: 'active' } }])
  },
}

export interface EndPerson {
  readonly kind: 'person.end'
  readonly person: PersonId
  readonly until: Instant | null
}

/** When a person's time here ends by itself. */
export const endPerson: EditRule<EndPerson> = {
  kind: 'person.end',
  lacks: (context, edit) => lacksOver(context, edit.person, 'suspend'),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.persons, edit.person)
    if (before === undefined || before.status === 'removed')
      return refused({ code: 'unknown', what: 'person' })
    const wrong = wrongSpan(context, before.from, edit.until)
    if (wrong !== undefined) return refused(wrong)
    return ok([{ table: 'persons', id: before.id, before, after: { ...before, until: edit.until } }])
  },
}

export interface DescribePerson {
  readonly kind: 'person.describe'
  readonly person: PersonId
  readonly name?: string | undefined
  readonly handle?: HandleId | null | undefined
  readonly title?: string | undefined
  readonly department?: string | undefined
  readonly country?: string | undefined
  readonly picture?: PictureId | null | undefined
}

/** How somebody is called: one's own affair, or that of who edits profiles. */
export const describePerson: EditRule<DescribePerson> = {
  kind: 'person.describe',
  lacks: (context, edit) => lacksDescribing(context, edit.person),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.persons, edit.person)
    if (before === undefined || before.status === 'removed')
      return refused({ code: 'unknown', what: 'person' })
    const { name = before.name, title = before.title, department = before.department } = edit
    const { country = before.country, picture = before.picture, handle = before.handle } = edit
    const claimed =
      handle === null || handle === before.handle ? ok([]) : claimHandle(context, before.id, handle)
    if (!claimed.ok) return claimed
    const after: Person = { ...before, name, title, department, country, picture, handle }
    return ok([{ table: 'persons', id: before.id, before, after }, ...claimed.value])
  },
}

export const lacksDescribing = (context: Context, id: PersonId): Refusal | undefined =>
  id === context.author ? undefined : lacksOver(context, id, 'edit profiles')

/**
 * A privilege over that person, held through a role that outranks the person's highest. Owners may act
 * on owners; oneself is no matter of rank.
 */
export function lacksOver(context: Context, id: PersonId, privilege: Privilege): Refusal | undefined {
  const { before, author } = context
  const person = rowOf(before.state.persons, id)
  if (person === undefined || person.status === 'removed') return { code: 'unknown', what: 'person' }
  const teams = rowsBy(before.state.memberships, 'person', id).map(each => each.team)
  const target: Target = { over: person.kind, teams }
  if (lacksPrivilege(context, 'view people', target) !== undefined) return { code: 'unknown', what: 'person' }
  const rank = rankFor(before, author, { privilege, target })
  if (rank === undefined) return { code: 'privilege-missing', privilege }
  const isFree = id === author || lacksPrivilege(context, 'own') === undefined
  return isFree || highestRank(before, id) < rank ? undefined : { code: 'outranked', person: id }
}

function highestRank(snapshot: Snapshot, id: PersonId): number {
  const ranks = rowsBy(snapshot.state.holdings, 'person', id)
    .filter(holding => isLive(holding, snapshot.at))
    .map(holding => rowOf(snapshot.state.roles, holding.role)?.rank ?? 0)
  return Math.max(0, ...ranks)
}
