import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { type Result } from '../base/result.ts'
import { check, heldInArchive } from '../access/evaluate.ts'
import { mayUse, rankFor, type Target, entireWorkspace } from '../access/powers.ts'
import { subjectOf, teamsOf } from '../access/subject.ts'
import { type Action, type ActionSet, everyAction, has, noActions } from '../levels/action.ts'
import type { Privilege } from '../levels/privilege.ts'
import type { TableName } from '../state/kinds.ts'
import { type Snapshot, type RecordChange, rootOf, type State } from '../state/state.ts'
import type { Edit, EditKind } from './edit.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import type { Refusal } from './refusal.ts'

/** What one edit is judged in: the author, the state before the whole set, the state that edits so far made. */
export interface Context {
  readonly author: PersonId
  readonly before: Snapshot
  readonly now: Snapshot
}

export type Outcome = Result<readonly RecordChange[], Refusal>

/** One kind of edit: who may make it, and what it does to the records. */
export interface EditRule<E extends Edit = Edit> {
  readonly kind: E['kind']
  /** `undefined` if the author may. Rights are read in the state before the change set. */
  readonly lacks: (context: Context, edit: E) => Refusal | undefined
  readonly apply: (context: Context, edit: E) => Outcome
}

export type EditOf<K extends EditKind> = Extract<Edit, { readonly kind: K }>

/**
 * What the author may do at a node. For a node made in this change set it is what the author may do
 * at its parent; a home made in it is its maker's to set up. Nothing at the root: see `authorGives`.
 */
export const authorActions = (context: Context, node: NodeId): ActionSet => authorHolds(context, node, check)

/** The same as if nothing were archived: for sharing, breaking and moving there. Nothing in the bin. */
export const authorActionsInArchive = (context: Context, node: NodeId): ActionSet =>
  authorHolds(context, node, heldInArchive)

function authorHolds(context: Context, node: NodeId, evaluate: typeof check): ActionSet {
  const { author, before } = context
  if (rowOf(before.state.nodes, node) === undefined) {
    const made = rowOf(context.now.state.nodes, node)
    if (made === undefined) return noActions
    return made.home === null && made.parent !== null
      ? authorHolds(context, made.parent, evaluate)
      : everyAction
  }
  return node === rootOf(before.state).id ? noActions : evaluate(before, author, node)
}

/**
 * What the author has at a place where access is given, taken or limited, as if nothing were archived. On the root
 * stand grants and limits alone, and there *security* takes the place of all that these need.
 */
export function authorGives(context: Context, node: NodeId): ActionSet {
  const { author, before } = context
  if (node !== rootOf(before.state).id) return authorActionsInArchive(context, node)
  return mayUse(before, author, 'security') ? everyAction : noActions
}

/** Giving and taking access somewhere. */
export const lacksSharing = (context: Context, node: NodeId): Refusal | undefined =>
  lacking(authorGives(context, node), node, 'share')

/** A place that the author cannot see is refused exactly like one that does not exist. */
export const lacksAction = (context: Context, node: NodeId, action: Action): Refusal | undefined =>
  lacking(authorActions(context, node), node, action)

export const lacksActionInArchive = (context: Context, node: NodeId, action: Action): Refusal | undefined =>
  lacking(authorActionsInArchive(context, node), node, action)

function lacking(held: ActionSet, node: NodeId, action: Action): Refusal | undefined {
  if (!has(held, 'see')) return { code: 'unknown', what: 'place' }
  return has(held, action) ? undefined : { code: 'action-missing', action, node }
}

/** What is set at a place where the author gives no access is refused exactly like what does not exist. */
export const asUnknown = (what: 'grant' | 'limit', refusal: Refusal | undefined): Refusal | undefined =>
  refusal?.code === 'unknown' || refusal?.code === 'action-missing' ? { code: 'unknown', what } : refusal

