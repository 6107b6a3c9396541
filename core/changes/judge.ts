import { subjectOf } from '../access/subject.ts'
import type { PersonId } from '../base/ids.ts'
import { type Result, ok, refused } from '../base/result.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChangesLater, type Snapshot, type RecordChange, type State, withIndex } from '../state/state.ts'
import type { Context, EditRule } from './context.ts'
import type { Edit, EditKind } from './edit.ts'
import { addGrant, changeGrant, endGrant } from './edits/grant.ts'
import { changeBoardView, createBoardView, deleteBoardView } from './edits/board-view.ts'
import { breakInheritance, restoreInheritance } from './edits/break.ts'
import { addLimit, changeLimit, endLimit } from './edits/limit.ts'
import { moveNode } from './edits/move.ts'
import { setNodeState } from './edits/node-state.ts'
import { describePerson, endPerson, resume, suspend } from './edits/person.ts'
import { assignRole, unassignRole } from './edits/role.ts'
import { undo } from './edits/undo.ts'
import { accept, renew, withdraw } from './edits/invitation.ts'
import { invite } from './edits/invite.ts'
import { addMember, changeMember, removeMember } from './edits/member.ts'
import { createHome, createNode, describeNode, orderNode } from './edits/node.ts'
import { archiveTeam, changeTeam, createTeam } from './edits/team.ts'
import { deleteTeam } from './edits/team-delete.ts'
import { changeLevel, createLevel, deleteLevel } from './edits/level.ts'
import { setWeb } from './edits/web.ts'
import { changeWorkspace } from './edits/workspace.ts'
import { changeChannel, createChannel } from './edits/channel.ts'
import { changeContact } from './edits/contact.ts'
import { changeJoinLink, createJoinLink, takeJoinLink, withdrawJoinLink } from './edits/join-link.ts'
import { changeInvitation } from './edits/offered.ts'
import { acceptRequest, declineRequest, makeRequest, withdrawRequest } from './edits/request.ts'
import { changeWelcomeSet, createWelcomeSet, deleteWelcomeSet } from './edits/welcome-set.ts'
import { changeColumn, createColumn, deleteColumn } from './edits/column.ts'
import { deleteNode } from './edits/delete.ts'
import { copiesAtMost, type Copy, copiesOf, duplicateNode } from './edits/duplicate.ts'
import { removePerson } from './edits/offboarding.ts'
import { recoverAccess } from './edits/recover.ts'
import { changeRole, createRole, deleteRole } from './edits/role-made.ts'
import { changeSeats } from './edits/seats.ts'
import { changeSection, createSection, deleteSection } from './edits/section.ts'
import { answerHandover, offerHandover, withdrawHandover } from './edits/handover.ts'
import { beginViewing } from './edits/viewing-session.ts'
import { beginWatch, endWatch } from './edits/watch.ts'
import { convertPerson } from './edits/convert.ts'
import { theWorkspace } from './scheduled.ts'
import type { Guard, LongGuard, ProposedChanges } from './guards/guard.ts'
import { guests } from './guards/guests.ts'
import { moveGains } from './guards/move-gains.ts'
import { ownerLeft } from './guards/owner-left.ts'
import { ownRaise } from './guards/own-raise.ts'
import { publishing } from './guards/publishing.ts'
import { recovered } from './guards/recovered.ts'
import { seats } from './guards/seats.ts'
import { stewardLeft } from './guards/steward-left.ts'
import type { Refusal } from './refusal.ts'
import { type Steps, toEnd, within } from './steps.ts'

/** What somebody wants to change, judged as a whole and applied as a whole. */
export interface ChangeSet {
  readonly author: PersonId
  readonly reason: string
  readonly edits: readonly Edit[]
}

export interface Judged {
  /** What each record was and becomes, one entry a record, in an order in which they can be written. */
  readonly changes: readonly RecordChange[]
  /** The state with these changes, at the revision of the one before. */
  readonly state: State
  /** What was duplicated, place by place: what is written there is copied with it. */
  readonly copies: readonly Copy[]
}

/** What a judged change set is compared by. */
export const proposedOf = (
  before: Snapshot,
  { author, edits }: ChangeSet,
  { changes, state }: Judged,
): ProposedChanges => ({
  author,
  edits,
  changes,
  before,
  after: snapshotOf(state, before.at),
})

