import { wholeWorkspace } from '../../access/powers.ts'
import { ok, refused } from '../../base/result.ts'
import { guestRole } from '../../people/role.ts'
import { workspaceOf } from '../../state/state.ts'
import type { Workspace } from '../../rules/workspace.ts'
import { type EditOf, type EditRule, lacksPrivilege } from '../context.ts'
import { lacksRole } from './invite.ts'

/** Its name and time zone are settings; what guests can have at most, and whether there is publishing, is security. */
export const changeWorkspace: EditRule<EditOf<'workspace.change'>> = {
  kind: 'workspace.change',
  lacks: (context, { name, timeZone, guestCeiling, allowsPublishing, defaultRole }) => {
    const isSetting = name !== undefined || timeZone !== undefined || defaultRole !== undefined
    const isPolicy = guestCeiling !== undefined || allowsPublishing !== undefined
    return (
      (isSetting ? lacksPrivilege(context, 'edit settings') : undefined) ??
      (isPolicy ? lacksPrivilege(context, 'security') : undefined) ??
      (defaultRole === undefined
        ? undefined
        : lacksRole(context, { role: defaultRole, scope: { over: 'workspace' } }, wholeWorkspace))
    )
  },
  apply: (context, edit) => {
    const before = workspaceOf(context.now.state)
    if (edit.defaultRole === guestRole) return refused({ code: 'unknown', what: 'role' })
    const after: Workspace = {
      ...before,
      name: edit.name ?? before.name,
      timeZone: edit.timeZone ?? before.timeZone,
      guestCeiling: edit.guestCeiling ?? before.guestCeiling,
      allowsPublishing: edit.allowsPublishing ?? before.allowsPublishing,
      defaultRole: edit.defaultRole ?? before.defaultRole,
    }
    return ok([{ table: 'workspaces', id: before.id, before, after }])
  },
}
