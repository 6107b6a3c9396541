import { isLeftOut, isPartOfGone } from '../changes/consequences.ts'
import { formerAfter, lacksColumnChange } from '../changes/edits/column.ts'
import type { BoardColumn } from '../rules/column.ts'
import type { Principal } from '../rules/principal.ts'
import { columnWords } from '../words/content-events.ts'
import type { RecordKind } from './kind.ts'
import { id, principals } from './references.ts'

export const columns: RecordKind<'columns'> = {
  fields: {
    id: 'text',
    board: 'text',
    name: 'text',
    kind: 'text',
    settings: 'json',
    former: 'json',
    order: 'number',
    viewers: 'json',
    editors: 'json',
  },
  indexes: { board: row => row.board },
  references: [
    id('board', 'nodes', { whenGone: 'goes along', index: 'board' }),
    // It stays restricted to whoever else it names; to stewards alone, if that is nobody.
    ...principals<BoardColumn>('viewers', {
      of: ({ viewers, editors }) => [...(viewers ?? []), ...(editors ?? [])],
      without: (row, isGone) => {
        const others = (named: readonly Principal[] | null) => named?.filter(each => !isGone(each)) ?? null
        return { ...row, viewers: others(row.viewers), editors: others(row.editors) }
      },
    }),
  ],
  rights: lacksColumnChange,
  about: ({ before, after }) => ({ category: 'places', place: (after ?? before)?.board }),
  isConsequence: (change, leading) =>
    isPartOfGone(change, leading) || isLeftOut(change, ['viewers', 'editors'], leading),
  standsAt: row => row.board,
  goneBack: (current, back) => ({ ...back, former: formerAfter(current, back) }),
  people: () => 'everybody',
  places: (_, { before, after }) => [before, after].flatMap(row => (row === null ? [] : [row.board])),
  words: columnWords,
}
