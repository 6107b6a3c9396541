import { entireWorkspace } from '../../access/powers.ts'
import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { guestRole } from '../../people/role.ts'
import { workspaceOf } from '../../state/state.ts'
import type { Workspace } from '../../rules/workspace.ts'
import { type Context, type EditOf, type EditRule, lacksPrivilege } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { lacksRole } from './invite.ts'
import type { PictureId, RoleId } from '../../base/ids.ts'
import type { ActionSet } from '../../levels/action.ts'

type Setting = Exclude<keyof EditOf<'workspace.change'>, 'kind'>

/** Settings are for whoever edits settings; what guests can have, who may come in and how one signs in is security. */
const neededFor: Readonly<Record<Setting, 'edit settings' | 'security'>> = {
  name: 'edit settings',
  timeZone: 'edit settings',
  picture: 'edit settings',
  defaultRole: 'edit settings',
  invitationDays: 'edit settings',
  houseRules: 'edit settings',
  guestCeiling: 'security',
  allowsPublishing: 'security',
  memberDomains: 'security',
  guestDomains: 'security',
  twoStepFor: 'security',
  signInDays: 'security',
  idleHours: 'security',
  largestFile: 'edit settings',
  storageQuota: 'edit settings',
  versionsKept: 'edit settings',
  marksPreviews: 'security',
}

export const isSetting = (field: string): field is Setting => Object.hasOwn(neededFor, field)

export interface ChangeWorkspace {
  readonly kind: 'workspace.change'
  readonly name?: string | undefined
  readonly timeZone?: string | undefined
  readonly guestCeiling?: ActionSet | undefined
  readonly allowsPublishing?: boolean | undefined
  readonly defaultRole?: RoleId | undefined
  readonly picture?: PictureId | null | undefined
  readonly memberDomains?: readonly string[] | undefined
  readonly guestDomains?: readonly string[] | undefined
  readonly invitationDays?: number | undefined
  readonly houseRules?: string | undefined
  readonly twoStepFor?: readonly RoleId[] | undefined
  readonly signInDays?: number | undefined
  readonly idleHours?: number | undefined
  readonly largestFile?: number | undefined
  readonly storageQuota?: number | null | undefined
  readonly versionsKept?: number | undefined
  readonly marksPreviews?: boolean | undefined
}

export const changeWorkspace: EditRule<ChangeWorkspace> = {
  kind: 'workspace.change',
  lacks: (context, edit) => lacksSettings(context, settingsOf(edit), edit),
  apply: (context, edit) => {
    const { state } = context.now
    const before = workspaceOf(state)
    const isRole = (role: Workspace['defaultRole']) => rowOf(state.roles, role) !== undefined
    if (edit.defaultRole === guestRole || edit.twoStepFor?.every(isRole) === false)
      return refused({ code: 'unknown', what: 'role' })
    const set = Object.fromEntries(settingsOf(edit).map(setting => [setting, edit[setting]]))
    const after: Workspace = { ...before, ...(set as Partial<Workspace>) }
    return ok([{ table: 'workspaces', id: before.id, before, after }])
  },
}

/** What setting some of the settings needs; a role that everybody is given, besides, what giving it needs. */
export function lacksSettings(
  context: Context,
  settings: readonly Setting[],
  { defaultRole: role }: { readonly defaultRole?: Workspace['defaultRole'] | undefined },
): Refusal | undefined {
  const needed = [...new Set(settings.map(setting => neededFor[setting]))]
  const isGiving = settings.includes('defaultRole') && role !== undefined
  return (
    needed.flatMap(privilege => lacksPrivilege(context, privilege) ?? [])[0] ??
    (isGiving ? lacksRole(context, { role, scope: { over: 'workspace' } }, entireWorkspace) : undefined)
  )
}

const settingsOf = (edit: EditOf<'workspace.change'>): Setting[] =>
  (Object.keys(neededFor) as Setting[]).filter(setting => edit[setting] !== undefined)
