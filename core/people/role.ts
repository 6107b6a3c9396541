import type { RoleId } from '../base/ids.ts'
import { everyPrivilege, type Privilege, privileges, type PrivilegeSet } from '../levels/privilege.ts'

/** A name for a set of privileges, with a rank. Holding one never opens content. */
export interface Role {
  readonly id: RoleId
  readonly name: string
  readonly note: string
  /** Higher outranks lower; several may share one. */
  readonly rung: number
  readonly privileges: readonly Privilege[]
  /** May its holders be called by the role's name in channels. */
  readonly callable: boolean
  readonly builtIn: boolean
}

export const ownerRole = 'role-owner' as RoleId
export const memberRole = 'role-member' as RoleId
export const guestRole = 'role-guest' as RoleId

const administrator = [...everyPrivilege].filter(
  privilege => privilege !== 'own' && privilege !== 'change seats',
)

/** Locked in every workspace, with the same ids in each: ids of roles are only unique within a workspace. */
export const builtInRoles: readonly Role[] = [
  role(
    'role-owner',
    'Owner',
    100,
    'Holds the workspace: everything, handing it over included.',
    everyPrivilege,
  ),
  role(
    'role-administrator',
    'Administrator',
    80,
    'Everything but ownership and seats.',
    privileges(...administrator),
  ),
  role(
    'role-people-lead',
    'People lead',
    60,
    'Brings people in and sorts them into teams.',
    privileges('invite members', 'invite guests', 'edit profiles', 'reset sign-in', 'manage any team'),
  ),
  role('role-member', 'Member', 20, 'Sees colleagues and listed teams.', privileges('view people')),
  role('role-guest', 'Guest', 10, 'Only what was opened to them.', privileges()),
]

function role(id: string, name: string, rung: number, note: string, held: PrivilegeSet): Role {
  return { id: id as RoleId, name, rung, note, privileges: [...held], callable: false, builtIn: true }
}