/** Change, or add for what the author has made there, in this change set or before it. */
export function lacksEditing(context: Context, node: NodeId): Refusal | undefined {
  const place = rowOf(context.before.state.nodes, node) ?? rowOf(context.now.state.nodes, node)
  const isOwn = place?.maker === context.author
  return isOwn && lacksAction(context, node, 'add') === undefined
    ? undefined
    : lacksAction(context, node, 'change')
}

export function lacksPrivilege(
  context: Context,
  privilege: Privilege,
  target: Target = entireWorkspace,
): Refusal | undefined {
  const rank = rankFor(context.before, context.author, { privilege, target })
  return rank === undefined ? { code: 'privilege-missing', privilege } : undefined
}

/** Lead of the team, or manage any team. Whoever makes a team in this change set may fill it. */
export function lacksTeam(context: Context, team: TeamId): Refusal | undefined {
  if (rowOf(context.before.state.teams, team) === undefined)
    return rowOf(context.now.state.teams, team) === undefined ? { code: 'unknown', what: 'team' } : undefined
  if (
    leadsTeam(context.before, context.author, team) ||
    mayUse(context.before, context.author, 'manage any team')
  )
    return undefined
  return knowsTeam(context.before, context.author, team)
    ? { code: 'lead-missing', team }
    : { code: 'unknown', what: 'team' }
}

export function leadsTeam(snapshot: Snapshot, person: PersonId, team: TeamId): boolean {
  return subjectOf(snapshot, person)?.principals.has(`leads:${team}`) === true
}

/** Who is in a team that a directory keeps is changed there only. */
export function lacksFilling(context: Context, team: TeamId): Refusal | undefined {
  const isKept = rowOf(context.before.state.teams, team)?.keptByDirectory === true
  const lacks = lacksTeam(context, team)
  return isKept && lacks?.code !== 'unknown' ? { code: 'kept-by-directory', team } : lacks
}

/** Members see the listed teams; unlisted ones only their own people and those who manage any. */
export function knowsTeam(snapshot: Snapshot, person: PersonId, team: TeamId): boolean {
  const row = rowOf(snapshot.state.teams, team)
  const subject = subjectOf(snapshot, person)
  if (row === undefined || subject?.isActive !== true) return false
  if (teamsOf(snapshot, subject.person).some(each => each.team === team)) return true
  if (subject.isGuest) return false
  return row.joining !== 'unlisted' || mayUse(snapshot, person, 'manage any team')
}

/** The first refusal of those that count. */
export const firstLack = (
  needs: readonly (readonly [isNeeded: boolean, lacks: () => Refusal | undefined])[],
): Refusal | undefined => needs.flatMap(([isNeeded, lacks]) => (isNeeded ? (lacks() ?? []) : []))[0]

/** An id that is in use cannot name something new; said alike whatever it names. */
export function isTaken(state: State, table: TableName, id: string) {
  return rowOf(state[table] as State['nodes'], id as NodeId) !== undefined
}

/** An end at or before now is refused in the edit that sets it. */
export function wrongSpan(
  context: Context,
  from: Instant | null,
  until: Instant | null,
): Refusal | undefined {
  if (until === null) return undefined
  if (until <= context.now.at) return { code: 'end-in-past' }
  return from !== null && from >= until ? { code: 'start-after-end' } : undefined
}

/** A principal that is not there, or that the author cannot know, is refused alike. */
export function unknownPrincipal(context: Context, principal: Principal): Refusal | undefined {
  const parts = partsOf(principal)
  switch (parts.kind) {
    case 'person': {
      const person = rowOf(context.now.state.persons, parts.person)
      return person === undefined || person.status === 'removed'
        ? { code: 'unknown', what: 'person' }
        : undefined
    }
    case 'team':
    case 'leads': {
      const isNew = rowOf(context.before.state.teams, parts.team) === undefined
      const known = isNew
        ? rowOf(context.now.state.teams, parts.team) !== undefined
        : knowsTeam(context.before, context.author, parts.team)
      return known ? undefined : { code: 'unknown', what: 'team' }
    }
    case 'everyone':
    case 'guests':
    case 'anyone':
      return undefined
  }
}
