import { sectionColumn } from '#core/boards/view.ts'
import type { Group } from '#core/boards/rows.ts'
import { useOpenBoard } from '../board-context.ts'
import { NewRowField } from '../NewRowField.tsx'

interface Props {
  readonly group: Group
  readonly at: { readonly top: number; readonly height: number }
}

/** The last line of a section. */
export function NewRowLine({ group, at }: Props) {
  const { view, info } = useOpenBoard()
  const section = view.view.group === sectionColumn && group.key !== '' ? group.key : null
  return (
    <div role="row" className="absolute right-0 left-0" style={{ top: at.top, height: at.height }}>
      <div role="gridcell" className="sticky left-0 h-full w-80">
        <NewRowField
          where={info.sections.find(each => each.id === section)?.name}
          at={{ section }}
          className="h-full w-full bg-transparent px-2 outline-offset-[-2px]"
        />
      </div>
    </div>
  )
}
