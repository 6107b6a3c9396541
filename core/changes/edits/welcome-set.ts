import { allRows, rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { isSame } from '../../base/same.ts'
import type { Offer, WelcomeSet } from '../../rules/offer.ts'
import { type Context, type EditRule, isTaken, lacksPrivilege, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { goneWith, isHeld } from '../../state/naming.ts'
import type { WelcomeSetId } from '../../base/ids.ts'

/** Named offers, and links by which people come in by themselves. */

export interface CreateWelcomeSet {
  readonly kind: 'welcome.create'
  readonly welcome: WelcomeSetId
  readonly name: string
  readonly note: string
  readonly offer: Offer
}

/** A named offer. It gives nothing by itself: what is offered is judged when somebody is invited with it. */
export const createWelcomeSet: EditRule<CreateWelcomeSet> = {
  kind: 'welcome.create',
  lacks: (context, { offer }) => lacksOffering(context, offer),
  apply: (context, { welcome: id, name, note, offer }) => {
    if (isTaken(context.now.state, 'welcomeSets', id)) return refused({ code: 'already-there', what: 'id' })
    const wrong = wrongOffer(context, offer)
    if (wrong !== undefined) return refused(wrong)
    return ok([{ table: 'welcomeSets', id, before: null, after: { id, name, note, offer } }])
  },
}

export interface ChangeWelcomeSet {
  readonly kind: 'welcome.change'
  readonly welcome: WelcomeSetId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly offer?: Offer | undefined
}

export const changeWelcomeSet: EditRule<ChangeWelcomeSet> = {
  kind: 'welcome.change',
  lacks: (context, edit) =>
    lacksKeeping(context, rowOf(context.before.state.welcomeSets, edit.welcome), edit.offer),
  apply: (context, { welcome: id, name, note, offer }) => {
    const before = rowOf(context.now.state.welcomeSets, id)
    if (before === undefined) return refused({ code: 'unknown', what: 'welcome set' })
    const wrong = offer === undefined ? undefined : wrongOffer(context, offer)
    if (wrong !== undefined) return refused(wrong)
    const after: WelcomeSet = {
      ...before,
      name: name ?? before.name,
      note: note ?? before.note,
      offer: offer ?? before.offer,
    }
    return ok([{ table: 'welcomeSets', id, before, after }])
  },
}

export interface DeleteWelcomeSet {
  readonly kind: 'welcome.delete'
  readonly welcome: WelcomeSetId
}

/** One that a link offers is in use. What was offered with it stays. */
export const deleteWelcomeSet: EditRule<DeleteWelcomeSet> = {
  kind: 'welcome.delete',
  lacks: (context, { welcome }) => lacksKeeping(context, rowOf(context.before.state.welcomeSets, welcome)),
  apply: ({ now: { state } }, { welcome }) => {
    const before = rowOf(state.welcomeSets, welcome)
    if (before === undefined) return refused({ code: 'unknown', what: 'welcome set' })
    return isHeld(state, 'welcomeSets', welcome)
      ? refused({ code: 'in-use', what: 'welcome set' })
      : ok(goneWith(state, 'welcomeSets', before))
  },
}

/** Who may invite people of a kind may prepare what they are offered. */
export const lacksOffering = (context: Context, { as }: Pick<Offer, 'as'>): Refusal | undefined =>
  lacksPrivilege(context, as === 'guest' ? 'invite guests' : 'invite members')

/**
 * What managed a welcome set takes: to offer what it offers, and what it is to offer. What a link offers with it is
 * given by the rights of the link's maker, so nobody else changes it.
 */
export function lacksKeeping(
  context: Context,
  kept: WelcomeSet | undefined,
  next?: Offer,
): Refusal | undefined {
  if (kept === undefined) return { code: 'unknown', what: 'welcome set' }
  const lacks = lacksOffering(context, kept.offer)
  if (lacks !== undefined || next === undefined || isSame(kept.offer, next)) return lacks
  return isOfferedByAnother(context, kept)
    ? { code: 'not-its-maker', what: 'welcome set' }
    : lacksOffering(context, next)
}

export const isOfferedByAnother = ({ before, author }: Context, { id }: WelcomeSet): boolean =>
  allRows(before.state.joinLinks).some(link => link.welcome === id && link.by !== author)

export function wrongOffer(context: Context, { as, role, from, until }: Offer): Refusal | undefined {
  if (as === 'guest' && role !== null) return { code: 'guest-rule', rule: 'no role', person: null }
  return wrongSpan(context, from, until)
}
