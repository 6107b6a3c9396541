/** Branded ids: an id of one kind is not accepted where another kind is expected. Made outside the core. */

declare const kind: unique symbol
type Id<Kind extends string> = string & { readonly [kind]: Kind }

export type WorkspaceId = Id<'workspace'>
export type AccountId = Id<'account'>
export type PersonId = Id<'person'>
export type TeamId = Id<'team'>
export type MembershipId = Id<'membership'>
export type RoleId = Id<'role'>
export type HoldingId = Id<'holding'>
export type InvitationId = Id<'invitation'>
export type NodeId = Id<'node'>
export type GrantId = Id<'grant'>
export type LimitId = Id<'limit'>
export type LevelId = Id<'level'>
export type ColumnId = Id<'column'>
export type SectionId = Id<'section'>
export type BoardViewId = Id<'board view'>
export type ChannelId = Id<'channel'>
/** The handle itself, in lower case: each stands for one person of a workspace, for ever. */
export type HandleId = Id<'handle'>
export type RequestId = Id<'request'>
export type WelcomeSetId = Id<'welcome set'>
export type JoinLinkId = Id<'join link'>
export type PictureId = Id<'picture'>
export type HandoverId = Id<'handover'>
export type ViewingSessionId = Id<'look'>
export type WatchId = Id<'watch'>
