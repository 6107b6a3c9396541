import type { ColumnSettings } from '#contract/boards.ts'
import type { KindName } from '#core/boards/kind.ts'
import { counted } from '#core/words/english.ts'
import { useConversionQuery } from '../../../api/boards.ts'
import { useOpenBoard } from '../board-context.ts'

interface Props {
  readonly column: string
  readonly as: KindName
  readonly settings: ColumnSettings
}

/** What the change does to the cells, before it is made. */
export function Emptied({ column, as, settings }: Props) {
  const { slug, node } = useOpenBoard()
  const { data } = useConversionQuery({ slug, id: node.id, column, as, settings })
  if (data === undefined || data.filled === 0) return null
  const { filled, emptied, examples } = data
  return (
    <p role="status" className={emptied === 0 ? 'quiet text-sm' : 'border-l-2 border-warning pl-2 text-sm'}>
      {emptied === 0
        ? `All ${counted(filled, 'filled cell keeps', 'filled cells keep')} what stands there.`
        : `${counted(emptied, 'cell', 'cells')} of ${filled} would be empty${examples.length === 0 ? '' : `: ${examples.join(' · ')}`}. They are as they were when this is undone.`}
    </p>
  )
}