export interface Refused {
  readonly refusal: Refusal
  /** The edit that is refused; `null` where the set as a whole is. */
  readonly edit: number | null
}

const rules: { readonly [K in EditKind]: EditRule<Extract<Edit, { kind: K }>> } = {
  'person.invite': invite,
  'invitation.withdraw': withdraw,
  'invitation.renew': renew,
  'invitation.accept': accept,
  'team.create': createTeam,
  'team.change': changeTeam,
  'member.add': addMember,
  'member.change': changeMember,
  'member.remove': removeMember,
  'home.create': createHome,
  'node.create': createNode,
  'node.describe': describeNode,
  'grant.add': addGrant,
  'grant.change': changeGrant,
  'grant.end': endGrant,
  'limit.add': addLimit,
  'limit.change': changeLimit,
  'limit.end': endLimit,
  'node.break': breakInheritance,
  'node.restore': restoreInheritance,
  'node.move': moveNode,
  'node.state': setNodeState,
  'person.suspend': suspend,
  'person.reactivate': resume,
  'person.end': endPerson,
  'person.describe': describePerson,
  'role.assign': assignRole,
  'role.unassign': unassignRole,
  undo,
  'node.web': setWeb,
  'node.order': orderNode,
  'team.archive': archiveTeam,
  'team.delete': deleteTeam,
  'level.create': createLevel,
  'level.change': changeLevel,
  'level.delete': deleteLevel,
  'workspace.change': changeWorkspace,
  'node.delete': deleteNode,
  'node.duplicate': duplicateNode,
  'person.remove': removePerson,
  'person.convert': convertPerson,
  'access.recover': recoverAccess,
  'role.create': createRole,
  'role.change': changeRole,
  'role.delete': deleteRole,
  'seats.change': changeSeats,
  'column.create': createColumn,
  'column.change': changeColumn,
  'column.delete': deleteColumn,
  'section.create': createSection,
  'section.change': changeSection,
  'section.delete': deleteSection,
  'view.create': createBoardView,
  'view.change': changeBoardView,
  'view.delete': deleteBoardView,
  'channel.create': createChannel,
  'channel.change': changeChannel,
  'invitation.change': changeInvitation,
  'person.contact': changeContact,
  'request.make': makeRequest,
  'request.withdraw': withdrawRequest,
  'request.accept': acceptRequest,
  'request.decline': declineRequest,
  'welcome.create': createWelcomeSet,
  'welcome.change': changeWelcomeSet,
  'welcome.delete': deleteWelcomeSet,
  'link.create': createJoinLink,
  'link.change': changeJoinLink,
  'link.withdraw': withdrawJoinLink,
  'link.use': takeJoinLink,
  'handover.offer': offerHandover,
  'handover.withdraw': withdrawHandover,
  'handover.answer': answerHandover,
  'session.begin': beginViewing,
  'watch.begin': beginWatch,
  'watch.end': endWatch,
}

const guards: readonly Guard[] = [seats, guests, publishing, ownerLeft, recovered]
const longGuards: readonly LongGuard[] = [moveGains, ownRaise, stewardLeft]

/** So many records are changed at once. */
const changesAtMost = 50_000

/** Judges a change set on a state. Costs what the nodes cost at which access can change by it. */
export const judge = (before: Snapshot, changeSet: ChangeSet): Result<Judged, Refused> =>
  toEnd(judging(before, changeSet))

