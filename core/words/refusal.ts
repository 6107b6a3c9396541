import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { GuestRule, Refusal, Unknown } from '../changes/refusal.ts'
import type { Action } from '../levels/action.ts'

/** Names as far as the reader may know them; `undefined` for what must not be named. */
export interface Naming {
  readonly place: (node: NodeId) => string | undefined
  readonly person: (person: PersonId) => string | undefined
  readonly team: (team: TeamId) => string | undefined
}

/** Why something was refused, and what would work instead: one sentence each. */
export interface RefusalWords {
  readonly title: string
  readonly instead: string
}

const doing: Readonly<Record<Action, string>> = {
  see: 'open it',
  copy: 'copy from it',
  comment: 'comment there',
  add: 'add things there',
  change: 'change what is there',
  remove: 'archive or remove it',
  arrange: 'arrange it',
  share: 'give or take access there',
  seal: 'break or restore inheritance there',
  publish: 'publish it',
}

const missing: Readonly<Record<Unknown, string>> = {
  place: 'There is nothing here that you can open.',
  person: 'Nobody here has that name.',
  team: 'There is no such team that you know of.',
  grant: 'That access is not there any more.',
  limit: 'That limit is not there any more.',
  break: 'Inheritance is not broken there.',
  role: 'There is no such role.',
  invitation: 'There is no open invitation for that person.',
  level: 'There is no such level.',
  column: 'There is no such column that you know of.',
  channel: 'There is no such channel that you know of.',
  request: 'There is no such request that waits for you.',
  'welcome set': 'There is no such welcome set.',
  handover: 'That offer is not there any more.',
  watch: 'You are not told of that any more.',
  link: 'There is no such link.',
}

const guestRules: Readonly<Record<GuestRule, RefusalWords>> = {
  'leads no team': {
    title: 'A guest cannot lead a team.',
    instead: 'Name a member as lead first, or keep them as a member.',
  },
  'not welcome': {
    title: 'This team does not welcome guests.',
    instead: 'Take the guest out, or let the team welcome guests.',
  },
  'no stewardship': {
    title: 'A guest cannot hold stewardship of a place.',
    instead: 'Give Curator at most, or make the guest a member first.',
  },
  'no role': {
    title: 'A guest holds no role but Guest.',
    instead: 'Take their other roles first, or keep them as a member.',
  },
  'no private folder': {
    title: 'A guest has no private folder.',
    instead: 'Say who takes it over, or let it go to the bin.',
  },
}

