import type { PersonId } from '../base/ids.ts'
import type { Context } from '../changes/context.ts'
import { lacksDeciding } from '../changes/edits/role-request.ts'
import type { Refusal } from '../changes/refusal.ts'
import type { RoleRequest } from '../people/asking.ts'
import { roleRequestWords } from '../words/role-fact.ts'
import type { RecordKind } from './kind.ts'
import { id, within } from './references.ts'

export const roleRequests: RecordKind<'roleRequests'> = {
  fields: { id: 'text', person: 'text', wants: 'json', at: 'number', word: 'text', declined: 'json' },
  indexes: { person: row => row.person },
  references: [
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
    within('wants', 'roles', {
      ids: ({ wants }) => ('role' in wants ? [wants.role] : []),
      whenGone: 'goes along',
    }),
  ],
  rights: (context, before, after) => lacksRoleRequest(context, before ?? after),
  about: ({ before, after }) => ({ act: 'roles', person: (after ?? before)?.person }),
  goesAlong: ({ before, after }, { leavers, given }) =>
    after === null && [leavers, given].some(some => some.has(before?.person as PersonId)),
  words: roleRequestWords,
}

const lacksRoleRequest = (context: Context, request: RoleRequest | null): Refusal | undefined =>
  request === null || request.person === context.author ? undefined : lacksDeciding(context, request.id)