/** The same in steps: of those that change very much each lasts some milliseconds. */
export function* judging(before: Snapshot, { author, edits }: ChangeSet): Steps<Result<Judged, Refused>> {
  if (!mayAct(before, author, edits)) return refused({ refusal: { code: 'not-active' }, edit: null })
  const changes: RecordChange[] = []
  const copies: Copy[] = []
  let state = before.state
  for (const [index, edit] of edits.entries()) {
    yield (partOfEdits * index) / edits.length
    const context: Context = { author, before, now: snapshotOf(state, before.at) }
    const rule = rules[edit.kind] as EditRule
    const refusal = rule.lacks(context, edit)
    if (refusal !== undefined) return refused({ refusal, edit: index })
    const outcome = rule.apply(context, edit)
    if (!outcome.ok) return refused({ refusal: outcome.error, edit: index })
    if (edit.kind === 'node.duplicate') copies.push(...copiesOf(context, edit))
    if (copies.length > copiesAtMost) return refused({ refusal: tooMuch('copies'), edit: index })
    if (changes.length + outcome.value.length > changesAtMost)
      return refused({ refusal: tooMuch('changes'), edit: index })
    state = yield* applied(state, outcome.value)
    changes.push(...outcome.value)
  }
  state = withIndex(state)
  const proposed = { author, edits, changes, before, after: snapshotOf(state, before.at) }
  for (const guard of guards) {
    yield partOfEdits
    const refusal = guard(proposed)
    if (refusal !== undefined) return refused({ refusal, edit: null })
  }
  for (const [nth, guard] of longGuards.entries()) {
    const from = partOfEdits + ((1 - partOfEdits) * nth) / longGuards.length
    const refusal = yield* within(guard(proposed), from, from + (1 - partOfEdits) / longGuards.length)
    if (refusal !== undefined) return refused({ refusal, edit: null })
  }
  return ok({ changes: merged(changes), state, copies })
}

/** Of how far it is: the rest is the guards'. */
const partOfEdits = 0.7

const tooMuch = (what: 'copies' | 'changes'): Refusal => ({ code: 'too-much', what })

const appliedAtOnce = 200

/** Very many changes of one edit are applied in parts, which come in an order in which they can be written. */
function* applied(state: State, changes: readonly RecordChange[]): Steps<State> {
  let so = state
  for (let from = 0; from < changes.length; from += appliedAtOnce) {
    if (from > 0) yield 0
    so = applyChangesLater(so, changes.slice(from, from + appliedAtOnce))
  }
  return so
}

/** Somebody who is not active makes no change set at all; coming in is the act of the invited. */
const mayAct = (before: Snapshot, author: PersonId, edits: readonly Edit[]): boolean =>
  subjectOf(before, author)?.isActive === true ||
  (edits.length > 0 && edits.every(edit => edit.kind === 'invitation.accept'))

/** The first right that the author lacks for any of the edits, read before them: no guard is asked. */
export const lacksRights = (before: Snapshot, changeSet: ChangeSet): Refusal | undefined =>
  toEnd(lackingRights(before, changeSet))

/** The same in steps. */
export function* lackingRights(before: Snapshot, { author, edits }: ChangeSet): Steps<Refusal | undefined> {
  if (!mayAct(before, author, edits)) return { code: 'not-active' }
  for (const edit of edits) {
    yield 0
    const refusal = (rules[edit.kind] as EditRule).lacks({ author, before, now: before }, edit)
    if (refusal !== undefined) return refusal
  }
  return undefined
}

interface Applied {
  readonly state: State
  readonly changes: readonly RecordChange[]
}

/** What edits do to a state, whoever makes them: no rights are asked, no guard. `undefined` if one does not fit. */
export const applyEdits = (before: Snapshot, edits: readonly Edit[]): Applied | undefined =>
  toEnd(applying(before, edits))

/** The same in steps. */
export function* applying(before: Snapshot, edits: readonly Edit[]): Steps<Applied | undefined> {
  let state = before.state
  const changes: RecordChange[] = []
  for (const [index, edit] of edits.entries()) {
    yield index / edits.length
    const context: Context = { author: theWorkspace, before, now: snapshotOf(state, before.at) }
    const outcome = (rules[edit.kind] as EditRule).apply(context, edit)
    if (!outcome.ok) return undefined
    state = applyChangesLater(state, outcome.value)
    changes.push(...outcome.value)
  }
  return { state: withIndex(state), changes }
}

/** One change a record: from what it was before the first edit to what it is after the last. */
function merged(changes: readonly RecordChange[]): RecordChange[] {
  const byRecord = new Map<string, RecordChange>()
  for (const change of changes) {
    const key = `${change.table} ${change.id}`
    const earlier = byRecord.get(key)
    byRecord.set(
      key,
      earlier === undefined ? change : ({ ...change, before: earlier.before } as RecordChange),
    )
  }
  return [...byRecord.values()].filter(change => change.before !== change.after)
}
