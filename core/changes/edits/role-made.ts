import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { entireWorkspace, rankFor } from '../../access/powers.ts'
import { isPrivilege, type Privilege, privileges } from '../../levels/privilege.ts'
import type { Role } from '../../people/role.ts'
import { type Context, type EditOf, type EditRule, isTaken, lacksPrivilege } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { goneWith, isHeld } from '../../state/naming.ts'
import { lacksPrivileges } from './invite.ts'
import type { RoleId } from '../../base/ids.ts'

export interface CreateRole {
  readonly kind: 'role.create'
  readonly role: RoleId
  readonly name: string
  readonly note: string
  readonly rank: number
  readonly privileges: readonly Privilege[]
  readonly addressable: boolean
  readonly seatExempt: boolean
}

/** Roles of the workspace's own, made and changed below one's own rank and of privileges that one holds. */
export const createRole: EditRule<CreateRole> = {
  kind: 'role.create',
  lacks: (context, edit) => lacksRoleChange(context, null, made(context, edit)),
  apply: (context, edit) =>
    isTaken(context.now.state, 'roles', edit.role)
      ? refused({ code: 'already-there', what: 'id' })
      : ok([{ table: 'roles', id: edit.role, before: null, after: made(context, edit) }]),
}

export interface ChangeRole {
  readonly kind: 'role.change'
  readonly role: RoleId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly rank?: number | undefined
  readonly privileges?: readonly Privilege[] | undefined
  readonly addressable?: boolean | undefined
  readonly seatExempt?: boolean | undefined
}

export const changeRole: EditRule<ChangeRole> = {
  kind: 'role.change',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.roles, edit.role)
    return before === undefined
      ? { code: 'unknown', what: 'role' }
      : lacksRoleChange(context, before, changed(before, edit))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.roles, edit.role)
    if (before === undefined) return refused({ code: 'unknown', what: 'role' })
    return ok([{ table: 'roles', id: before.id, before, after: changed(before, edit) }])
  },
}

export interface DeleteRole {
  readonly kind: 'role.delete'
  readonly role: RoleId
}

/** Only where nobody holds it, no way in offers it, and no setting names it. Who asked for it asks no more. */
export const deleteRole: EditRule<DeleteRole> = {
  kind: 'role.delete',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.roles, edit.role)
    return before === undefined ? { code: 'unknown', what: 'role' } : lacksRoleChange(context, before, null)
  },
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.roles, edit.role)
    if (before === undefined) return refused({ code: 'unknown', what: 'role' })
    return isHeld(state, 'roles', before.id)
      ? refused({ code: 'in-use', what: 'role' })
      : ok(goneWith(state, 'roles', before))
  },
}

const closed = (names: readonly Privilege[]): readonly Privilege[] => [
  ...privileges(...names.filter(isPrivilege)),
]

function made({ author, now }: Context, edit: EditOf<'role.create'>): Role {
  const { role: id, name, note, rank, addressable, seatExempt } = edit
  const by = { madeAt: now.at, madeBy: author, builtIn: false }
  return { id, name, note, rank, privileges: closed(edit.privileges), addressable, seatExempt, ...by }
}

const changed = (before: Role, edit: EditOf<'role.change'>): Role => ({
  ...before,
  name: edit.name ?? before.name,
  note: edit.note ?? before.note,
  rank: edit.rank ?? before.rank,
  privileges: edit.privileges === undefined ? before.privileges : closed(edit.privileges),
  addressable: edit.addressable ?? before.addressable,
  seatExempt: edit.seatExempt ?? before.seatExempt,
})

/**
 * What making, changing or deleting a role needs. A role never comes to rank at or above its author's
 * own, nor to hold a privilege that the author lacks or holds at a lower rank.
 */
export function lacksRoleChange(
  context: Context,
  before: Role | null,
  after: Role | null,
): Refusal | undefined {
  if (before?.builtIn === true || after?.builtIn === true) return { code: 'locked', what: 'role' }
  const rank = rankFor(context.before, context.author, { privilege: 'edit roles', target: entireWorkspace })
  if (rank === undefined) return { code: 'privilege-missing', privilege: 'edit roles' }
  const isOwner = lacksPrivilege(context, 'own') === undefined
  if ([before, after].some(role => role !== null && role.rank >= rank) && !isOwner)
    return { code: 'outranked', person: null }
  if (after === null) return undefined
  if (after.privileges.includes('own')) return { code: 'locked', what: 'ownership' }
  return lacksPrivileges(context, {
    given: gained(before, after),
    rank: after.rank,
    scope: { over: 'workspace' },
  })
}

/** The privileges that its holders have more, or at a higher rank. */
const gained = (before: Role | null, after: Role): readonly Privilege[] =>
  before === null || after.rank > before.rank
    ? after.privileges
    : after.privileges.filter(each => !before.privileges.includes(each))
