import { rowOf, rowsBy } from '../../base/collection.ts'
import type { AccountId, GrantId, HandleId, NodeId, PersonId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { everyAction } from '../../levels/action.ts'
import type { Invitation, Person } from '../../people/person.ts'
import { personPrincipal } from '../../rules/principal.ts'
import { type RecordChange, rootOf, type State, workspaceOf } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, lacksPrivilege, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { consequencesOf, gone } from '../../state/naming.ts'
import { claimHandle } from './handle.ts'
import { createdNode } from './node.ts'
import type { Instant } from '../../base/instant.ts'

export interface WithdrawInvitation {
  readonly kind: 'invitation.withdraw'
  readonly person: PersonId
}

/** Takes an invitation back: the person, never having been here, goes with all that was offered. */
export const withdraw: EditRule<WithdrawInvitation> = {
  kind: 'invitation.withdraw',
  lacks: (context, edit) => lacksInviting(context, rowOf(context.before.state.persons, edit.person)),
  apply: (context, edit) => {
    const { state } = context.now
    const open = openInvitation(state, edit.person)
    if (open === undefined) return refused({ code: 'unknown', what: 'invitation' })
    const handles = rowsBy(state.handles, 'person', open.person.id).map(each => gone('handles', each))
    return ok([...consequencesOf(state, 'persons', open.person.id), ...handles, gone('persons', open.person)])
  },
}

export interface RenewInvitation {
  readonly kind: 'invitation.renew'
  readonly person: PersonId
  readonly linkUntil: Instant
}

/** Sends an invitation anew: earlier links die, the new one lives until `linkUntil`. */
export const renew: EditRule<RenewInvitation> = {
  kind: 'invitation.renew',
  lacks: (context, edit) => lacksInviting(context, rowOf(context.before.state.persons, edit.person)),
  apply: (context, edit) => {
    const open = openInvitation(context.now.state, edit.person)
    if (open === undefined) return refused({ code: 'unknown', what: 'invitation' })
    const wrong = wrongSpan(context, null, edit.linkUntil)
    if (wrong !== undefined) return refused(wrong)
    const before = open.invitation
    const after: Invitation = { ...before, until: edit.linkUntil, issue: before.issue + 1 }
    return ok([{ table: 'invitations', id: before.id, before, after }])
  },
}

/** By the invited, at sign-up; never accepted from outside without the link. */
export interface AcceptInvitation {
  readonly kind: 'invitation.accept'
  readonly person: PersonId
  readonly account: AccountId
  readonly name: string
  /** The first handle; none where the person has one from before. */
  readonly handle: HandleId | null
  /** Whether the house rules are accepted. */
  readonly agrees: boolean
  /** The private folder that a member gets. */
  readonly folder: NodeId
  readonly grant: GrantId
}

/** The invited comes in. A member gets a private folder, born with inheritance broken. */
export const accept: EditRule<AcceptInvitation> = {
  kind: 'invitation.accept',
  lacks: (context, edit) =>
    context.author === edit.person ? undefined : { code: 'unknown', what: 'invitation' },
  apply: (context, edit) => {
    const { state, at } = context.now
    const open = openInvitation(state, edit.person)
    if (open === undefined) return refused({ code: 'unknown', what: 'invitation' })
    const { person, invitation } = open
    if (invitation.until <= at || (person.until !== null && person.until <= at))
      return refused({ code: 'invitation-over' })
    const { houseRules } = workspaceOf(state)
    if (houseRules !== '' && !edit.agrees) return refused({ code: 'house-rules' })
    const handle = person.handle ?? edit.handle
    const claimed = handle === null ? ok([]) : claimHandle(context, person.id, handle)
    if (!claimed.ok) return claimed
    const after: Person = {
      ...person,
      account: edit.account,
      name: edit.name,
      handle,
      status: 'active',
      joinedAt: at,
      agreedAt: houseRules === '' ? null : at,
    }
    const changes: RecordChange[] = [
      { table: 'persons', id: person.id, before: person, after },
      ...claimed.value,
      { table: 'invitations', id: invitation.id, before: invitation, after: null },
    ]
    return ok(person.kind === 'member' ? [...changes, ...privateFolder(context, edit)] : changes)
  },
}

/** The private folder of a member: nobody else's, whatever is granted above. */
export function privateFolder(
  context: Context,
  made: Pick<EditOf<'invitation.accept'>, 'person' | 'folder' | 'grant'>,
): RecordChange[] {
  const { state, at } = context.now
  const folder = createdNode(
    { id: made.folder, parent: rootOf(state).id, kind: 'folder', name: 'My private folder' },
    { maker: made.person, madeAt: at },
  )
  return [
    {
      table: 'nodes',
      id: folder.id,
      before: null,
      after: { ...folder, home: { of: 'person', person: made.person }, broken: { by: made.person, at } },
    },
    {
      table: 'grants',
      id: made.grant,
      before: null,
      after: {
        id: made.grant,
        node: made.folder,
        principal: personPrincipal(made.person),
        gives: everyAction,
        by: made.person,
        at,
        from: null,
        until: null,
        copiedFrom: null,
      },
    },
  ]
}

/** The privilege to invite somebody of that kind, over that person. */
export function lacksInviting(context: Context, person: Person | undefined): Refusal | undefined {
  if (person === undefined) return { code: 'unknown', what: 'invitation' }
  const teams = rowsBy(context.before.state.memberships, 'person', person.id).map(each => each.team)
  const target = { over: person.kind, teams }
  const missing = lacksPrivilege(
    context,
    person.kind === 'guest' ? 'invite guests' : 'invite members',
    target,
  )
  return missing === undefined || lacksPrivilege(context, 'view people', target) === undefined
    ? missing
    : { code: 'unknown', what: 'invitation' }
}

/** Whoever holds its link comes in as that person: who sent it may hand it on, and Owners. */
export function lacksHandingOn(context: Context, person: Person | undefined): Refusal | undefined {
  const lacks = lacksInviting(context, person)
  if (lacks !== undefined || person === undefined) return lacks
  const open = openInvitation(context.before.state, person.id)
  if (open === undefined) return { code: 'unknown', what: 'invitation' }
  const isIts = open.invitation.by === context.author || lacksPrivilege(context, 'own') === undefined
  return isIts ? undefined : { code: 'not-its-maker', what: 'invitation' }
}

export function openInvitation(
  state: State,
  id: PersonId,
): { person: Person; invitation: Invitation } | undefined {
  const person = rowOf(state.persons, id)
  const [invitation] = rowsBy(state.invitations, 'person', id)
  return person?.status === 'invited' && invitation !== undefined ? { person, invitation } : undefined
}
