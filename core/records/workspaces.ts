import { isSame } from '../base/same.ts'
import { type Context, firstLack, lacksPrivilege } from '../changes/context.ts'
import { isSetting, lacksSettings } from '../changes/edits/workspace.ts'
import type { Refusal } from '../changes/refusal.ts'
import { isPolicy } from '../changes/affected-scope.ts'
import { rowsBy } from '../base/collection.ts'
import type { Workspace } from '../rules/workspace.ts'
import { workspaceWords } from '../words/workspace-events.ts'
import type { RecordKind } from './kind.ts'
import { id, within } from './references.ts'

export const workspaces: RecordKind<'workspaces'> = {
  fields: {
    id: 'text',
    name: 'text',
    slug: 'text',
    timeZone: 'text',
    madeAt: 'number',
    guestCeiling: 'number',
    allowsPublishing: 'boolean',
    defaultRole: 'text',
    seats: 'number',
    seatsNext: 'json',
    suspendedHoldSeats: 'boolean',
    picture: 'text',
    memberDomains: 'json',
    guestDomains: 'json',
    invitationDays: 'number',
    houseRules: 'text',
    twoStepFor: 'json',
    signInDays: 'number',
    idleHours: 'number',
    largestFile: 'number',
    storageQuota: 'number',
    versionsKept: 'number',
    marksPreviews: 'boolean',
  },
  indexes: {},
  references: [
    id('defaultRole', 'roles', {
      whenGone: 'forbids',
      key: { none: 'the workspace is written before its roles, which have a key to it' },
    }),
    within('twoStepFor', 'roles', { ids: row => row.twoStepFor, whenGone: 'forbids' }),
  ],
  rights: lacksWorkspace,
  about: () => ({ category: 'workspace' }),
  people: change => (isPolicy(change) ? 'everybody' : []),
  // Before its first day there is no root either.
  places: (state, change) =>
    isPolicy(change) ? rowsBy(state.nodes, 'parent', 'none').map(root => root.id) : [],
  isOfWeb: true,
  words: workspaceWords,
}

/** Each setting that differs needs what changing it needs. */
function lacksWorkspace(
  context: Context,
  before: Workspace | null,
  after: Workspace | null,
): Refusal | undefined {
  if (before === null || after === null) return lacksPrivilege(context, 'own')
  const fields = (Object.keys(after) as (keyof Workspace)[]).filter(
    field => !isSame(before[field], after[field]),
  )
  const settings = fields.filter(field => isSetting(field))
  return firstLack([
    [settings.length > 0, () => lacksSettings(context, settings, after)],
    [fields.length > settings.length, () => lacksPrivilege(context, 'change seats')],
  ])
}
