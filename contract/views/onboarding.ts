import { Type } from '@sinclair/typebox'
import { AccessiblePlaceView } from './access.ts'
import { PlaceName } from './names.ts'
import { Problem } from './problem.ts'
import { editRequest, offer } from '../edit-requests.ts'
import { instant, personKind, privilege } from '../terms.ts'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'

/** One address of a list, judged. */
export const AddressView = view('AddressView', {
  mail: Type.String(),
  name: Type.String(),
  verdict: oneOf(
    'new',
    'here already',
    'invited already',
    'suspended',
    'removed earlier',
    'twice in the list',
    'not an address',
    'domain not welcome',
  ),
  /** What was probably meant, where it looks like a slip. */
  meant: orNull(Type.String()),
  /** Its name is in another script, which not every mail server takes (SMTPUTF8). */
  isOfOtherScript: Type.Boolean(),
  person: orNull(Type.String()),
})
export type AddressView = View<typeof AddressView>

/** What somebody who comes by an offer could see and do: put together as if they were here. */
export const OfferView = view('OfferView', {
  places: Type.Array(AccessiblePlaceView),
  privileges: Type.Array(privilege),
  /** Those of the privileges that have no effect over the scope of the role. */
  asleep: Type.Array(privilege),
  role: Type.String(),
  teams: Type.Array(Type.String()),
  /** Seats after one more comes, where they are counted. */
  seats: Type.Object(
    {
      taken: Type.Number(),
      bought: orNull(Type.Number()),
      each: Type.Union([Type.Literal(0), Type.Literal(1)]),
    },
    strict,
  ),
  /** Why it would be refused. */
  problem: orNull(Problem),
})
export type OfferView = View<typeof OfferView>

export const PlaceNamesView = Type.Record(
  Type.String(),
  Type.Object({ name: Type.String(), path: Type.String(), atMost: Type.Number() }, strict),
  { title: 'PlaceNamesView' },
)
export type PlaceNamesView = View<typeof PlaceNamesView>

export const WelcomeSetView = view('WelcomeSetView', {
  ...PlaceName.properties,
  note: Type.String(),
  offer: offer,
  /** What the places of the offer are called, and what the asker may give there. */
  placeNames: PlaceNamesView,
  /** People still invited with it. */
  invited: Type.Array(PlaceName),
  links: Type.Number(),
  mayChange: Type.Boolean(),
  /** A join link of somebody else gives what it offers, by that one's rights; so the asker does not change that. */
  isGivenByAnother: Type.Boolean(),
})
export type WelcomeSetView = View<typeof WelcomeSetView>

export const JoinLinkView = view('JoinLinkView', {
  ...PlaceName.properties,
  by: Type.String(),
  at: instant,
  until: instant,
  domains: Type.Array(Type.String()),
  most: orNull(Type.Number()),
  used: Type.Number(),
  welcome: orNull(Type.String()),
  offer: offer,
  placeNames: PlaceNamesView,
  isOpen: Type.Boolean(),
  /** Whether somebody who comes by it now is let in: an open link fails where its maker may not give what it offers. */
  letsIn: Type.Boolean(),
  /** To be passed on, for those who may invite such people. */
  address: orNull(Type.String()),
  mayChange: Type.Boolean(),
  mayWithdraw: Type.Boolean(),
})
export type JoinLinkView = View<typeof JoinLinkView>

/** What a join link leads to. */
export const JoinLinkOfferView = view('JoinLinkOfferView', {
  workspace: Type.String(),
  by: Type.String(),
  as: personKind,
  role: orNull(Type.String()),
  teams: Type.Number(),
  places: Type.Number(),
  from: orNull(instant),
  until: orNull(instant),
  timeZone: Type.String(),
  domains: Type.Array(Type.String()),
  houseRules: Type.String(),
})
export type JoinLinkOfferView = View<typeof JoinLinkOfferView>

/** Either one is in, or an invitation waits, or a mail is on its way. */
export const JoinedByLinkView = view('JoinedByLinkView', {
  slug: orNull(Type.String()),
  invitation: orNull(Type.String()),
})
export type JoinedByLinkView = View<typeof JoinedByLinkView>

/** One row of a table that is brought in, judged. */
export const ImportedRowView = view('ImportedRowView', {
  verdict: oneOf('new', 'changes', 'as it is', 'wrong'),
  /** What would be done, or what is wrong, one sentence each. */
  says: Type.Array(Type.String()),
  edits: Type.Array(editRequest),
})
export type ImportedRowView = View<typeof ImportedRowView>

/** Welcome sets and join links, for whoever invites people. */
export const OnboardingView = view('OnboardingView', {
  welcomeSets: Type.Array(WelcomeSetView),
  joinLinks: Type.Array(JoinLinkView),
})
export type OnboardingView = View<typeof OnboardingView>
