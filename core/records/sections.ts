import { isPartOfGone } from '../changes/consequences.ts'
import { lacksArranging } from '../changes/edits/section.ts'
import { sectionWords } from '../words/content-events.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const sections: RecordKind<'sections'> = {
  fields: { id: 'text', board: 'text', name: 'text', order: 'number' },
  indexes: { board: row => row.board },
  references: [id('board', 'nodes', { whenGone: 'goes along', index: 'board' })],
  rights: (context, before, after) => lacksArranging(context, (after ?? before)?.board, 'section'),
  about: ({ before, after }) => ({ category: 'places', place: (after ?? before)?.board }),
  isConsequence: isPartOfGone,
  standsAt: row => row.board,
  words: sectionWords,
}
