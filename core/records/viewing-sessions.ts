import { viewingWords } from '../words/role-events.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const viewingSessions: RecordKind<'viewingSessions'> = {
  fields: { id: 'text', by: 'text', through: 'text', at: 'number', until: 'number', reason: 'text' },
  indexes: { through: row => row.through, by: row => row.by },
  references: [
    id('by', 'persons', { whenGone: 'stays', index: 'by' }),
    id('through', 'persons', { whenGone: 'stays', index: 'through' }),
  ],
  rights: () => ({ code: 'never-undone' }),
  about: ({ before, after }) => ({ category: 'looking', person: (after ?? before)?.through ?? undefined }),
  words: viewingWords,
}
