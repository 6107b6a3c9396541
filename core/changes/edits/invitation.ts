import { rowOf, rowsBy } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { everyAction } from '../../levels/action.ts'
import type { Invitation, Person } from '../../people/person.ts'
import { personPrincipal } from '../../rules/principal.ts'
import { type RecordChange, rootOf, type State } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, lacksPrivilege, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from './delete.ts'
import { createdNode } from './node.ts'

/** Takes an invitation back: the person, never having been here, goes with all that was offered. */
export const withdraw: EditRule<EditOf<'invitation.withdraw'>> = {
  kind: 'invitation.withdraw',
  lacks: (context, edit) => lacksInviting(context, rowOf(context.before.state.persons, edit.person)),
  apply: (context, edit) => {
    const { state } = context.now
    const open = openInvitation(state, edit.person)
    if (open === undefined) return refused({ code: 'unknown', what: 'invitation' })
    return ok([...hangingOn(state, open.person), gone('persons', open.person)])
  },
}

/** Sends an invitation anew: earlier links die, the new one lives until `linkUntil`. */
export const renew: EditRule<EditOf<'invitation.renew'>> = {
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

/** The invited comes in. A member gets a private folder, born with inheritance broken. */
export const accept: EditRule<EditOf<'invitation.accept'>> = {
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
    const after: Person = {
      ...person,
      account: edit.account,
      name: edit.name,
      status: 'active',
      joinedAt: at,
    }
    const changes: RecordChange[] = [
      { table: 'persons', id: person.id, before: person, after },
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
    { id: made.folder, parent: rootOf(state).id, kind: 'folder', name: 'Kept to me' },
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

function openInvitation(state: State, id: PersonId): { person: Person; invitation: Invitation } | undefined {
  const person = rowOf(state.persons, id)
  const [invitation] = rowsBy(state.invitations, 'person', id)
  return person?.status === 'invited' && invitation !== undefined ? { person, invitation } : undefined
}

/** Everything that hangs on a person by name. */
export function hangingOn(state: State, person: Person): RecordChange[] {
  const principal = personPrincipal(person.id)
  return [
    ...rowsBy(state.grants, 'principal', principal).map(each => gone('grants', each)),
    ...rowsBy(state.limits, 'principal', principal).map(each => gone('limits', each)),
    ...rowsBy(state.memberships, 'person', person.id).map(each => gone('memberships', each)),
    ...rowsBy(state.invitations, 'person', person.id).map(each => gone('invitations', each)),
    ...rowsBy(state.holdings, 'person', person.id).map(each => gone('holdings', each)),
  ]
}
