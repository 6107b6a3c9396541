import { counted } from '#core/words/english.ts'
import { useOpenBoard } from '../board-context.ts'
import { Notice } from '../Notice.tsx'
import type { Paste } from './paste.ts'

/** A paste about which something has to be decided first. */
export function PasteOffer({ paste, onDone }: { readonly paste: Paste; readonly onDone: () => void }) {
  const { writing } = useOpenBoard()
  const { writes, faults, newRows, newCells } = paste
  const put = async (withRows: boolean) => {
    onDone()
    if (writes.length > 0 && !(await writing.write(writes))) return
    if (withRows) await writing.write(newCells, { rows: newRows })
  }
  return (
    <Notice onClose={onDone} label="Paste">
      <p>
        {newRows.length > 0 &&
          `The clipboard holds ${counted(newRows.length, 'row', 'rows')} more than there are below. `}
        {faults.length > 0 && `${counted(faults.length, 'cell', 'cells')} cannot be written. `}
        Nothing was changed yet.
      </p>
      {faults.length > 0 && (
        <ul className="quiet my-1 list-disc pl-5 text-sm">
          {faults.slice(0, 4).map((fault, index) => (
            <li key={index}>{fault.why}</li>
          ))}
        </ul>
      )}
      <div className="mt-1 flex flex-wrap gap-2">
        {newRows.length > 0 && (
          <button type="button" className="btn-main" onClick={() => void put(true)}>
            Paste and create {counted(newRows.length, 'row', 'rows')}
          </button>
        )}
        {writes.length > 0 && (
          <button
            type="button"
            className={newRows.length > 0 ? 'btn-plain' : 'btn-main'}
            onClick={() => void put(false)}
          >
            Paste {counted(writes.length, 'cell', 'cells')}
          </button>
        )}
        <button type="button" className="btn-plain" onClick={onDone}>
          Cancel
        </button>
      </div>
    </Notice>
  )
}
