import { Type } from '@sinclair/typebox'
import { PlaceName, RoleView } from './names.ts'
import { instant, personKind, privilege } from '../terms.ts'
import { type View, orNull, strict, view } from '../pieces.ts'

export const OwnLevelView = view('OwnLevelView', {
  id: Type.String(),
  name: Type.String(),
  note: Type.String(),
  actions: Type.Number(),
})
export type OwnLevelView = View<typeof OwnLevelView>

export const WorkspaceView = view('WorkspaceView', {
  name: Type.String(),
  slug: Type.String(),
  timeZone: Type.String(),
  revision: Type.Number(),
  picture: orNull(Type.String()),
  me: Type.Object(
    {
      id: Type.String(),
      name: Type.String(),
      kind: personKind,
      picture: orNull(Type.String()),
      privileges: Type.Array(privilege),
    },
    strict,
  ),
  ownLevels: Type.Array(OwnLevelView),
  /** Those that the reader may offer in an invitation. */
  roles: Type.Array(RoleView),
  defaultRole: Type.String(),
  guestCeiling: Type.Number(),
  /** Whether the reader looks after people: invites, helps, suspends, removes, assigns. */
  managesPeople: Type.Boolean(),
  /** The reader is owner, and the only one who is active. */
  isOnlyOwner: Type.Boolean(),
})
export type WorkspaceView = View<typeof WorkspaceView>

export const AppliedView = view('AppliedView', {
  revision: Type.Number(),
  /** The ids made for `new:x`. */
  made: Type.Record(Type.String(), Type.String()),
})
export type AppliedView = View<typeof AppliedView>

/** A role with those of its holders who have no second step yet. */
export const SecuredRoleView = view('SecuredRoleView', {
  ...PlaceName.properties,
  people: Type.Number(),
  without: Type.Array(PlaceName),
})
export type SecuredRoleView = View<typeof SecuredRoleView>

/** The settings of a workspace, with whom each concerns. */
export const SettingsView = view('SettingsView', {
  name: Type.String(),
  timeZone: Type.String(),
  picture: orNull(Type.String()),
  defaultRole: Type.String(),
  invitationDays: Type.Number(),
  houseRules: Type.String(),
  guestCeiling: Type.Number(),
  allowsPublishing: Type.Boolean(),
  /** In bytes; no quota for as much as there is room. */
  largestFile: Type.Number(),
  storageQuota: orNull(Type.Number()),
  versionsKept: Type.Number(),
  marksPreviews: Type.Boolean(),
  memberDomains: Type.Array(Type.String()),
  guestDomains: Type.Array(Type.String()),
  twoStepFor: Type.Array(Type.String()),
  signInDays: Type.Number(),
  idleHours: Type.Number(),
  roles: Type.Array(SecuredRoleView),
  /** How many guests are here or invited, and how many places are on the web. */
  guests: Type.Number(),
  published: Type.Number(),
  /** Closing all of it to everyone from outside: where, and by which limit it is closed; to whoever may. */
  closing: orNull(
    Type.Object(
      {
        whole: Type.String(),
        closed: orNull(Type.Object({ limit: Type.String(), by: Type.String(), at: instant }, strict)),
      },
      strict,
    ),
  ),
})
export type SettingsView = View<typeof SettingsView>
