import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { entireWorkspace, rankFor, type Target } from '../../access/powers.ts'
import { isPrivilege, type Privilege } from '../../levels/privilege.ts'
import type { Holding, Invitation, Person, Scope } from '../../people/person.ts'
import { guestRole } from '../../people/role.ts'
import { type State, workspaceOf } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, isTaken, lacksPrivilege, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { claimHandle } from './handle.ts'
import type {
  HandleId,
  HoldingId,
  InvitationId,
  PersonId,
  PictureId,
  RoleId,
  WelcomeSetId,
} from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'

/** What a person's profile tells besides the name. */
export interface Profile {
  readonly handle: HandleId | null
  readonly title: string
  readonly department: string
  readonly country: string
  readonly picture: PictureId | null
}

export interface InvitePerson {
  readonly kind: 'person.invite'
  readonly person: PersonId
  readonly invitation: InvitationId
  readonly holding: HoldingId
  readonly mail: string
  readonly name: string
  readonly as: 'member' | 'guest'
  /** The role offered, if it is not the workspace's default one. Guests hold Guest and no other. */
  readonly role: RoleId | null
  readonly scope: Scope
  /** When the person's time in the workspace begins and ends by itself. */
  readonly from: Instant | null
  readonly until: Instant | null
  /** What is known of them already. */
  readonly profile: { readonly [F in keyof Profile]?: Profile[F] | undefined }
  /** The welcome set that is offered. */
  readonly welcome: WelcomeSetId | null
  /** Whether it goes out by mail; else its link is passed on by hand. */
  readonly mailed: boolean
  /** When the link dies. */
  readonly linkUntil: Instant
  readonly message: string
}

/** Brings somebody in as invited, with a role to be held from the moment of acceptance. */
export const invite: EditRule<InvitePerson> = {
  kind: 'person.invite',
  lacks: (context, edit) => {
    const target: Target = { over: edit.as, teams: [] }
    const missing = lacksPrivilege(context, edit.as === 'guest' ? 'invite guests' : 'invite members', target)
    return missing ?? (edit.role === null ? undefined : lacksRole(context, edit as Offered, target))
  },
  apply: (context, edit) => {
    const { state } = context.now
    const wrong =
      wrongSpan(context, edit.from, edit.until) ??
      wrongSpan(context, null, edit.linkUntil) ??
      unwelcomeDomain(state, edit)
    if (wrong !== undefined) return refused(wrong)
    if (isTaken(state, 'persons', edit.person) || isHere(context, edit.mail))
      return refused({ code: 'already-there', what: 'person' })
    if (edit.as === 'guest' && edit.role !== null)
      return refused({ code: 'guest-rule', rule: 'no role', person: null })
    const { handle = null } = edit.profile
    const claimed = handle === null ? ok([]) : claimHandle(context, edit.person, handle)
    if (!claimed.ok) return claimed
    const person = invitedPerson(context, edit)
    const holding = offeredHolding(state, edit)
    const invitation: Invitation = {
      id: edit.invitation,
      person: edit.person,
      by: context.author,
      at: context.now.at,
      until: edit.linkUntil,
      message: edit.message,
      issue: 1,
      welcome: edit.welcome,
    }
    return ok([
      { table: 'persons', id: person.id, before: null, after: person },
      ...claimed.value,
      { table: 'holdings', id: holding.id, before: null, after: holding },
      { table: 'invitations', id: invitation.id, before: null, after: invitation },
    ])
  },
}

function offeredHolding(
  state: State,
  { holding: id, person, as, role, scope }: EditOf<'person.invite'>,
): Holding {
  const offered = as === 'guest' ? guestRole : (role ?? workspaceOf(state).defaultRole)
  return { id, person, role: offered, scope, from: null, until: null }
}

function invitedPerson({ author }: Context, edit: EditOf<'person.invite'>): Person {
  const { person: id, name, mail, as: kind, from, until } = edit
  const invited = { account: null, status: 'invited', joinedAt: null, agreedAt: null } as const
  const by = { contact: kind === 'guest' ? author : null, invitedBy: author }
  const { handle = null, title = '', department = '', country = '', picture = null } = edit.profile
  const profile = { handle, title, department, country, picture }
  return { ...profile, ...invited, id, name, mail, kind, ...by, from, until }
}

/** Whether a mail domain is one from which people of a kind may come. */
export function unwelcomeDomain(
  state: State,
  { mail, as }: Pick<EditOf<'person.invite'>, 'mail' | 'as'>,
): Refusal | undefined {
  const { memberDomains, guestDomains } = workspaceOf(state)
  const domains = as === 'guest' ? guestDomains : memberDomains
  return domains.length === 0 || isOfDomain(mail, domains)
    ? undefined
    : { code: 'domain-not-welcome', as, domains }
}

/** Of one of these domains itself: `a.example` does not let in `b.a.example`. */
export const isOfDomain = (mail: string, domains: readonly string[]): boolean =>
  domains.includes(mail.slice(mail.lastIndexOf('@') + 1).toLowerCase())

/** A role and the scope over which it is to be held. */
export type Offered = Pick<Holding, 'role' | 'scope'>

/** A role other than the default is given within rank, and holds nothing that the author lacks over that scope. */
export function lacksRole(
  context: Context,
  { role: id, scope }: Offered,
  target: Target,
): Refusal | undefined {
  // One made in the same change set was judged there.
  const role = rowOf(context.before.state.roles, id) ?? rowOf(context.now.state.roles, id)
  if (role === undefined) return { code: 'unknown', what: 'role' }
  const rank = rankFor(context.before, context.author, { privilege: 'assign roles', target })
  if (rank === undefined) return { code: 'privilege-missing', privilege: 'assign roles' }
  const isOwnerNamingOwner = lacksPrivilege(context, 'own') === undefined
  if (role.rank >= rank && !isOwnerNamingOwner) return { code: 'outranked', person: null }
  return lacksPrivileges(context, { given: role.privileges.filter(isPrivilege), rank: role.rank, scope })
}

/** Each of these the author holds too, over that scope and no lower than it would be given. */
export function lacksPrivileges(
  context: Context,
  { given, rank, scope }: { given: readonly Privilege[]; rank: number; scope: Scope },
): Refusal | undefined {
  for (const privilege of given) {
    const held = rankFor(context.before, context.author, { privilege, target: targetOf(scope) })
    if (held === undefined) return { code: 'privilege-missing', privilege }
    if (held < rank) return { code: 'outranked', person: null }
  }
  return undefined
}

function targetOf(scope: Scope): Target {
  if (scope.over === 'workspace') return entireWorkspace
  return scope.over === 'guests' ? { over: 'guest', teams: [] } : { over: 'member', teams: [scope.team] }
}

export function isHere(context: Context, mail: string): boolean {
  return rowsBy(context.now.state.persons, 'mail', mail.toLowerCase()).some(
    person => person.status !== 'removed',
  )
}
