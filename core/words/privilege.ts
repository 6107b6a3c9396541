import type { Privilege } from '../levels/privilege.ts'
import { listed } from './english.ts'

/** What the holder of a privilege can do, as a person would say it after “may”. */
export const privilegeWords: Readonly<Record<Privilege, string>> = {
  'view people': 'see colleagues and listed teams',
  'invite members': 'invite members',
  'invite guests': 'invite guests',
  'edit profiles': 'change profiles',
  'reset sign-in': 'help people sign in again',
  suspend: 'suspend people and set when their access ends',
  remove: 'remove people for good',
  'view roles': 'see roles',
  'assign roles': 'assign and remove roles below their own',
  'edit roles': 'create and change roles',
  'edit levels': 'create and change levels',
  'create teams': 'create teams',
  'create homes': 'create shared homes',
  'manage any team': 'add people to any team, and so give the access of that team',
  'archive any team': 'archive any team',
  'create channels': 'create channels in any team',
  moderate: 'moderate channels',
  'address everyone': 'address everyone at once',
  'edit templates': 'create and change templates',
  'recover access': 'recover access to places that nobody can share any more',
  'see storage': 'see how much is stored',
  'see the outline': 'see the titles of all places except private folders',
  'check access': 'check what anybody can do',
  'see as': 'see the workspace as somebody else',
  'run reviews': 'run access reviews',
  'read the history': 'read the whole history',
  'export reports': 'export reports',
  'edit settings': 'change the settings',
  security: 'set the security rules, and give access to everything',
  directory: 'connect directories and other systems',
  'view seats': 'see the seats',
  'change seats': 'change the number of seats',
  own: 'hand over or close the workspace',
}

/** Privileges that reach further than their name tells, and why. */
export const privilegeRisks: { readonly [P in Privilege]?: string } = {
  'manage any team': 'Can give anybody the access of any team, also to a second account of their own.',
  'assign roles': 'Can make others as powerful as themselves, below their own rank.',
  'edit roles': 'Changes what all holders of a role may do, below their own rank.',
  remove: 'Ends a person’s access, sign-ins and keys for good.',
  'recover access': 'Becomes Steward of places that have none, whatever is in them.',
  'see the outline': 'Reads the titles of all places, also of those that are not shared with them.',
  'check access': 'Reads who can do what at every place, with the titles of the places.',
  'see as': 'Sees the places that somebody else sees, and reads what both may read.',
  'read the history': 'Reads what everybody did at the places that the holder sees, with the reasons.',
  security: 'Can give access to everything, and sets what guests may have and what may be published.',
  directory: 'Connects systems that add people and fill teams by themselves.',
  own: 'Can hand the workspace over to somebody else, and close it.',
}

/** Those for what the product does not do yet: they can be given, and change nothing for now. */
export const withoutEffectYet: ReadonlySet<Privilege> = new Set([
  'address everyone',
  'edit templates',
  'run reviews',
  'export reports',
  'directory',
])

/** “see colleagues and listed teams, invite members and 3 more”. One that would be cut alone is said. */
export const privilegesListed = (names: readonly Privilege[], atMost = 3): string =>
  listed(
    names.map(each => privilegeWords[each]),
    names.length === atMost + 1 ? names.length : atMost,
  )
