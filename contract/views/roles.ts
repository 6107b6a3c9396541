import { Type } from '@sinclair/typebox'
import { PersonName, PlaceName, RoleView } from './names.ts'
import { byPrivilege, bySomePrivileges, instant, privilege } from '../terms.ts'
import { type View, oneOf, orNull, strict, titled, view } from '../pieces.ts'

export const RoleDetailView = view('RoleDetailView', {
  ...RoleView.properties,
  rank: Type.Number(),
  privileges: Type.Array(privilege),
  addressable: Type.Boolean(),
  seatExempt: Type.Boolean(),
  builtIn: Type.Boolean(),
  madeAt: orNull(instant),
  madeBy: orNull(Type.String()),
  /** Who holds it over whomever, the invited too. */
  people: Type.Number(),
  mayChange: Type.Boolean(),
  isDefault: Type.Boolean(),
  /** Whether its holders are asked for a second step. */
  asksTwoStep: Type.Boolean(),
  /** Names of the welcome sets and join links that offer it. */
  offeredBy: Type.Array(Type.String()),
})
export type RoleDetailView = View<typeof RoleDetailView>

/** Roles, seats, owners, and what is looked at by a privilege. */
export const RolesView = view('RolesView', {
  /** The highest rank first. */
  roles: Type.Array(RoleDetailView),
  /** How many people have each privilege by any role, over whomever. */
  people: byPrivilege,
  /** What the reader may put into roles, each with the rank up to which; nothing for who may not edit roles. */
  mine: bySomePrivileges,
  /** Roles below this rank are the reader's to change; `null` for none. */
  below: orNull(Type.Number()),
})
export type RolesView = View<typeof RolesView>

export const ScopeView = titled(
  'ScopeView',
  Type.Union([
    Type.Object({ over: Type.Literal('workspace') }, strict),
    Type.Object({ over: Type.Literal('guests') }, strict),
    Type.Object({ over: Type.Literal('team'), team: Type.String() }, strict),
  ]),
)
export type ScopeView = View<typeof ScopeView>

export const HolderView = view('HolderView', {
  holding: Type.String(),
  person: PersonName,
  scope: ScopeView,
  /** Over whom in words; `null` for the whole workspace. */
  over: orNull(Type.String()),
  from: orNull(instant),
  until: orNull(instant),
  mayTake: Type.Boolean(),
})
export type HolderView = View<typeof HolderView>

/** A role that the reader may give to somebody, and over what. */
export const RoleToAssignView = view('RoleToGiveView', {
  ...RoleView.properties,
  privileges: Type.Array(privilege),
  scopes: Type.Array(
    Type.Object({ scope: ScopeView, name: Type.String(), asleep: Type.Array(privilege) }, strict),
  ),
})
export type RoleToAssignView = View<typeof RoleToAssignView>

export const HandoverView = view('HandoverView', {
  id: Type.String(),
  from: PlaceName,
  to: PlaceName,
  at: instant,
  reason: Type.String(),
  keeps: Type.String(),
})
export type HandoverView = View<typeof HandoverView>

export const OwnersView = view('OwnersView', {
  owners: Type.Array(PersonName),
  handovers: Type.Array(HandoverView),
  /** Roles that somebody who hands over can keep. */
  roles: Type.Array(PlaceName),
})
export type OwnersView = View<typeof OwnersView>

export const SeatPart = titled(
  'SeatPart',
  oneOf('here', 'invited', 'suspended', 'suspended without', 'free', 'guests'),
)
export type SeatPart = View<typeof SeatPart>

export const SeatsView = view('SeatsView', {
  /** `null` for as many as one likes. */
  bought: orNull(Type.Number()),
  taken: Type.Number(),
  next: orNull(Type.Object({ seats: orNull(Type.Number()), from: instant }, strict)),
  /** When the next period begins. */
  nextPeriod: instant,
  /** By whom the seats are taken, and who takes none. */
  parts: Type.Record(SeatPart, Type.Number()),
  suspendedHoldSeats: Type.Boolean(),
  mayChange: Type.Boolean(),
  /** The plan is simulated: what a seat costs a month, in whole cents. */
  centsPerMonth: Type.Number(),
  /** Oldest first. */
  past: Type.Array(Type.Object({ at: instant, taken: Type.Number(), bought: orNull(Type.Number()) }, strict)),
})
export type SeatsView = View<typeof SeatsView>
