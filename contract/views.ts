import type { Instant } from '#core/base/instant.ts'
import type { WaitingInvitation } from './account-views.ts'
import type { AccessWantedView, RequestView } from './request-views.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { Person, Team } from '#core/people/person.ts'
import type { Principal } from '#core/rules/principal.ts'
import type { NodeKind } from '#core/tree/node.ts'

/** What the server answers. Sets of actions are their masks: the core puts them into words everywhere. */

export interface SessionView {
  /** False until the first workspace is created. */
  readonly isSetUp: boolean
  readonly isDemo: boolean
  readonly account: {
    readonly name: string
    readonly mail: string
    /** In which dates are written. */
    readonly language: string
    readonly timeZone: string | null
  } | null
  readonly workspaces: readonly { readonly name: string; readonly slug: string }[]
  /** Invitations that wait for the address of the account. */
  readonly invitations: readonly WaitingInvitation[]
  readonly mayMakeWorkspaces: boolean
  /** To be sent back with every write. */
  readonly csrf: string
}

export interface WorkspaceView {
  readonly name: string
  readonly slug: string
  readonly timeZone: string
  readonly revision: number
  readonly picture: string | null
  readonly me: {
    readonly id: string
    readonly name: string
    readonly kind: Person['kind']
    readonly picture: string | null
    readonly privileges: readonly Privilege[]
  }
  readonly ownLevels: readonly OwnLevelView[]
  /** Those that the reader may offer in an invitation. */
  readonly roles: readonly RoleView[]
  readonly defaultRole: string
  readonly guestCeiling: number
  /** Whether the reader looks after people: invites, helps, suspends, removes, assigns. */
  readonly keepsPeople: boolean
  /** The reader is owner, and the only one who is active. */
  readonly isOnlyOwner: boolean
}

export interface OwnLevelView {
  readonly id: string
  readonly name: string
  readonly note: string
  readonly actions: number
}

export interface RoleView {
  readonly id: string
  readonly name: string
  readonly note: string
}

export interface TeamView {
  readonly id: string
  readonly name: string
  readonly note: string
  readonly picture: string | null
  readonly joining: Team['joining']
  readonly welcomesGuests: boolean
  /** Its home, if the reader sees it; the levels there, if the reader shares there. */
  readonly home: { readonly id: string; readonly levels: readonly HomeLevel[] } | null
  readonly mayManage: boolean
  readonly mayJoin: boolean
  readonly isMine: boolean
  readonly keptByDirectory: boolean
  /** What the reader asked, if they asked to be let in. */
  readonly myRequest: { readonly id: string; readonly at: Instant; readonly declined: string | null } | null
  readonly mayAsk: boolean
  readonly isArchived: boolean
  /** For an archived one: when it can be deleted for good, to whoever may. */
  readonly deletableFrom: Instant | null
  readonly people: readonly TeamPersonView[]
  /** Those that the reader may read. */
  readonly channels: readonly ChannelView[]
  readonly mayCreateChannels: boolean
}

export interface ChannelView extends PlaceName {
  readonly note: string
  /** Whom it is restricted to; `null` where everyone in the team reads it. */
  readonly only: readonly PrincipalName[] | null
  readonly isArchived: boolean
  /** False to a lead who keeps a channel without being in it. */
  readonly mayRead: boolean
  readonly mayPost: boolean
  /** Whether the reader may change its settings and who is in it. */
  readonly mayChange: boolean
}

export interface HomeLevel {
  readonly who: 'leads' | 'team'
  readonly actions: number
}

export interface TeamPersonView {
  readonly id: string
  readonly name: string
  readonly kind: Person['kind']
  readonly status: Person['status']
  readonly lead: boolean
  readonly until: Instant | null
}

export interface TreeItem {
  readonly id: string
  readonly name: string
  readonly kind: NodeKind
  readonly actions: number
  readonly hasChildren: boolean
  readonly isBroken: boolean
  readonly isDraft: boolean
  /** In the archive by itself, not by what it stands in. */
  readonly isArchived: boolean
  /** Set here: published with what is in it, or excluded from what is published above. */
  readonly web: 'published' | 'excluded' | null
  readonly home: 'team' | 'person' | 'shared' | null
  /** Its place among its siblings: equal ones stand by name. */
  readonly order: number
}

