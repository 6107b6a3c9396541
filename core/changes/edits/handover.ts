import { mayUse } from '../../access/powers.ts'
import { isActive } from '../../access/subject.ts'
import { allRows, rowOf, rowsBy } from '../../base/collection.ts'
import type { HandoverId, HoldingId, PersonId, RoleId } from '../../base/ids.ts'
import { always } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import type { Handover } from '../../people/asking.ts'
import type { Holding } from '../../people/person.ts'
import { guestRole, ownerRole } from '../../people/role.ts'
import type { RecordChange, Snapshot, State } from '../../state/state.ts'
import { type EditRule, isTaken, lacksPrivilege } from '../context.ts'
import { gone } from '../../state/naming.ts'

/** An Owner offers another member to be Owner instead. */
export interface OfferHandover {
  readonly kind: 'handover.offer'
  readonly handover: HandoverId
  readonly to: PersonId
  readonly keeps: RoleId
  readonly reason: string
}

/** An Owner offers a member to be Owner instead; what the Owner holds afterwards is said with it. */
export const offerHandover: EditRule<OfferHandover> = {
  kind: 'handover.offer',
  lacks: context => lacksPrivilege(context, 'own'),
  apply: ({ now, author }, { handover: id, to, keeps, reason }) => {
    const { state, at } = now
    const person = rowOf(state.persons, to)
    if (person?.kind !== 'member' || !isActive(now, person) || to === author)
      return refused({ code: 'unknown', what: 'person' })
    if (rowOf(state.roles, keeps) === undefined || keeps === guestRole || keeps === ownerRole)
      return refused({ code: 'unknown', what: 'role' })
    if (isOwner(now, to)) return refused({ code: 'already-there', what: 'role' })
    if (isTaken(state, 'handovers', id) || allRows(state.handovers).some(each => each.from === author))
      return refused({ code: 'already-there', what: 'handover' })
    const after: Handover = { id, from: author, to, at, reason, keeps }
    return ok([{ table: 'handovers', id, before: null, after }])
  },
}

export interface WithdrawHandover {
  readonly kind: 'handover.withdraw'
  readonly handover: HandoverId
}

export const withdrawHandover: EditRule<WithdrawHandover> = {
  kind: 'handover.withdraw',
  lacks: ({ before, author }, { handover }) =>
    rowOf(before.state.handovers, handover)?.from === author
      ? undefined
      : { code: 'unknown', what: 'handover' },
  apply: ({ now }, { handover }) => {
    const before = rowOf(now.state.handovers, handover)
    return before === undefined
      ? refused({ code: 'unknown', what: 'handover' })
      : ok([gone('handovers', before)])
  },
}

export interface AnswerHandover {
  readonly kind: 'handover.answer'
  readonly handover: HandoverId
  readonly accepted: boolean
  /** Ids for the role that the new Owner gets and the one that the earlier one keeps. */
  readonly holding: HoldingId
  readonly kept: HoldingId
}

/**
 * By whom it is offered. It gives by the right of who offered, as that is now: an offer of somebody who is no Owner
 * any more is over.
 */
export const answerHandover: EditRule<AnswerHandover> = {
  kind: 'handover.answer',
  lacks: ({ before, author }, { handover }) =>
    rowOf(before.state.handovers, handover)?.to === author
      ? undefined
      : { code: 'unknown', what: 'handover' },
  apply: ({ now }, { handover, accepted, holding, kept }) => {
    const before = rowOf(now.state.handovers, handover)
    if (before === undefined) return refused({ code: 'unknown', what: 'handover' })
    if (!accepted) return ok([gone('handovers', before)])
    if (!mayUse(now, before.from, 'own')) return refused({ code: 'handover-over' })
    return ok([gone('handovers', before), ...passedOn(now.state, before, { holding, kept })])
  },
}

function passedOn(
  state: State,
  { from, to, keeps }: Handover,
  ids: { readonly holding: HoldingId; readonly kept: HoldingId },
): RecordChange[] {
  const given = rowsBy(state.holdings, 'person', from)
  const isKept = given.some(each => each.role === keeps && each.scope.over === 'workspace')
  return [
    madeHolding(ids.holding, to, ownerRole),
    ...given.filter(each => each.role === ownerRole).map(each => gone('holdings', each)),
    ...(isKept ? [] : [madeHolding(ids.kept, from, keeps)]),
  ]
}

function madeHolding(id: HoldingId, person: PersonId, role: RoleId): RecordChange {
  const after: Holding = { id, person, role, scope: { over: 'workspace' }, ...always }
  return { table: 'holdings', id, before: null, after }
}

const isOwner = ({ state }: Snapshot, person: PersonId): boolean =>
  rowsBy(state.holdings, 'person', person).some(each => each.role === ownerRole)
