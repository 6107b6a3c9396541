import { lacksKeeping } from '../changes/edits/welcome-set.ts'
import { madeWords, welcomeSetFields } from '../words/changed-fields.ts'
import type { RecordKind } from './kind.ts'
import { offered } from './offered.ts'

export const welcomeSets: RecordKind<'welcomeSets'> = {
  fields: { id: 'text', name: 'text', note: 'text', offer: 'json' },
  indexes: {},
  references: offered(),
  rights: (context, before, after) => lacksKeeping(context, before ?? after ?? undefined, after?.offer),
  about: () => ({ category: 'workspace' }),
  words: change => madeWords('welcome set', change, welcomeSetFields),
}