/** The tree as its reader finds it: each part in the order in which it is shown. */
export interface TreeView {
  readonly kept: TreeItem | null
  readonly opened: readonly TreeItem[]
  readonly homes: readonly TreeItem[]
}

export interface NodeView extends TreeItem {
  readonly note: string
  /** From the topmost ancestor that the reader sees without a gap, down to the parent. */
  readonly path: readonly { readonly id: string; readonly name: string }[]
  readonly children: readonly TreeItem[]
  readonly madeBy: string | null
  readonly madeAt: Instant
  /** Whether its reader may archive, bin, move it and bring it back. */
  readonly mayRemove: boolean
  /** For an archived shared home: when it can be deleted for good, to whoever may. */
  readonly deletableFrom: Instant | null
  /** Whether a visitor without an account can read it. */
  readonly isPublic: boolean
  /** What was given here to the reader by name: theirs to give up. */
  readonly mine: readonly string[]
}

/** Who last changed a place that stands in another one. */
export interface PlaceChangeView {
  readonly id: string
  readonly at: Instant
  /** `null` for somebody whom the reader does not know, or what happened by itself. */
  readonly by: string | null
}

/** A place in the bin, with what its reader may do about it. */
export interface BinnedView extends PathView {
  readonly by: string
  readonly at: Instant
  /** When it is deleted for good by itself. */
  readonly until: Instant
  readonly mayDelete: boolean
}

/** A column of a board; whom it is restricted to is told to those who share there. */
export interface ColumnView extends PlaceName {
  readonly mine: 'see' | 'edit'
  /** Its place among the columns: equal ones stand by name. */
  readonly order: number
  readonly isRestricted: boolean
  readonly viewers: readonly PrincipalName[] | null
  readonly editors: readonly PrincipalName[] | null
}

export interface ColumnAccessView {
  readonly id: string
  readonly name: string
  readonly access: 'see' | 'edit'
}

/** A place by its name and where it stands, as far up as its reader sees. */
export interface PathView extends PlaceName {
  readonly path: string
}

export interface TextView {
  readonly text: string
  readonly version: number
  readonly changedAt: Instant | null
  readonly changedBy: string | null
}

/** Who has access at a place, as far as the reader may know. */
export type AccessView =
  | {
      readonly detail: 'all'
      readonly grants: readonly GrantView[]
      /** Of those who can open it, the hundred who may do most; the highest first. */
      readonly people: readonly PersonAccessView[]
      readonly peopleCount: number
      /** Others of them who are in a team that is given something. */
      readonly inTeams: readonly PersonAccessView[]
      readonly limits: readonly LimitView[]
      readonly brokenAt: PlaceName | null
      /** Where inheritance is broken at this place itself: by whom, and when. */
      readonly broken: { readonly by: string; readonly at: Instant } | null
      /** What it stands in, if the reader sees it. */
      readonly above: PlaceName | null
      /** The reader is told of changes here, by a watch with this id. */
      readonly watch: string | null
      readonly requests: readonly RequestView<AccessWantedView>[]
      /** What is published here and below, as far as the reader sees it. */
      readonly published: readonly PlaceName[]
      /** Places below with something of their own, as far as the reader sees them. */
      readonly below: readonly OwnAccessPlaceView[]
      readonly moreBelow: number
      readonly hiddenBelow: number
    }
  | { readonly detail: 'names'; readonly names: readonly PrincipalName[]; readonly mine: number }
  | {
      readonly detail: 'own'
      readonly mine: number
      readonly readers: number
      readonly contact: string | null
    }

export interface PlaceName {
  readonly id: string
  readonly name: string
}

export interface PrincipalName {
  readonly principal: Principal
  readonly name: string
  /** How many people it matches now; 1 for a person. */
  readonly people: number
  readonly kind: 'member' | 'guest' | 'team' | 'leads' | 'everyone'
  readonly status: Person['status'] | null
}

