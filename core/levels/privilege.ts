/**
 * Privileges, what roles are made of. Separate from actions: a privilege never opens content.
 *
 * Invariant: a `PrivilegeSet` is closed, that is, it holds all that its members need; only this module
 * makes one. There are more than 31, so it is a set of names and not a number.
 */

declare const closed: unique symbol
export type PrivilegeSet = ReadonlySet<Privilege> & { readonly [closed]: true }

// Names are stored: never rename one. A row can only name rows above it, which a test holds.
const needs = {
  'view people': [],
  'invite members': ['view people'],
  'invite guests': ['view people'],
  'edit profiles': ['view people'],
  'reset sign-in': ['view people'],
  suspend: ['view people'],
  remove: ['suspend'],
  'view roles': [],
  'assign roles': ['view people', 'view roles'],
  'edit roles': ['view roles'],
  'edit levels': [],
  'create teams': [],
  'create homes': [],
  'manage any team': ['view people'],
  'archive any team': ['manage any team'],
  'create channels': [],
  moderate: [],
  'address everyone': [],
  'edit templates': [],
  'recover access': [],
  'see storage': [],
  'see the outline': [],
  'check access': ['view people', 'see the outline'],
  'see as': ['check access'],
  'run reviews': ['check access'],
  'read the history': [],
  'export reports': ['check access'],
  'edit settings': [],
  security: [],
  directory: [],
  'view seats': [],
  'change seats': ['view seats'],
  own: [],
} as const satisfies Record<string, readonly string[]>

export type Privilege = keyof typeof needs
export const allPrivileges = Object.keys(needs) as readonly Privilege[]

export const needsOf = (privilege: Privilege): readonly Privilege[] => needs[privilege]

/** The smallest closed set that holds all the given privileges. */
export function privileges(...names: readonly Privilege[]): PrivilegeSet {
  const found = new Set<Privilege>()
  const waiting = [...names]
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (!found.has(name)) waiting.push(...needsOf(name))
    found.add(name)
  }
  return new Set(allPrivileges.filter(name => found.has(name))) as unknown as PrivilegeSet
}

export const everyPrivilege = privileges(...allPrivileges)

/** The largest closed set within `held` that lacks `dropped`: whatever needs it goes too. */
export const withoutPrivilege = (held: readonly Privilege[], dropped: Privilege): PrivilegeSet =>
  privileges(...held.filter(each => !privileges(each).has(dropped)))

/** How privileges stand together where people choose among them; each is in one group. */
export const privilegeGroups = {
  People: [
    'view people',
    'invite members',
    'invite guests',
    'edit profiles',
    'reset sign-in',
    'suspend',
    'remove',
    'assign roles',
  ],
  Roles: ['view roles', 'edit roles', 'edit levels'],
  Teams: ['create teams', 'create homes', 'manage any team', 'archive any team'],
  Channels: ['create channels', 'moderate', 'address everyone'],
  Content: ['edit templates', 'recover access', 'see storage'],
  Oversight: [
    'see the outline',
    'check access',
    'see as',
    'run reviews',
    'read the history',
    'export reports',
  ],
  Workspace: ['edit settings', 'security', 'directory', 'view seats', 'change seats', 'own'],
} as const satisfies Record<string, readonly Privilege[]>
export type PrivilegeGroup = keyof typeof privilegeGroups

/** Over what a role is held. */
export type ScopeKind = 'workspace' | 'team' | 'guests'

/** Privileges that mean something over some people only, and over which; all others need the whole workspace. */
const narrow: { readonly [P in Privilege]?: readonly ScopeKind[] } = {
  'view people': ['team', 'guests'],
  'invite guests': ['guests'],
  'edit profiles': ['team', 'guests'],
  'reset sign-in': ['team', 'guests'],
  suspend: ['team', 'guests'],
  remove: ['team', 'guests'],
  'assign roles': ['team'],
}

/** Whether a privilege has no effect where its role is held over such a scope. */
export const isAsleep = (privilege: Privilege, over: ScopeKind): boolean =>
  over !== 'workspace' && narrow[privilege]?.includes(over) !== true

export const isPrivilege = (name: string): name is Privilege => Object.hasOwn(needs, name)
