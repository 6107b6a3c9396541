import { lacksRoleChange } from '../changes/edits/role-made.ts'
import { roleWords } from '../words/role-events.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const roles: RecordKind<'roles'> = {
  fields: {
    id: 'text',
    name: 'text',
    note: 'text',
    rank: 'number',
    privileges: 'json',
    addressable: 'boolean',
    builtIn: 'boolean',
    seatExempt: 'boolean',
    madeAt: 'number',
    madeBy: 'text',
  },
  indexes: {},
  references: [
    id('madeBy', 'persons', {
      whenGone: 'stays',
      key: { none: 'the built-in ones were made by nobody, before anybody was there' },
    }),
  ],
  rights: lacksRoleChange,
  // There is nothing to tell of a built-in one.
  about: ({ before, after }) => ((after ?? before)?.builtIn === true ? undefined : { category: 'roles' }),
  words: roleWords,
}
