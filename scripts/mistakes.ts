import { accessMistakes } from './mistakes-access.ts'
import { boardMistakes } from './mistakes-boards.ts'
import { fileMistakes } from './mistakes-files.ts'
import { serverMistakes } from './mistakes-server.ts'
import { settledMistakes } from './mistakes-settled.ts'

/** A mistake that the tests have to catch: what is found in a file, and what is put there instead. */
export interface Mistake {
  readonly mistake: string
  readonly file: string
  readonly find: string
  readonly put: string
  /** The test file that catches it: of the server always, of the core where it is a slow one, which is asked first. */
  readonly by?: string
}

export const mistakes: readonly Mistake[] = [
  ...accessMistakes,
  ...settledMistakes,
  ...serverMistakes,
  ...fileMistakes,
  ...boardMistakes,
  {
    mistake: 'one’s own raise is looked for only at the places themselves, whatever changes',
    file: 'core/changes/guards/own-raise.ts',
    find: 'proposed.changes.every(isEntry) &&',
    put: '',
  },
  {
    mistake: 'an end still counts at its instant',
    file: 'core/base/instant.ts',
    find: 'at < span.until)',
    put: 'at <= span.until)',
    by: 'core/impact/powers.test.ts',
  },
  {
    mistake: 'effects on privileges forget what is had over the whole workspace',
    file: 'core/impact/powers.ts',
    find: '!inAll(from, each) &&',
    put: '',
    by: 'core/impact/powers.test.ts',
  },
  {
    mistake: 'a handover gives though who offered it is no owner any more',
    file: 'core/changes/edits/handover.ts',
    find: "if (!mayUse(now, before.from, 'own')) return refused({ code: 'handover-over' })",
    put: '',
  },
  {
    mistake: 'a request is answered with a role that was not asked for',
    file: 'core/changes/requests/for-role.ts',
    find: 'role === undefined || !answers(request.wants, role, given.scope))',
    put: 'role === undefined)',
  },
  {
    mistake: 'one decides one’s own request',
    file: 'core/changes/requests/for-role.ts',
    find: 'if (person === context.author) return unknownRequest',
    put: '',
  },
  {
    mistake: 'a role that a handover would keep is deleted',
    file: 'core/records/handovers.ts',
    find: "id('keeps', 'roles', { whenGone: 'forbids' })",
    put: "id('keeps', 'roles', { whenGone: 'stays' })",
  },
  {
    mistake: 'what names somebody among others still names them when they are gone',
    file: 'core/state/naming.ts',
    find: "} else if (typeof reference.whenGone === 'object') {",
    put: '} else if (reference.whenGone === undefined) {',
  },
  {
    mistake: 'what goes with a place takes nothing along itself',
    file: 'core/state/naming.ts',
    find: '      addConsequences(state, { table: from, id: row.id }, changes)\n',
    put: '',
  },
  {
    mistake: 'undo brings back what a level was given by that is no more',
    file: 'core/records/grants.ts',
    find: "      whenGone: 'forbids',\n      key: { none: 'a set of actions stands there as well' },",
    put: "      whenGone: 'stays',\n      key: { none: 'a set of actions stands there as well' },",
  },
  {
    mistake: 'one may raise oneself',
    file: 'core/changes/judge.ts',
    find: '[moveGains, ownRaise, stewardLeft]',
    put: '[moveGains, stewardLeft]',
  },
  {
    mistake: 'stewards are not looked for after all ends',
    file: 'core/changes/guards/steward-left.ts',
    find: "['now', 'after ends'] as const",
    put: "['now'] as const",
  },
  {
    mistake: 'a break keeps only what is live now',
    file: 'core/changes/edits/break.ts',
    find: '.filter(grant => !isOver(grant, at))',
    put: '.filter(grant => (grant.from ?? 0) <= at && !isOver(grant, at))',
  },
  {
    mistake: 'giving does not need to have it',
    file: 'core/changes/edits/grant.ts',
    find: 'return lacks.length === 0 ? undefined',
    put: 'return lacks.length >= 0 ? undefined',
  },
  {
    mistake: 'undoing overwrites what was changed since',
    file: 'core/changes/undo.ts',
    find: 'isSame(current[field], after[field])',
    put: 'true',
  },
  {
    mistake: 'remedies of three edits are missed',
    file: 'core/remedies/why-not.ts',
    find: 'const mostEdits = 3',
    put: 'const mostEdits = 2',
    by: 'core/remedies/why-not.test.ts',
  },
  {
    mistake: 'a page that two states share is written',
    file: 'core/base/vector.ts',
    find: 'if (writing.isOwn[index] !== true || ',
    put: 'if (writing.pages[index] === undefined || ',
  },
  {
    mistake: 'effects are told for now only',
    file: 'core/impact/impact.ts',
    find: 'starts.length === 0 ? [now] : instantsOf(transition, { starts, people: reach.people }),',
    put: '[now],',
    by: 'core/impact/impact.test.ts',
  },
  {
    mistake: 'what ended stays in the state',
    file: 'core/changes/scheduled.ts',
    find: 'before: row, after: null',
    put: 'before: row, after: row',
  },
  {
    mistake: 'deleting for good needs no more than binning',
    file: 'core/changes/edits/delete.ts',
    find: "lacksInBin(context, node, 'seal')",
    put: "lacksInBin(context, node, 'remove')",
  },
  {
    mistake: 'the bin is never emptied',
    file: 'core/changes/scheduled.ts',
    find: 'affected.push(...leavingBin(state, at), ...withSeatsPlanned(state, at))',
    put: 'affected.push(...withSeatsPlanned(state, at))',
  },
  {
    mistake: 'a copy holds what its author may not copy',
    file: 'core/changes/edits/duplicate.ts',
    find: "if (!has(authorActions(context, from.id), 'copy')) continue",
    put: '',
  },
  {
    mistake: 'breaks do not travel with a copy',
    file: 'core/changes/edits/duplicate.ts',
    find: 'broken: from.broken === null ? null : { by: author, at: now.at },',
    put: '',
  },
  {
    mistake: 'a member turned guest keeps stewardship in the records',
    file: 'core/changes/edits/convert.ts',
    find: 'return [...lowered, ...own,',
    put: 'return [...own,',
  },
  {
    mistake: 'a private folder is handed over by anybody who may turn people',
    file: 'core/changes/edits/convert.ts',
    find: '?? lacksHandingOver(context, edit),',
    put: ',',
  },
  {
    mistake: 'a role may come to hold what its author lacks',
    file: 'core/changes/edits/role-made.ts',
    find: 'given: gained(before, after),',
    put: 'given: before === null ? gained(before, after) : [],',
  },
  {
    mistake: 'raising oneself through a column is not noticed',
    file: 'core/changes/guards/own-raise.ts',
    find: 'if (!isNew && rank[each.after] > rank[each.before]) raised.add(each.at)',
    put: '',
  },
  {
    mistake: 'the effect of a team is looked for at its home only',
    file: 'core/records/teams.ts',
    find: 'return [...homes, ...placesNaming(state, [teamPrincipal(id), leadsPrincipal(id)])]',
    put: 'return homes',
  },
  {
    mistake: 'ends of memberships are no instants of an effect',
    file: 'core/changes/instants.ts',
    find: 'note({ flags, vector: memberships, address: at + inMembership.times })',
    put: '',
  },
  {
    mistake: 'anybody changes what a link of somebody else gives',
    file: 'core/changes/edits/welcome-set.ts',
    find: 'return isOfferedByAnother(context, kept)',
    put: 'return false',
  },
  {
    mistake: 'a link lets in one more than it says',
    file: 'core/changes/edits/join-link.ts',
    find: 'used < most)',
    put: 'used <= most)',
  },
  {
    mistake: 'a domain lets in those below it',
    file: 'core/changes/edits/invite.ts',
    find: "domains.includes(mail.slice(mail.lastIndexOf('@') + 1).toLowerCase())",
    put: 'domains.some(each => mail.toLowerCase().endsWith(each))',
  },
  {
    mistake: 'a role may be given that holds more than its giver',
    file: 'core/changes/edits/invite.ts',
    find: "if (held === undefined) return { code: 'privilege-missing', privilege }",
    put: 'if (held === undefined) continue',
  },
  {
    mistake: 'house rules need not be accepted',
    file: 'core/changes/edits/invitation.ts',
    find: "if (houseRules !== '' && !edit.agrees)",
    put: 'if (false)',
  },
  {
    mistake: 'whoever invites hands on the links of others',
    file: 'core/changes/edits/invitation.ts',
    find: "return isIts ? undefined : { code: 'not-its-maker', what: 'invitation' }",
    put: 'return undefined',
  },
  {
    mistake: 'a handle that was given up is free for others',
    file: 'core/changes/edits/handle.ts',
    find: "refused({ code: 'already-there', what: 'handle' })",
    put: 'ok([])',
  },
  {
    mistake: 'whoever asks for access can answer it',
    file: 'core/changes/requests/for-access.ts',
    find: 'person === context.author || lacksActionInArchive',
    put: 'lacksActionInArchive',
  },
  {
    mistake: 'anybody who sees a place decides what is asked for there',
    file: 'core/changes/requests/for-access.ts',
    find: "lacksActionInArchive(context, wants.node, 'share') !== undefined",
    put: "lacksActionInArchive(context, wants.node, 'see') !== undefined",
  },
  {
    mistake: 'what is given to who asked does not answer them',
    file: 'core/changes/edits/grant.ts',
    find: "[gone('requests', request)]",
    put: '[]',
  },
  {
    mistake: 'a watch is for whoever sees the place',
    file: 'core/changes/edits/watch.ts',
    find: "lacks: (context, { node }) => lacksActionInArchive(context, node, 'share'),",
    put: "lacks: (context, { node }) => lacksActionInArchive(context, node, 'see'),",
  },
  {
    mistake: 'whoever arranges a board changes columns that they may not see',
    file: 'core/changes/edits/column.ts',
    find: "if (isHidden) return { code: 'unknown', what: 'column' }",
    put: '',
  },
]
