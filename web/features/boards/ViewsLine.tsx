import { useState } from 'react'
import type { SavedView } from '#contract/views/boards.ts'
import { type Layout, viewParameters } from '#core/boards/view.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { csvAddress } from '../../api/boards.ts'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { Menu, MenuAct, MenuDownload, MenuRule } from '../../ui/Menu.tsx'
import { useOpenBoard } from './board-context.ts'
import { NameView, type Naming, SavedViewActs, SavedViews } from './SavedViews.tsx'

const layoutWords = { table: 'Table', lanes: 'Lanes', calendar: 'Calendar' } as const
const layoutOf = (word: string): Layout =>
  (Object.keys(layoutWords) as Layout[]).find(each => layoutWords[each] === word) ?? 'table'

/** How the board is drawn, its saved views, and what is done with the board as a whole. */
export function ViewsLine({ isPartial }: { readonly isPartial: boolean }) {
  const { view } = useOpenBoard()
  const [naming, setNaming] = useState<Naming>()
  return (
    <div className="mb-1 flex flex-wrap items-center justify-between gap-x-5 gap-y-1 border-b border-base-300 pb-1.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <FilterWords
          label="Drawn as"
          words={Object.values(layoutWords)}
          chosen={layoutWords[view.view.layout]}
          onChoose={word => view.change({ layout: layoutOf(word), by: null })}
        />
        <span aria-hidden className="quiet">
          |
        </span>
        <SavedViews onSave={naming === undefined ? () => setNaming({}) : undefined} />
      </div>
      <BoardActs isPartial={isPartial} onRename={named => setNaming({ named })} />
      {naming !== undefined && <NameView {...naming} onDone={() => setNaming(undefined)} />}
    </div>
  )
}

interface ActsProps {
  readonly isPartial: boolean
  readonly onRename: (view: SavedView) => void
}

function BoardActs({ isPartial, onRename }: ActsProps) {
  const board = useOpenBoard()
  const { slug, node, view, mayAdd, mayArrange, openPanel, writing } = board
  const mayRemove = has(node.actions as ActionSet, 'remove')
  const mayImport = mayAdd || has(node.actions as ActionSet, 'change')
  return (
    <div className="flex items-center gap-2">
      {isPartial && (
        <span className="text-sm text-warning">
          It shows more than to others: you do not see all of its columns.
        </span>
      )}
      <Menu button="Board" buttonClass="btn-inline text-sm">
        {mayArrange && <MenuAct onAct={() => openPanel({ of: 'new column' })}>New column …</MenuAct>}
        {mayArrange && <MenuAct onAct={() => openPanel({ of: 'sections' })}>Sections …</MenuAct>}
        {mayArrange && <MenuRule />}
        <MenuDownload href={csvAddress({ slug, id: node.id }, viewParameters(view.view))}>
          Export CSV
        </MenuDownload>
        {mayImport && <MenuAct onAct={() => openPanel({ of: 'import' })}>Import CSV …</MenuAct>}
        <MenuRule />
        {mayRemove && view.view.layout === 'table' && (
          <MenuAct isDrastic onAct={board.binChosen}>
            Move the chosen rows to bin … (Ctrl+Delete)
          </MenuAct>
        )}
        <MenuAct onAct={() => void writing.undo()}>Undo my last step (Ctrl+Z)</MenuAct>
        <MenuAct onAct={() => void writing.redo()}>Redo (Ctrl+Shift+Z)</MenuAct>
        <SavedViewActs onRename={onRename} />
      </Menu>
    </div>
  )
}