// One row a code: a table in the shape of a switch, so that a new code is a compile error here.
// eslint-disable-next-line max-lines-per-function
export function refusalInWords(refusal: Refusal, naming: Naming): RefusalWords {
  switch (refusal.code) {
    case 'unknown':
      return { title: missing[refusal.what], instead: 'It may have been taken away meanwhile; look again.' }
    case 'action-missing':
      return {
        title: `You cannot ${doing[refusal.action]}${at(naming.place(refusal.node))}.`,
        instead: 'Ask somebody who shares this place to raise your level.',
      }
    case 'privilege-missing':
      return {
        title: `None of your roles holds “${refusal.privilege}”.`,
        instead: 'Ask an owner or administrator to do it, or for a role that holds it.',
      }
    case 'lead-missing':
      return {
        title: `Only the leads of ${naming.team(refusal.team) ?? 'that team'} decide who is in it.`,
        instead: 'Ask one of its leads.',
      }
    case 'gives-more':
      return {
        title: `You cannot give what you do not have${at(naming.place(refusal.node))}: ${refusal.lacks.join(', ')}.`,
        instead: 'Give at most the level that you hold there.',
      }
    case 'own-raise':
      return {
        title: `This would give you more access yourself${atAll(refusal.nodes, naming)}.`,
        instead: 'Somebody else who shares there has to do it.',
      }
    case 'no-steward-left':
      return {
        title: `${refusal.when === 'now' ? 'Nobody' : 'Once all ends have passed, nobody'} could give or take access${atAll(refusal.nodes, naming)}.`,
        instead: 'Name a steward who stays first.',
      }
    case 'no-owner-left':
      return { title: 'The workspace would have no active owner.', instead: 'Name another owner first.' }
    case 'own-limit':
      return {
        title: 'This limit holds you yourself.',
        instead: 'Somebody else who shares there has to loosen it.',
      }
    case 'fixed-place':
      return fixed[refusal.kind]
    case 'outranked':
      return { title: 'That ranks at or above your own role.', instead: 'Ask somebody of a higher rank.' }
    case 'guest-rule':
      return guestRules[refusal.rule]
    case 'end-in-past':
      return { title: 'The end lies in the past.', instead: 'Choose a later day, or none.' }
    case 'start-after-end':
      return { title: 'It would end before it begins.', instead: 'Choose an end after the beginning.' }
    case 'wrong-place':
      return {
        title: `A ${refusal.kind} cannot stand ${refusal.within === 'root' ? 'at the top' : `in a ${refusal.within}`}.`,
        instead: refusal.within === 'root' ? 'Make a shared home there instead.' : 'Choose a folder.',
      }
    case 'limits-only':
      return {
        title: 'Guests get access by name or through a team that welcomes them.',
        instead: 'Name the guest, or choose such a team.',
      }
    case 'already-there':
      return alreadyThere[refusal.what]
    case 'link-over':
      return {
        title: 'This link has ended, or as many have come by it as could.',
        instead: 'Ask whoever gave it to you for an invitation.',
      }
    case 'house-rules':
      return {
        title: 'The house rules are not accepted yet.',
        instead: 'Read them, and say that you accept them.',
      }
    case 'wrong-handle':
      return {
        title: 'A handle has 2 to 30 small letters, digits, dots, dashes and underscores.',
        instead: 'Begin and end it with a letter or digit.',
      }
    case 'domain-not-welcome':
      return {
        title: `${refusal.as === 'guest' ? 'Guests' : 'Members'} come with an address of ${refusal.domains.join(', ')} only.`,
        instead: 'Use such an address, or ask whoever keeps the security of the workspace to welcome others.',
      }
    case 'not-by-request':
      return { title: 'One does not ask to join this team.', instead: 'Ask one of its leads to put you in.' }
    case 'not-its-maker':
      return makers[refusal.what]
    case 'invitation-over':
      return { title: 'This invitation has ended.', instead: 'Ask whoever invited you to send it anew.' }
    case 'publishing-off':
      return {
        title: 'Publishing to the web is switched off here.',
        instead: 'Ask whoever keeps the security of the workspace, or a lead of the team whose home it is.',
      }
    case 'in-use':
      return { title: `This ${refusal.what} is in use.`, instead: 'Give something else in its place first.' }
    case 'locked':
      return locked[refusal.what]
    case 'no-seat':
      return {
        title: `All ${refusal.seats} seats are taken.`,
        instead: 'Free a seat, invite as a guest, or ask an owner for more seats.',
      }
    case 'kept-by-directory':
      return {
        title: `Who is in ${naming.team(refusal.team) ?? 'that team'} is kept by the directory.`,
        instead: 'Change it there; its leads are named here.',
      }
    case 'has-steward':
      return {
        title: `Somebody active gives and takes access already${at(naming.place(refusal.node))}.`,
        instead: 'Ask them; access is recovered only where nobody is left.',
      }
    case 'private':
      return {
        title: 'This lies in somebody’s private folder.',
        instead: 'It stays theirs; nobody recovers access to it.',
      }
    case 'not-asked-for':
      return {
        title: 'This role over this scope is not what was asked for.',
        instead: 'Choose a role that holds it where it has effect, or decline the request.',
      }
    case 'handover-over':
      return {
        title: 'Whoever offered this is no owner any more.',
        instead: 'Ask one of the owners to name you.',
      }
    case 'say-why':
      return {
        title: 'What only a privilege shows is looked at with a reason.',
        instead: 'Say why you look; it stands in the history.',
      }
    case 'asked-too-much':
      return {
        title: 'You have asked for a hundred places, and they wait for an answer.',
        instead: 'Take some of your requests back first.',
      }
    case 'too-early':
      return {
        title: `A ${refusal.what === 'team' ? 'team' : 'shared home'} is deleted only after it has been archived for thirty days.`,
        instead: 'Archive it, or wait; until then it can be brought back.',
      }
    case 'too-much':
      return tooMuch[refusal.what]
    case 'not-active':
      return {
        title: 'You are not active in this workspace.',
        instead: 'Ask an owner or administrator to let you in again.',
      }
    case 'nothing-to-undo':
      return {
        title: 'Nothing of this is left that could be undone.',
        instead: 'All of it was changed again since, is over, or is in use; change it where it stands.',
      }
    case 'never-undone':
      return {
        title: 'This cannot be undone.',
        instead:
          'Coming in, leaving for good, becoming a guest or a member, what left the bin and time that has passed stand; change what followed.',
      }
  }
}

