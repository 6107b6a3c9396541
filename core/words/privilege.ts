import type { Privilege } from '../levels/privilege.ts'

/** What the holder of a privilege can do, as a person would say it after “may”. */
export const privilegeWords: Readonly<Record<Privilege, string>> = {
  'view people': 'see colleagues and listed teams',
  'invite members': 'invite members',
  'invite guests': 'invite guests',
  'edit profiles': 'change profiles',
  'reset sign-in': 'help people to sign in again',
  suspend: 'suspend people and set when their time ends',
  remove: 'remove people for good',
  'view roles': 'see roles',
  'assign roles': 'give and take roles below their own',
  'edit roles': 'make and change roles',
  'edit levels': 'make and change levels',
  'create teams': 'make teams',
  'create homes': 'make shared homes',
  'manage any team': 'fill any team, and so open what it opens',
  'archive any team': 'archive any team',
  'create channels': 'make channels in any team',
  moderate: 'moderate channels',
  'address everyone': 'address everyone at once',
  'edit templates': 'make and change templates',
  'recover access': 'recover access where nobody is left',
  'see storage': 'see what is stored',
  'see the outline': 'see the titles of all places but private ones',
  'check access': 'check what anybody can do',
  'see as': 'look through the eyes of others',
  'run reviews': 'run reviews of access',
  'read the history': 'read the whole history',
  'export reports': 'take out reports',
  'edit settings': 'change the settings',
  security: 'set the rules of security, and give access to everything',
  directory: 'connect directories and other systems',
  'view seats': 'see the seats',
  'change seats': 'buy seats',
  own: 'hand over and close the workspace',
}

/** Privileges that reach further than their name tells, and why. */
export const privilegeRisks: { readonly [P in Privilege]?: string } = {
  'manage any team':
    'Whoever fills teams opens, for others and so for an invited second self, all that these teams open.',
  'assign roles': 'Can make others as powerful as themselves, below their own rank.',
  'edit roles': 'Changes at once what every holder of a role may do, below their own rank.',
  remove: 'Ends somebody’s access, sign-ins and keys for good.',
  'recover access': 'Takes Steward at places where nobody is left, whatever is in them.',
  'see the outline': 'Reads the titles of all places, whoever they were opened for.',
  'check access': 'Reads who can do what anywhere, with the titles of the places.',
  'see as': 'Sees the tree as somebody else sees it, and reads what both may read.',
  'read the history': 'Reads what everybody did at every place that they see, with the reasons.',
  security: 'Gives access to everything, and sets what guests may have and what goes to the web.',
  directory: 'Connects systems that bring people in and fill teams by themselves.',
  own: 'Can hand the workspace to somebody else, and close it.',
}

/** “see colleagues and listed teams, invite members and 3 more things”. */
export function privilegesListed(names: readonly Privilege[], atMost = 3): string {
  const words = names.map(each => privilegeWords[each])
  if (words.length > atMost + 1)
    return `${words.slice(0, atMost).join(', ')} and ${words.length - atMost} more things`
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`
}
