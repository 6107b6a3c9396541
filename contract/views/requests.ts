import { type TSchema, Type } from '@sinclair/typebox'
import { instant, privilege } from '../terms.ts'
import { PathView, PlaceName } from './names.ts'
import { type View, orNull, strict, titled, view } from '../pieces.ts'

export const TeamWantedView = view('TeamWantedView', { of: Type.Literal('team'), team: PlaceName })
export type TeamWantedView = View<typeof TeamWantedView>

/** A role by its name, or what a privilege lets one do. */
export const RoleWantedView = titled(
  'RoleWantedView',
  Type.Union([
    Type.Object({ of: Type.Literal('role'), role: PlaceName }, strict),
    Type.Object({ of: Type.Literal('privilege'), privilege: privilege }, strict),
  ]),
)
export type RoleWantedView = View<typeof RoleWantedView>

export const AccessWantedView = view('AccessWantedView', {
  of: Type.Literal('access'),
  place: PathView,
  /** Masks: what is asked for, and what they have there now. */
  actions: Type.Number(),
  has: Type.Number(),
})
export type AccessWantedView = View<typeof AccessWantedView>

/** What people ask others for: a place in a team, a role, what a privilege lets one do, access to a place. */
export const WantedView = titled('WantedView', Type.Union([TeamWantedView, RoleWantedView, AccessWantedView]))
export type WantedView = View<typeof WantedView>

/** Who asks for what, for whoever may decide it. */
export const requestFor = <W extends TSchema>(wants: W) =>
  Type.Object(
    {
      id: Type.String(),
      person: PlaceName,
      isGuest: Type.Boolean(),
      wants,
      at: instant,
      reason: Type.String(),
    },
    strict,
  )
export const RequestView = titled('RequestView', requestFor(WantedView))
export interface RequestView<W extends WantedView = WantedView> extends Omit<
  View<typeof RequestView>,
  'wants'
> {
  readonly wants: W
}

/** A place that one cannot see goes by its address alone. */
export const MyAccessWantedView = view('MyAccessWantedView', {
  of: Type.Literal('access'),
  address: Type.String(),
  place: orNull(PlaceName),
  actions: Type.Number(),
})
export type MyAccessWantedView = View<typeof MyAccessWantedView>

export const MyWantedView = titled(
  'MyWantedView',
  Type.Union([TeamWantedView, RoleWantedView, MyAccessWantedView]),
)
export type MyWantedView = View<typeof MyWantedView>

/** One's own request, the declined ones too. */
export const MyRequestView = view('MyRequestView', {
  id: Type.String(),
  wants: MyWantedView,
  at: instant,
  reason: Type.String(),
  declined: orNull(Type.Object({ by: Type.String(), comment: Type.String() }, strict)),
})
export interface MyRequestView<W extends MyWantedView = MyWantedView> extends Omit<
  View<typeof MyRequestView>,
  'wants'
> {
  readonly wants: W
}

export const RequestsView = view('RequestsView', {
  /** The first first. */
  toDecide: Type.Array(RequestView),
  /** The last first. */
  mine: Type.Array(MyRequestView),
  /** Roles that the reader knows of and could ask for. */
  roles: Type.Array(PlaceName),
})
export type RequestsView = View<typeof RequestsView>