const tooMuch = {
  depth: {
    title: 'Places lie at most 512 deep in one another.',
    instead: 'Choose a place that lies higher up.',
  },
  copies: {
    title: 'This would copy more than 5,000 places at once.',
    instead: 'Duplicate parts of it, one after another.',
  },
  'copy of a copy': {
    title: 'What is made in one change cannot be duplicated in it, too.',
    instead: 'Make it first, then duplicate it.',
  },
  changes: {
    title: 'This would change more than 50,000 things at once.',
    instead: 'Do it in parts, one after another.',
  },
}

const fixed = {
  home: { title: 'A home does not move.', instead: 'Move what is in it instead.' },
  'own subtree': { title: 'A place cannot be moved into itself.', instead: 'Choose a place outside it.' },
}

const makers = {
  link: {
    title: 'Only its maker changes this link: it gives by their rights.',
    instead: 'Withdraw it, and make one of your own.',
  },
  'welcome set': {
    title: 'Somebody else’s join link offers this set, by their rights: only they change what it gives.',
    instead: 'Ask them, withdraw their link, or make a set of your own.',
  },
  invitation: {
    title: 'Whoever opens this link comes in as this person: only who sent it hands it on, or an Owner.',
    instead: 'Send it anew: then it goes to the invited address itself.',
  },
}

const locked = {
  role: {
    title: 'The built-in roles stay as they are.',
    instead: 'Make a role of your own; a copy is a good start.',
  },
  ownership: {
    title: 'Only the role Owner holds ownership.',
    instead: 'Leave it out, or make somebody an owner.',
  },
}

const alreadyThere = {
  break: { title: 'Inheritance is broken here already.', instead: 'Look again; nothing was changed.' },
  person: {
    title: 'Somebody with this address is here or invited already.',
    instead: 'Find them in People.',
  },
  role: { title: 'They hold this role there already.', instead: 'Look again; nothing was changed.' },
  membership: { title: 'They are in this team already.', instead: 'Change their part in it instead.' },
  handle: {
    title: 'Somebody here has, or had, this handle.',
    instead: 'Choose another one; a handle never changes hands.',
  },
  request: { title: 'You have asked already.', instead: 'A lead of the team decides; you can take it back.' },
  'role request': {
    title: 'You hold or asked for this already.',
    instead: 'Whoever may give it decides; you can take your request back.',
  },
  access: { title: 'You have that access already.', instead: 'Open the place; nothing was changed.' },
  'access request': {
    title: 'You have asked for this already.',
    instead: 'Whoever gives access there decides; you can take your request back.',
  },
  watch: { title: 'You are told of changes there already.', instead: 'Look again; nothing was changed.' },
  handover: {
    title: 'You have offered to hand the workspace over already.',
    instead: 'Withdraw that offer first.',
  },
  kind: { title: 'They are that already.', instead: 'Look again; nothing was changed.' },
  id: { title: 'This was done already.', instead: 'Look again; nothing was changed.' },
}

const at = (place: string | undefined) => (place === undefined ? '' : ` (${place})`)

/** Places that the reader may not know are passed over in silence. */
function atAll(nodes: readonly NodeId[], naming: Naming): string {
  const names = nodes.flatMap(node => naming.place(node) ?? [])
  if (names.length === 0) return ''
  const shown = names.slice(0, 3).join(', ')
  return ` at ${shown}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`
}
