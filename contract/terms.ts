import { Type } from '@sinclair/typebox'
import { auditCategories } from '#core/changes/audit-event.ts'
import { allActions } from '#core/levels/action.ts'
import { allPrivileges, type Privilege } from '#core/levels/privilege.ts'
import type { Principal } from '#core/rules/principal.ts'
import { oneOf, titled, type View } from './pieces.ts'

/** The closed sets of words that answers are made of. */

/** Milliseconds since 1970 UTC. */
export const instant = Type.Number()
export const privilege = titled('Privilege', oneOf(...allPrivileges))
export const action = titled('Action', oneOf(...allActions))
export const auditCategory = titled('AuditCategory', oneOf(...auditCategories))
export const personKind = oneOf('member', 'guest')
export const personStatus = oneOf('invited', 'active', 'suspended', 'removed')
export const joining = oneOf('everyone', 'open', 'request', 'unlisted')
export const nodeKind = oneOf('root', 'folder', 'board', 'row', 'page', 'file')
/** How what is in a file is shown. */
export const fileForm = oneOf('picture', 'pages', 'text', 'document', 'rows', 'sound', 'film', 'none')
export type FileForm = View<typeof fileForm>
export const columnAccess = oneOf('none', 'see', 'edit')
export const principal = Type.Unsafe<Principal>(Type.String())
/** A number for each privilege, or for some. */
export const byPrivilege = Type.Unsafe<Readonly<Record<Privilege, number>>>(
  Type.Record(privilege, Type.Number()),
)
export const bySomePrivileges = Type.Unsafe<{ readonly [P in Privilege]?: number }>(
  Type.Partial(Type.Record(privilege, Type.Number())),
)
