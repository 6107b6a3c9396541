import type { ComponentType } from 'react'
import type { NodeView } from '#contract/views/content.ts'
import { Panel } from '../../ui/Panel.tsx'
import { BinRows } from './BinRows.tsx'
import { type BoardPanel, useOpenBoard } from './board-context.ts'
import { ChangeColumn, CreateColumn, DeleteColumn } from './columns/ColumnForms.tsx'
import { SectionsPanel } from './columns/SectionsPanel.tsx'
import { RowPanel } from './row/RowPanel.tsx'

interface Props {
  readonly panel: BoardPanel | undefined
  readonly access: ComponentType<{ readonly node: NodeView }>
  readonly accessHere: ComponentType<{ readonly node: NodeView }>
}

/** At the right of a board: what is being arranged, the row that is open, or who has access. */
export function BoardSide({ panel, access: Access, accessHere }: Props) {
  const { node, view, info, openPanel } = useOpenBoard()
  const close = () => openPanel(undefined)
  if (panel !== undefined) {
    const column = 'column' in panel ? info.columns.find(each => each.id === panel.column) : undefined
    if (panel.of === 'new column')
      return (
        <Panel title="New column" onClose={close}>
          <CreateColumn onDone={close} />
        </Panel>
      )
    if (panel.of === 'sections')
      return (
        <Panel title="Sections" onClose={close}>
          <SectionsPanel />
        </Panel>
      )
    if (panel.of === 'bin rows')
      return (
        <Panel title="Move rows to bin" onClose={close}>
          <BinRows rows={panel.rows} onDone={close} />
        </Panel>
      )
    if (column !== undefined)
      return (
        <Panel title={column.name} onClose={close}>
          {panel.of === 'column' ? (
            <ChangeColumn key={column.id} column={column} onDone={close} />
          ) : (
            <DeleteColumn key={column.id} column={column} onDone={close} />
          )}
        </Panel>
      )
  }
  if (view.row !== null)
    return <RowPanel key={view.row} id={view.row} access={accessHere} onClose={() => view.openRow(null)} />
  return <Access node={node} />
}