export interface GrantView extends PrincipalName {
  readonly id: string
  readonly actions: number
  /** The set, or the id of a level of the workspace's own. */
  readonly gives: number | string
  /** Where it is set; `null` for a place above that the reader cannot see. */
  readonly at: PlaceName | null
  readonly isHere: boolean
  readonly from: Instant | null
  readonly until: Instant | null
  readonly by: string | null
  readonly since: Instant
  /** Given here, but not live before `from`. */
  readonly isWaiting: boolean
}

/** A limit that counts at a place, set there or above. */
export interface LimitView extends PrincipalName {
  readonly id: string
  readonly allows: number
  readonly sparesStewards: boolean
  readonly at: PlaceName | null
  readonly isHere: boolean
  readonly from: Instant | null
  readonly until: Instant | null
  readonly by: string
  readonly since: Instant
  /** Whom it takes something from now, and how many stewards it would hold but spares. */
  readonly holds: readonly PlaceName[]
  readonly spares: number
}

/** A place below with entries or a state of its own: where access differs from what flows down. */
export interface OwnAccessPlaceView extends PlaceName {
  readonly isBroken: boolean
  readonly isDraft: boolean
  readonly isArchived: boolean
  readonly web: 'published' | 'excluded' | null
  readonly grants: number
  readonly limits: number
  /** People who are given something there by name, of which a limit leaves less. */
  readonly heldBack: readonly PlaceName[]
}

export interface OwnAccessView {
  readonly revision: number
  readonly below: readonly OwnAccessPlaceView[]
  /** How many more the asker could see: so many are not named at once. */
  readonly moreBelow: number
  /** How many more there are that the asker cannot see. */
  readonly hiddenBelow: number
}

export interface PersonAccessView {
  readonly id: string
  readonly name: string
  readonly kind: Person['kind']
  readonly status: Person['status']
  readonly actions: number
}

/** The sum behind one person's access at one place. */
export interface ExplanationView {
  readonly person: string
  readonly place: string
  readonly status: Person['status']
  readonly grants: readonly PartView[]
  readonly keptOut: readonly PartView[]
  readonly brokenAt: PlaceName | null
  readonly steps: readonly StepView[]
  readonly result: number
  /** From the whole workspace down to the place: what the person has on the way, and where it changes. */
  readonly way: readonly WayView[]
}

/** One place on the way down, or several that the reader cannot see as one. */
export interface WayView {
  readonly place: PlaceName | null
  readonly actions: number
  readonly isBroken: boolean
  /** What is given to the person there, and what limits leave of it. */
  readonly given: number
  readonly allows: number | null
}

export interface PartView {
  readonly actions: number
  readonly through: 'name' | 'everyone' | 'team' | 'leads'
  readonly team: string | null
  readonly at: PlaceName | null
  readonly isHere: boolean
  readonly by: string | null
  readonly since: Instant
  readonly until: Instant | null
}

export interface StepView {
  readonly kind: 'limit' | 'guest ceiling' | 'draft' | 'archive' | 'bin' | 'not active'
  readonly at: PlaceName | null
  readonly leaves: number
}

export interface InvitationView {
  readonly workspace: string
  readonly by: string
  readonly mail: string
  readonly name: string
  readonly as: Person['kind']
  readonly role: string
  readonly message: string
  readonly until: Instant
  readonly teams: readonly string[]
  readonly places: readonly {
    readonly name: string
    readonly actions: number
    readonly until: Instant | null
  }[]
  /** Whether the address has an account: its password is asked for, not a new one. */
  readonly hasAccount: boolean
  /** What is accepted on coming in; empty for nothing. */
  readonly houseRules: string
  /** When access to the workspace starts and ends, told in the days of its time zone. */
  readonly accessFrom: Instant | null
  readonly accessUntil: Instant | null
  readonly timeZone: string
}

export interface AppliedView {
  readonly revision: number
  /** The ids made for `new:x`. */
  readonly made: Readonly<Record<string, string>>
}

export interface MailView {
  readonly id: string
  readonly to: string
  readonly subject: string
  readonly text: string
  readonly at: Instant
}
