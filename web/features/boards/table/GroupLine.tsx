import { useOpenBoard } from '../board-context.ts'
import { groupWords } from '../group-words.ts'
import type { Group } from '#core/boards/rows.ts'
import { counted } from '#core/words/english.ts'

interface Props {
  readonly group: Group
  readonly names: Readonly<Record<string, string>>
  readonly isFolded: boolean
  readonly onTurn: () => void
  readonly at: { readonly top: number; readonly height: number }
}

/** The head of a section, or of another group. */
export function GroupLine({ group, names, isFolded, onTurn, at }: Props) {
  const board = useOpenBoard()
  return (
    <div
      role="row"
      className="absolute right-0 left-0 border-b border-base-300 bg-base-200"
      style={{ top: at.top, height: at.height }}
    >
      <div role="gridcell" className="sticky left-0 flex h-full w-fit items-center">
        <button
          type="button"
          tabIndex={-1}
          aria-expanded={!isFolded}
          className="flex h-full cursor-pointer items-center gap-2 px-2"
          onClick={onTurn}
        >
          <span aria-hidden className="w-2">
            {isFolded ? '›' : '⌄'}
          </span>
          <span className="font-bold">{groupWords(board, group.key, { names })}</span>
          <span className="quiet text-sm">{counted(group.count, 'row', 'rows')}</span>
        </button>
      </div>
    </div>
  )
}
