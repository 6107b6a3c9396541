import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { GuestRule, Refusal, Unknown } from '../changes/refusal.ts'
import type { Action } from '../levels/action.ts'
import type { Privilege } from '../levels/privilege.ts'
import { counted, listed, listedOr, nounFor, numberWords } from './english.ts'

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
  arrange: 'arrange what is in it',
  share: 'share it',
  seal: 'break or restore inheritance there',
  publish: 'publish it',
}

const missing: Readonly<Record<Unknown, string>> = {
  place: 'There is nothing here that you can open.',
  person: 'There is no such person that you know of.',
  team: 'There is no such team that you know of.',
  grant: 'This grant does not exist any more.',
  limit: 'This limit does not exist any more.',
  break: 'Inheritance is not broken on this place.',
  role: 'There is no such role.',
  invitation: 'This person has no open invitation.',
  level: 'There is no such level.',
  column: 'There is no such column that you know of.',
  section: 'There is no such section that you know of.',
  view: 'There is no such view that you know of.',
  channel: 'There is no such channel that you know of.',
  request: 'There is no such request that you can decide.',
  'welcome set': 'There is no such welcome set.',
  handover: 'This offer does not exist any more.',
  watch: 'You do not watch this any more.',
  link: 'There is no such link.',
}

const guestRules: Readonly<Record<GuestRule, RefusalWords>> = {
  'leads no team': {
    title: 'A guest cannot lead a team.',
    instead: 'Make a member the lead first, or keep this person as a member.',
  },
  'not welcome': {
    title: 'This team does not allow guests.',
    instead: 'Remove the guest from the team, or allow guests in the team.',
  },
  'no stewardship': {
    title: 'A guest cannot be Steward of a place.',
    instead: 'Give Curator at most, or make the guest a member first.',
  },
  'no role': {
    title: 'A guest can hold no other role than Guest.',
    instead: 'Remove their other roles first, or keep them as a member.',
  },
  'no private folder': {
    title: 'A guest has no private folder.',
    instead: 'Choose who takes it over, or move it to the bin.',
  },
}

/** Said by the server, and by a screen that would be of no use: in the same words. */
export const lacksPrivilegeWords = (privilege: Privilege): RefusalWords => ({
  title: `None of your roles has the privilege “${privilege}”.`,
  instead: 'Ask an owner or administrator to do it, or request a role that has this privilege.',
})

