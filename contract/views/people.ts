import { Type } from '@sinclair/typebox'
import { AccessiblePlaceView } from './access.ts'
import { HandoverView } from './roles.ts'
import { PersonName, PlaceName } from './names.ts'
import { ViewingSessionView } from './viewing.ts'
import { instant, privilege } from '../terms.ts'
import { type View, oneOf, orNull, strict, titled, view } from '../pieces.ts'

export const PersonTeamView = view('PersonTeamView', {
  ...PlaceName.properties,
  lead: Type.Boolean(),
  /** All members are in it. */
  isForAll: Type.Boolean(),
})
export type PersonTeamView = View<typeof PersonTeamView>

/** A role that a person holds. */
export const HoldingView = view('HoldingView', {
  id: Type.String(),
  role: Type.String(),
  name: Type.String(),
  /** Whose people it is held over; `null` for the whole workspace. */
  over: orNull(Type.String()),
  from: orNull(instant),
  until: orNull(instant),
})
export type HoldingView = View<typeof HoldingView>

export const InvitedView = view('InvitedView', {
  by: Type.String(),
  at: instant,
  until: instant,
  message: Type.String(),
})
export type InvitedView = View<typeof InvitedView>

export const PersonAct = titled(
  'PersonAct',
  oneOf(
    'suspend',
    'remove',
    'convert',
    'assign',
    'describe',
    'invite',
    'pass on',
    'contact',
    'reset sign-in',
  ),
)
export type PersonAct = View<typeof PersonAct>

/** What who looks after people is told of somebody. */
export const ManagedView = view('ManagedView', {
  roles: Type.Array(HoldingView),
  from: orNull(instant),
  until: orNull(instant),
  lastActive: orNull(instant),
  takesSeat: Type.Boolean(),
  hasTwoStep: Type.Boolean(),
  /** False where the address was never confirmed by a mail. */
  isConfirmed: Type.Boolean(),
  /** Who brought them in. */
  invitedBy: orNull(Type.String()),
  /** For the invited: who did, when, and until when the link works. */
  invitation: orNull(InvitedView),
  /** For guests: the topmost places that they reach, as far as the reader may be told. */
  reaches: orNull(Type.Array(PlaceName)),
  /** What the reader may do about this person. */
  may: Type.Array(PersonAct),
})
export type ManagedView = View<typeof ManagedView>

export const PersonView = view('PersonView', {
  ...PersonName.properties,
  handle: orNull(Type.String()),
  title: Type.String(),
  /** A guest's organisation. */
  department: Type.String(),
  country: Type.String(),
  picture: orNull(Type.String()),
  teams: Type.Array(PersonTeamView),
  joinedAt: orNull(instant),
  /** Whom a guest turns to. */
  contact: orNull(PlaceName),
  /** What those who look after people are told besides; `null` for everybody else. */
  managed: orNull(ManagedView),
})
export type PersonView = View<typeof PersonView>

/** One privilege of somebody, and the roles it comes from, with over whom each is held. */
export const PowerView = view('PowerView', {
  privilege: privilege,
  from: Type.Array(
    Type.Object(
      {
        role: Type.String(),
        over: orNull(Type.String()),
        /** It has no effect over that scope. */
        isAsleep: Type.Boolean(),
      },
      strict,
    ),
  ),
})
export type PowerView = View<typeof PowerView>

/** One person with all that is known of them. */
export const PersonDetailView = view('PersonDetailView', {
  ...PersonView.properties /** Handles that lead here too. */,
  formerHandles: Type.Array(Type.String()),
  agreedAt: orNull(instant),
  /** What their roles let them do, each with where it comes from; to themselves and to whoever looks after them. */
  powers: orNull(Type.Array(PowerView)),
  /** Which of their roles the reader may take from them, by the ids of `managed.roles`. */
  takeable: Type.Array(Type.String()),
  /** Sign-ins, to whoever may reset them. */
  signIns: orNull(Type.Array(Type.Object({ at: Type.String(), lastUsed: orNull(instant) }, strict))),
})
export type PersonDetailView = View<typeof PersonDetailView>

/** What one may do oneself, and where each piece of it comes from. */
export const MyAccessView = view('MyAccessView', {
  roles: Type.Array(
    Type.Object(
      {
        ...HoldingView.properties,
        note: Type.String(),
        privileges: Type.Array(privilege),
        /** Those that have no effect over what it is held over. */
        asleep: Type.Array(privilege),
      },
      strict,
    ),
  ),
  /** Owners who offer to hand the workspace over to one. */
  handovers: Type.Array(HandoverView),
  /** Who looked through one's eyes, the newest first. */
  viewingSessions: Type.Array(ViewingSessionView),
  teams: Type.Array(PersonTeamView),
  /** With the end of what was given there to the reader by name. */
  places: Type.Array(Type.Object({ ...AccessiblePlaceView.properties, until: orNull(instant) }, strict)),
  contact: orNull(PlaceName),
  invitedBy: orNull(Type.String()),
  from: orNull(instant),
  until: orNull(instant),
})
export type MyAccessView = View<typeof MyAccessView>

export const TakenOverView = view('TakenOverView', {
  ...PlaceName.properties /** Whether the asker may name who takes over, and how. */,
  may: orNull(oneOf('give', 'recover')),
})
export type TakenOverView = View<typeof TakenOverView>

export const KeptPlaceView = view('KeptPlaceView', {
  ...TakenOverView.properties,
  path: Type.String(),
  /** The team whose next lead gives access there too: then nobody else has to. */
  withTeam: orNull(Type.String()),
})
export type KeptPlaceView = View<typeof KeptPlaceView>

/** What becomes of what somebody alone keeps, when they leave. */
export const OffboardingView = view('OffboardingView', {
  /** Teams that nobody else leads. */
  teams: Type.Array(TakenOverView),
  /** Places where nobody else gives and takes access: those that the asker may know of. */
  places: Type.Array(KeptPlaceView),
  /** Whether there are more that the asker may not know of. */
  hasMore: Type.Boolean(),
  guests: Type.Array(PlaceName),
  links: Type.Array(PlaceName),
})
export type OffboardingView = View<typeof OffboardingView>
