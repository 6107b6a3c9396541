import { rowOf } from '../../base/collection.ts'
import type { JoinLinkId, WelcomeSetId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { JoinLink, Offer } from '../../rules/offer.ts'
import type { Snapshot, State } from '../../state/state.ts'
import { type Context, type EditRule, isTaken, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import { isOfDomain } from './invite.ts'
import { lacksOffering, wrongOffer } from './welcome-set.ts'
import type { Instant } from '../../base/instant.ts'

export interface CreateJoinLink {
  readonly kind: 'link.create'
  readonly link: JoinLinkId
  readonly name: string
  readonly until: Instant
  readonly domains: readonly string[]
  readonly most: number | null
  readonly welcome: WelcomeSetId | null
  readonly offer: Offer
}

/** A link by which people come in by themselves, with all that its maker may give when they do. */
export const createJoinLink: EditRule<CreateJoinLink> = {
  kind: 'link.create',
  lacks: (context, edit) => lacksOffering(context, offerOf(context.now.state, edit)),
  apply: (context, { link: id, name, until, domains, most, welcome, offer }) => {
    const { state, at } = context.now
    if (isTaken(state, 'joinLinks', id)) return refused({ code: 'already-there', what: 'id' })
    if (welcome !== null && rowOf(state.welcomeSets, welcome) === undefined)
      return refused({ code: 'unknown', what: 'welcome set' })
    const wrong = wrongSpan(context, null, until) ?? wrongOffer(context, offer)
    if (wrong !== undefined) return refused(wrong)
    const by = context.author
    const after: JoinLink = { id, name, by, at, until, domains, most, used: 0, welcome, offer }
    return ok([{ table: 'joinLinks', id, before: null, after }])
  },
}

/** By its maker only: what it gives, it gives by its maker's rights. */
export interface ChangeJoinLink {
  readonly kind: 'link.change'
  readonly link: JoinLinkId
  readonly name?: string | undefined
  readonly until?: Instant | undefined
  readonly domains?: readonly string[] | undefined
  readonly most?: number | null | undefined
}

/** Only its maker widens it: what it gives, it gives by its maker's rights. */
export const changeJoinLink: EditRule<ChangeJoinLink> = {
  kind: 'link.change',
  lacks: (context, { link }) => lacksChangingLink(context, link),
  apply: (context, { link: id, name, until, domains, most }) => {
    const before = rowOf(context.now.state.joinLinks, id)
    if (before === undefined) return refused({ code: 'unknown', what: 'link' })
    const wrong = until === undefined ? undefined : wrongSpan(context, null, until)
    if (wrong !== undefined) return refused(wrong)
    const after: JoinLink = {
      ...before,
      name: name ?? before.name,
      until: until ?? before.until,
      domains: domains ?? before.domains,
      most: most === undefined ? before.most : most,
    }
    return ok([{ table: 'joinLinks', id, before, after }])
  },
}

export interface WithdrawJoinLink {
  readonly kind: 'link.withdraw'
  readonly link: JoinLinkId
}

/** Nobody comes by it any more; who came stays. */
export const withdrawJoinLink: EditRule<WithdrawJoinLink> = {
  kind: 'link.withdraw',
  lacks: (context, { link }) => lacksWithdrawingLink(context, rowOf(context.before.state.joinLinks, link)),
  apply: ({ now }, { link }) => {
    const before = rowOf(now.state.joinLinks, link)
    return before === undefined ? refused({ code: 'unknown', what: 'link' }) : ok([gone('joinLinks', before)])
  },
}

/** Somebody comes by it: goes with the invitation that the link's maker gives by it. Never accepted from outside. */
export interface UseJoinLink {
  readonly kind: 'link.use'
  readonly link: JoinLinkId
  readonly mail: string
}

/** Counts somebody who comes by it. By its maker, on whose rights the invitation beside it is judged. */
export const takeJoinLink: EditRule<UseJoinLink> = {
  kind: 'link.use',
  lacks: ({ before, author }, { link }) =>
    rowOf(before.state.joinLinks, link)?.by === author ? undefined : { code: 'unknown', what: 'link' },
  apply: ({ now }, { link: id, mail }) => {
    const before = rowOf(now.state.joinLinks, id)
    if (before === undefined || !isLinkOpen(now, before)) return refused({ code: 'link-over' })
    if (before.domains.length > 0 && !isOfDomain(mail, before.domains))
      return refused({
        code: 'domain-not-welcome',
        as: offerOf(now.state, before).as,
        domains: before.domains,
      })
    return ok([{ table: 'joinLinks', id, before, after: { ...before, used: before.used + 1 } }])
  },
}

export const isLinkOpen = ({ at }: Snapshot, { until, most, used }: JoinLink): boolean =>
  at < until && (most === null || used < most)

/** What a link offers: its welcome set, as that is now, or what it holds itself. */
export const offerOf = (state: State, { welcome, offer }: Pick<JoinLink, 'welcome' | 'offer'>): Offer =>
  (welcome === null ? undefined : rowOf(state.welcomeSets, welcome)?.offer) ?? offer

export function lacksChangingLink({ before, author }: Context, id: JoinLinkId): Refusal | undefined {
  const link = rowOf(before.state.joinLinks, id)
  if (link === undefined) return { code: 'unknown', what: 'link' }
  return link.by === author ? undefined : { code: 'not-its-maker', what: 'link' }
}

export function lacksWithdrawingLink(context: Context, link: JoinLink | undefined): Refusal | undefined {
  if (link === undefined) return { code: 'unknown', what: 'link' }
  return link.by === context.author ? undefined : lacksOffering(context, offerOf(context.before.state, link))
}