// One row a code: a table in the shape of a switch, so that a new code is a compile error here.
// eslint-disable-next-line max-lines-per-function
export function refusalInWords(refusal: Refusal, naming: Naming): RefusalWords {
  switch (refusal.code) {
    case 'unknown':
      return {
        title: missing[refusal.what],
        instead: 'Somebody may have removed it in the meantime. Reload the page.',
      }
    case 'action-missing':
      return {
        title: `You cannot ${doing[refusal.action]}${at(naming.place(refusal.node))}.`,
        instead: 'Request access, or ask a steward of this place for a higher level.',
      }
    case 'privilege-missing':
      return lacksPrivilegeWords(refusal.privilege)
    case 'lead-missing':
      return {
        title: `Only the leads of ${naming.team(refusal.team) ?? 'that team'} decide who is in it.`,
        instead: 'Ask one of its leads.',
      }
    case 'gives-more':
      return {
        title: `You cannot give more than you have${at(naming.place(refusal.node))}. You do not have: ${listed(refusal.lacks)}.`,
        instead: 'Give your own level or a lower one.',
      }
    case 'own-raise':
      return {
        title: `You cannot give yourself more access${atAll(refusal.nodes, naming)}.`,
        instead: 'Ask another steward to do it.',
      }
    case 'no-steward-left':
      return {
        title:
          refusal.when === 'now'
            ? `No steward would be left${atAll(refusal.nodes, naming)}.`
            : `No steward would be left${atAll(refusal.nodes, naming)} once all end dates have passed.`,
        instead: 'Make somebody Steward first, without an end.',
      }
    case 'no-owner-left':
      return {
        title: 'The workspace would have no active owner.',
        instead: 'Make somebody else an owner first.',
      }
    case 'own-limit':
      return {
        title: 'You cannot loosen a limit that applies to you.',
        instead: 'Ask another steward to do it.',
      }
    case 'fixed-place':
      return fixed[refusal.kind]
    case 'outranked':
      return { title: 'You need a role that outranks this one.', instead: 'Ask somebody of a higher rank.' }
    case 'guest-rule':
      return guestRules[refusal.rule]
    case 'end-in-past':
      return { title: 'The end is in the past.', instead: 'Choose a later day, or no end.' }
    case 'start-after-end':
      return { title: 'The end comes before the start.', instead: 'Choose an end after the start.' }
    case 'wrong-place':
      return {
        title: `A ${refusal.kind} cannot be ${refusal.within === 'root' ? 'at the top of the tree' : `in a ${refusal.within}`}.`,
        instead: refusal.within === 'root' ? 'Create a shared home instead.' : 'Choose a folder.',
      }
    case 'limits-only':
      return {
        title: 'Guests get access by name, or through a team that allows guests.',
        instead: 'Choose the guest by name, or such a team.',
      }
    case 'wrong-settings':
      return { title: refusal.why, instead: 'Correct it, and save the column again.' }
    case 'already-there':
      return alreadyThere[refusal.what]
    case 'link-over':
      return {
        title: 'This link has ended, or nobody more can use it.',
        instead: 'Ask the person who gave it to you for an invitation.',
      }
    case 'house-rules':
      return {
        title: 'You have not accepted the house rules yet.',
        instead: 'Read them, then tick that you accept them.',
      }
    case 'wrong-handle':
      return {
        title: 'A handle has 2 to 30 lower-case letters, digits, dots, dashes and underscores.',
        instead: 'Start and end it with a letter or a digit.',
      }
    case 'domain-not-welcome':
      return {
        title: `${refusal.as === 'guest' ? 'Guests' : 'Members'} need an address of ${listedOr(refusal.domains)}.`,
        instead: 'Use such an address, or ask an owner to allow others.',
      }
    case 'not-by-request':
      return { title: 'You cannot request to join this team.', instead: 'Ask one of its leads to add you.' }
    case 'not-its-maker':
      return makers[refusal.what]
    case 'invitation-over':
      return {
        title: 'This invitation has ended.',
        instead: 'Ask the person who invited you to send it again.',
      }
    case 'publishing-off':
      return {
        title: 'Publishing to the web is turned off.',
        instead: 'Ask an owner to turn it on in the settings.',
      }
    case 'in-use':
      return { title: `This ${refusal.what} is in use.`, instead: 'Replace it everywhere first.' }
    case 'locked':
      return locked[refusal.what]
    case 'no-seat':
      return {
        title: `This needs ${counted(refusal.needed, 'seat', 'seats')}, and ${numberWords(refusal.free)} ${nounFor(refusal.free, 'is', 'are')} free.`,
        instead: 'Free a seat, invite people as guests, or ask an owner for more seats.',
      }
    case 'kept-by-directory':
      return {
        title: `The directory decides who is in ${naming.team(refusal.team) ?? 'that team'}.`,
        instead: 'Change it in the directory. You can still choose the leads here.',
      }
    case 'has-steward':
      return {
        title: `This place has an active steward${at(naming.place(refusal.node))}.`,
        instead: 'Ask them. Access can be recovered only where no active steward is left.',
      }
    case 'private':
      return {
        title: 'This is in somebody’s private folder.',
        instead: 'Nobody can recover access to a private folder.',
      }
    case 'not-asked-for':
      return {
        title: 'This does not give what was requested.',
        instead: 'Choose what gives it, or decline the request.',
      }
    case 'handover-over':
      return {
        title: 'The person who offered this is not an owner any more.',
        instead: 'Ask one of the owners to offer it again.',
      }
    case 'reason-missing':
      return {
        title: 'Outline access and See as need a reason.',
        instead: 'Enter a reason. It is kept in the history.',
      }
    case 'asked-too-much':
      return {
        title: 'You have 100 requests that wait for an answer.',
        instead: 'Withdraw some of your requests first.',
      }
    case 'too-early':
      return {
        title: `A ${refusal.what === 'team' ? 'team' : 'shared home'} can be deleted only 30 days after it was archived.`,
        instead: 'Archive it first, or wait. Until then it can be restored.',
      }
    case 'too-much':
      return tooMuch[refusal.what]
    case 'not-active':
      return {
        title: 'You are not active in this workspace.',
        instead: 'Ask an owner or administrator to reactivate you.',
      }
    case 'nothing-to-undo':
      return {
        title: 'Nothing of this change can be undone any more.',
        instead: 'Everything in it was changed again, has ended or is in use. Change it on its own page.',
      }
    case 'never-undone':
      return {
        title: 'This cannot be undone.',
        instead:
          'Joining, leaving, switching between guest and member, deleting for good and dates that have passed cannot be undone.',
      }
  }
}

