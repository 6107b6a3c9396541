import { Type } from '@sinclair/typebox'
import { AccessWantedView, requestFor } from './requests.ts'
import { PathView, PlaceName, PrincipalName } from './names.ts'
import { PlaceHit } from './content.ts'
import { editRequest } from '../edit-requests.ts'
import { instant, personKind, personStatus } from '../terms.ts'
import { type View, oneOf, orNull, strict, titled, view } from '../pieces.ts'

export const ColumnAccessView = view('ColumnAccessView', {
  id: Type.String(),
  name: Type.String(),
  access: oneOf('see', 'edit'),
})
export type ColumnAccessView = View<typeof ColumnAccessView>

export const GrantView = view('GrantView', {
  ...PrincipalName.properties,
  id: Type.String(),
  actions: Type.Number(),
  /** The set, or the id of a level of the workspace's own. */
  gives: Type.Union([Type.Number(), Type.String()]),
  /** Where it is set; `null` for a place above that the reader cannot see. */
  at: orNull(PlaceName),
  isHere: Type.Boolean(),
  from: orNull(instant),
  until: orNull(instant),
  by: orNull(Type.String()),
  since: instant,
  /** Given here, but not live before `from`. */
  isWaiting: Type.Boolean(),
})
export type GrantView = View<typeof GrantView>

export const PersonAccessView = view('PersonAccessView', {
  id: Type.String(),
  name: Type.String(),
  kind: personKind,
  status: personStatus,
  actions: Type.Number(),
})
export type PersonAccessView = View<typeof PersonAccessView>

/** A limit that counts at a place, set there or above. */
export const LimitView = view('LimitView', {
  ...PrincipalName.properties,
  id: Type.String(),
  allows: Type.Number(),
  sparesStewards: Type.Boolean(),
  at: orNull(PlaceName),
  isHere: Type.Boolean(),
  from: orNull(instant),
  until: orNull(instant),
  by: Type.String(),
  since: instant,
  /** Whom it takes something from now, and how many stewards it would hold but spares. */
  holds: Type.Array(PlaceName),
  spares: Type.Number(),
})
export type LimitView = View<typeof LimitView>

/** A place below with entries or a state of its own: where access differs from what flows down. */
export const OwnAccessPlaceView = view('OwnAccessPlaceView', {
  ...PlaceName.properties,
  isBroken: Type.Boolean(),
  isDraft: Type.Boolean(),
  isArchived: Type.Boolean(),
  web: orNull(oneOf('published', 'excluded')),
  grants: Type.Number(),
  limits: Type.Number(),
  /** People who are given something there by name, of which a limit leaves less. */
  heldBack: Type.Array(PlaceName),
})
export type OwnAccessPlaceView = View<typeof OwnAccessPlaceView>

/** Who has access at a place, as far as the reader may know. */
export const AccessView = titled(
  'AccessView',
  Type.Union([
    Type.Object(
      {
        detail: Type.Literal('all'),
        grants: Type.Array(GrantView),
        /** Of those who can open it, the hundred who may do most; the highest first. */
        people: Type.Array(PersonAccessView),
        peopleCount: Type.Number(),
        /** Others of them who are in a team that is given something. */
        inTeams: Type.Array(PersonAccessView),
        limits: Type.Array(LimitView),
        brokenAt: orNull(PlaceName),
        /** Where inheritance is broken at this place itself: by whom, and when. */
        broken: orNull(Type.Object({ by: Type.String(), at: instant }, strict)),
        /** What it stands in, if the reader sees it. */
        above: orNull(PlaceName),
        /** The reader is told of changes here, by a watch with this id. */
        watch: orNull(Type.String()),
        requests: Type.Array(requestFor(AccessWantedView)),
        /** What is published here and below, as far as the reader sees it. */
        published: Type.Array(PlaceName),
        /** Places below with something of their own, as far as the reader sees them. */
        below: Type.Array(OwnAccessPlaceView),
        moreBelow: Type.Number(),
        hiddenBelow: Type.Number(),
      },
      strict,
    ),
    Type.Object(
      { detail: Type.Literal('names'), names: Type.Array(PrincipalName), mine: Type.Number() },
      strict,
    ),
    Type.Object(
      {
        detail: Type.Literal('own'),
        mine: Type.Number(),
        readers: Type.Number(),
        contact: orNull(Type.String()),
      },
      strict,
    ),
  ]),
)
export type AccessView = View<typeof AccessView>

export const OwnAccessView = view('OwnAccessView', {
  revision: Type.Number(),
  below: Type.Array(OwnAccessPlaceView),
  /** How many more the asker could see: so many are not named at once. */
  moreBelow: Type.Number(),
  /** How many more there are that the asker cannot see. */
  hiddenBelow: Type.Number(),
})
export type OwnAccessView = View<typeof OwnAccessView>

export const PlacedGrantView = view('PlacedGrantView', {
  ...GrantView.properties,
  place: PathView,
  /** What the reader has there: at most that is theirs to give. */
  held: Type.Number(),
  /** Through a team that the person asked about is in; else it is theirs by name, or what was asked about. */
  isThrough: Type.Boolean(),
})
export type PlacedGrantView = View<typeof PlacedGrantView>

/** Access that is asked for, drafted, taken over, and looked at over many places. */
/** What is given at some places, or to some person or team, as far as the reader gives access there. */
export const GrantsOverviewView = view('GrantsOverviewView', {
  revision: Type.Number(),
  grants: Type.Array(PlacedGrantView),
  /** Of the places asked about those where the reader gives access, and how many others there are. */
  places: Type.Array(PlaceHit),
  others: Type.Number(),
})
export type GrantsOverviewView = View<typeof GrantsOverviewView>

/** Edits that give here what is given elsewhere, and what they leave out. */
export const CopiedAccessView = view('CopiedAccessView', {
  from: PathView,
  edits: Type.Array(editRequest),
  leftOut: Type.Array(Type.String()),
})
export type CopiedAccessView = View<typeof CopiedAccessView>

export const PlaceAccessView = view('PlaceAccessView', { ...PathView.properties, actions: Type.Number() })
export type PlaceAccessView = View<typeof PlaceAccessView>

/** A place where somebody has access, and by what: those below that have just the same are counted, not listed. */
export const AccessiblePlaceView = view('AccessiblePlaceView', {
  ...PathView.properties,
  kind: Type.String(),
  actions: Type.Number(),
  through: Type.Array(Type.String()),
  /** How many places below have the same. */
  alike: Type.Number(),
})
export type AccessiblePlaceView = View<typeof AccessiblePlaceView>
