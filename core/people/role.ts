import type { PersonId, RoleId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import {
  everyPrivilege,
  isPrivilege,
  type Privilege,
  privileges,
  type PrivilegeSet,
} from '../levels/privilege.ts'

/** A name for a set of privileges, with a rank. Holding one never opens content. */
export interface Role {
  readonly id: RoleId
  readonly name: string
  readonly note: string
  /** Higher outranks lower; several may share one. */
  readonly rank: number
  readonly privileges: readonly Privilege[]
  /** May its holders be called by the role's name in channels. */
  readonly addressable: boolean
  readonly builtIn: boolean
  /** Whoever holds seat-exempt roles alone takes no seat; guests never do. */
  readonly seatExempt: boolean
  /** When and by whom it was made; `null` for the built-in ones. */
  readonly madeAt: Instant | null
  readonly madeBy: PersonId | null
}

const known = new WeakMap<Role, PrivilegeSet>()

/** What a role holds, with all that it needs; names that are no privilege any more are passed over. Worked out once a role. */
export function privilegesOf(role: Role): PrivilegeSet {
  const found = known.get(role) ?? privileges(...role.privileges.filter(isPrivilege))
  known.set(role, found)
  return found
}

export const ownerRole = 'role-owner' as RoleId
export const memberRole = 'role-member' as RoleId
export const guestRole = 'role-guest' as RoleId

const administrator = [...everyPrivilege].filter(
  privilege => privilege !== 'own' && privilege !== 'change seats',
)

const builtIn = (role: Pick<Role, 'name' | 'rank' | 'note'>, held: PrivilegeSet): Role => ({
  ...role,
  id: `role-${role.name.toLowerCase().replaceAll(' ', '-')}` as RoleId,
  privileges: [...held],
  addressable: false,
  builtIn: true,
  seatExempt: false,
  madeAt: null,
  madeBy: null,
})

/** Locked in every workspace, with the same ids in each: ids of roles are only unique within a workspace. */
export const builtInRoles: readonly Role[] = [
  builtIn(
    { name: 'Owner', rank: 100, note: 'Holds the workspace: everything, handing it over included.' },
    everyPrivilege,
  ),
  builtIn(
    { name: 'Administrator', rank: 80, note: 'Everything but ownership and seats.' },
    privileges(...administrator),
  ),
  builtIn(
    { name: 'People lead', rank: 60, note: 'Brings people in and sorts them into teams.' },
    privileges(
      'invite members',
      'invite guests',
      'edit profiles',
      'reset sign-in',
      'suspend',
      'manage any team',
    ),
  ),
  builtIn({ name: 'Member', rank: 20, note: 'Sees colleagues and listed teams.' }, privileges('view people')),
  builtIn({ name: 'Guest', rank: 10, note: 'Only what was opened to them.' }, privileges()),
]
