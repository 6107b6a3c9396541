import { allRows } from '../base/collection.ts'
import { lacksPrivilege } from '../changes/context.ts'
import { isOfAccess } from '../index/advance.ts'
import { levelWords } from '../words/content-events.ts'
import type { RecordKind } from './kind.ts'

export const levels: RecordKind<'levels'> = {
  fields: { id: 'text', name: 'text', note: 'text', actions: 'number' },
  indexes: {},
  references: [],
  rights: context => lacksPrivilege(context, 'edit levels'),
  about: () => ({ category: 'workspace' }),
  people: change => (isOfAccess('levels', change) ? 'everybody' : []),
  places: (state, change) =>
    allRows(state.grants).flatMap(grant => (grant.gives === change.id ? [grant.node] : [])),
  words: levelWords,
}
