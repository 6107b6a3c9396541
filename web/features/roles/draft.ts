import type { EditRequest } from '#contract/edit-requests.ts'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { type Privilege, privileges, withoutPrivilege } from '#core/levels/privilege.ts'

/** What each role would hold, for those that would hold something else. */
export type RolesDraft = Readonly<Record<string, readonly Privilege[]>>

export const heldIn = (draft: RolesDraft, role: RoleDetailView): readonly Privilege[] =>
  draft[role.id] ?? role.privileges

/** The draft with one privilege put into a role, or taken out, with what goes along. A role as it was leaves the draft. */
export function toggled(draft: RolesDraft, role: RoleDetailView, privilege: Privilege): RolesDraft {
  const held = heldIn(draft, role)
  const next = held.includes(privilege)
    ? [...withoutPrivilege(held, privilege)]
    : [...privileges(...held, privilege)]
  const others = Object.fromEntries(Object.entries(draft).filter(([id]) => id !== role.id))
  const isAsItWas =
    next.length === role.privileges.length && next.every(each => role.privileges.includes(each))
  return isAsItWas ? others : { ...others, [role.id]: next }
}

/** Whether the reader may put a privilege into a role, or take it out. */
export function mayToggle(view: RolesView, role: RoleDetailView, privilege: Privilege): boolean {
  if (!role.mayChange || privilege === 'own') return false
  return role.privileges.includes(privilege) || (view.mine[privilege] ?? 0) >= role.rank
}

export const editsOf = (draft: RolesDraft): EditRequest[] =>
  Object.entries(draft).map(([role, held]) => ({ kind: 'role.change', role, privileges: [...held] }))

/** How many privileges the draft puts in and takes out, over all roles. */
export function countOf(
  view: RolesView,
  draft: RolesDraft,
): { readonly added: number; readonly taken: number } {
  let added = 0
  let taken = 0
  for (const role of view.roles) {
    const held = heldIn(draft, role)
    added += held.filter(each => !role.privileges.includes(each)).length
    taken += role.privileges.filter(each => !held.includes(each)).length
  }
  return { added, taken }
}
