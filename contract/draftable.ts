import type { EditRequestKind } from './edit-requests.ts'

/**
 * Acts that can be drafted with others before they are made. Each names what it is about by the fields `node`,
 * `parent`, `grant`, `limit`, `principal`, `team`, `person`, `holding`, `role` and `level` alone.
 */
export const draftableKinds = [
  'grant.add',
  'grant.change',
  'grant.end',
  'limit.add',
  'limit.change',
  'limit.end',
  'node.create',
  'node.break',
  'node.restore',
  'node.move',
  'node.web',
  'node.state',
  'member.add',
  'member.change',
  'member.remove',
  'role.assign',
  'role.unassign',
  'person.end',
  'level.change',
] as const satisfies readonly EditRequestKind[]

export const isDraftable = (kind: EditRequestKind): boolean =>
  (draftableKinds as readonly EditRequestKind[]).includes(kind)