const tooMuch = {
  depth: {
    title: 'The tree can be at most 512 levels deep.',
    instead: 'Choose a place higher up in the tree.',
  },
  copies: {
    title: 'This would copy more than 5,000 places at once.',
    instead: 'Duplicate it in parts, one after another.',
  },
  'copy of a copy': {
    title: 'A new place cannot be duplicated in the same change.',
    instead: 'Create it first, then duplicate it.',
  },
  changes: {
    title: 'This would change more than 50,000 records at once.',
    instead: 'Do it in parts, one after another.',
  },
}

const fixed = {
  home: { title: 'A home cannot be moved.', instead: 'Move what is in it.' },
  'own subtree': { title: 'A place cannot be moved into itself.', instead: 'Choose a place outside it.' },
}

const makers = {
  link: {
    title: 'Only the person who created this link can change it.',
    instead: 'Withdraw it, then create your own.',
  },
  'welcome set': {
    title: 'Somebody else’s join link uses this welcome set, so only they can change it.',
    instead: 'Ask them, withdraw their link, or create your own set.',
  },
  invitation: {
    title: 'Only the person who sent this invitation, or an owner, can copy its link.',
    instead: 'Send it again. Then it goes to the invited address.',
  },
}

const locked = {
  role: {
    title: 'Built-in roles cannot be changed.',
    instead: 'Create your own role, for example as a copy of this one.',
  },
  ownership: {
    title: 'Only the role Owner can have ownership.',
    instead: 'Leave this privilege out, or make somebody an owner.',
  },
}

const nothingChanged = 'Nothing was changed. Reload the page to see how it is now.'

const alreadyThere = {
  break: { title: 'Inheritance is already broken on this place.', instead: nothingChanged },
  person: {
    title: 'Somebody with this address is already a member, a guest or invited.',
    instead: 'Find them under People.',
  },
  role: { title: 'This person already holds this role.', instead: nothingChanged },
  membership: { title: 'This person is already in the team.', instead: 'Change their membership instead.' },
  handle: {
    title: 'Somebody has, or had, this handle.',
    instead: 'Choose another one. A handle is never given to somebody else.',
  },
  request: {
    title: 'You have already requested to join.',
    instead: 'A lead of the team decides. You can withdraw your request.',
  },
  'role request': {
    title: 'You already have or requested this role.',
    instead: 'Somebody who may assign it decides. You can withdraw your request.',
  },
  access: { title: 'You already have this access.', instead: 'Open the place. Nothing was changed.' },
  'access request': {
    title: 'You have already requested this.',
    instead: 'A steward of the place decides. You can withdraw your request.',
  },
  watch: { title: 'You already watch this place.', instead: nothingChanged },
  handover: {
    title: 'You have already offered to hand over the workspace.',
    instead: 'Withdraw that offer first.',
  },
  kind: { title: 'This person is that already.', instead: nothingChanged },
  id: { title: 'This was already done.', instead: nothingChanged },
}

const at = (place: string | undefined) => (place === undefined ? '' : ` (${place})`)

/** Places that the reader may not know are passed over in silence. */
function atAll(nodes: readonly NodeId[], naming: Naming): string {
  const names = nodes.flatMap(node => naming.place(node) ?? [])
  if (names.length === 0) return ''
  return ` on ${listed(names, 3)}`
}
