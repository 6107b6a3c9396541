import { dayOf, endOfDay, startOfDay } from '#contract/dates.ts'
import type { OfferRequest } from '#contract/edit-requests.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { PlaceNamesView } from '#contract/views/onboarding.ts'

/** An offer as its form holds it: days instead of instants, places with their names. */
export interface OfferDraft {
  /** The welcome set that it is from; empty for none. */
  readonly welcome: string
  readonly as: 'member' | 'guest'
  /** Empty for the workspace's default one. */
  readonly role: string
  readonly teams: readonly string[]
  readonly places: readonly OfferedPlace[]
  /** Days, as YYYY-MM-DD; empty for at once, and for no end. */
  readonly from: string
  readonly through: string
}

export interface OfferedPlace {
  readonly node: string
  readonly gives: number | string
  readonly name: string
  readonly path: string
  /** What the author holds there: nobody gives more. */
  readonly atMost: number
}

/** Nothing offered yet, as whom the author may invite. */
export const emptyOfferOf = (privileges: readonly Privilege[]): OfferDraft => ({
  ...emptyOffer,
  as: privileges.includes('invite members') ? 'member' : 'guest',
})

const emptyOffer: OfferDraft = {
  welcome: '',
  as: 'member',
  role: '',
  teams: [],
  places: [],
  from: '',
  through: '',
}

export const offerOf = (
  { as, role, teams, places, from, through }: OfferDraft,
  timeZone: string,
): OfferRequest => ({
  as,
  role: as === 'guest' || role === '' ? null : role,
  teams: [...teams],
  places: places.map(({ node, gives }) => ({ node, gives })),
  from: from === '' ? null : startOfDay(from, timeZone),
  until: through === '' ? null : endOfDay(through, timeZone),
})

/** An offer that is there already, as its form holds it. */
export const draftOf = (
  offer: OfferRequest,
  { timeZone, names, welcome = '' }: { timeZone: string; names: PlaceNamesView; welcome?: string },
): OfferDraft => ({
  welcome,
  as: offer.as,
  role: offer.role ?? '',
  teams: offer.teams,
  places: offer.places.map(({ node, gives }) => ({
    node,
    gives,
    ...(names[node] ?? { name: 'a place', path: '', atMost: 1023 }),
  })),
  from: offer.from === null ? '' : dayOf(offer.from, timeZone),
  through: offer.until === null ? '' : dayOf(offer.until - 1, timeZone),
})
