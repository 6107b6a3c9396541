import { Type } from '@sinclair/typebox'
import { PlaceName, PrincipalName } from './names.ts'
import { instant, joining, personKind, personStatus } from '../terms.ts'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'

export const HomeLevel = view('HomeLevel', { who: oneOf('leads', 'team'), actions: Type.Number() })
export type HomeLevel = View<typeof HomeLevel>

export const TeamPersonView = view('TeamPersonView', {
  id: Type.String(),
  name: Type.String(),
  kind: personKind,
  status: personStatus,
  lead: Type.Boolean(),
  until: orNull(instant),
})
export type TeamPersonView = View<typeof TeamPersonView>

export const ChannelView = view('ChannelView', {
  ...PlaceName.properties,
  note: Type.String(),
  /** Whom it is restricted to; `null` where everyone in the team reads it. */
  only: orNull(Type.Array(PrincipalName)),
  isArchived: Type.Boolean(),
  /** False to a lead who keeps a channel without being in it. */
  mayRead: Type.Boolean(),
  mayPost: Type.Boolean(),
  /** Whether the reader may change its settings and who is in it. */
  mayChange: Type.Boolean(),
})
export type ChannelView = View<typeof ChannelView>

export const TeamView = view('TeamView', {
  id: Type.String(),
  name: Type.String(),
  note: Type.String(),
  picture: orNull(Type.String()),
  joining: joining,
  welcomesGuests: Type.Boolean(),
  /** Its home, if the reader sees it; the levels there, if the reader shares there. */
  home: orNull(Type.Object({ id: Type.String(), levels: Type.Array(HomeLevel) }, strict)),
  mayManage: Type.Boolean(),
  mayJoin: Type.Boolean(),
  isMine: Type.Boolean(),
  keptByDirectory: Type.Boolean(),
  /** What the reader asked, if they asked to be let in. */
  myRequest: orNull(Type.Object({ id: Type.String(), at: instant, declined: orNull(Type.String()) }, strict)),
  mayAsk: Type.Boolean(),
  isArchived: Type.Boolean(),
  /** For an archived one: when it can be deleted for good, to whoever may. */
  deletableFrom: orNull(instant),
  people: Type.Array(TeamPersonView),
  /** Those that the reader may read. */
  channels: Type.Array(ChannelView),
  mayCreateChannels: Type.Boolean(),
})
export type TeamView = View<typeof TeamView>
