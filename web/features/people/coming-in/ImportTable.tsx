import { useRef } from 'react'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import type { ImportField } from '#contract/import-fields.ts'
import type { Table } from '../../../workers/table.ts'
import { fieldWord, type Mapping, type MendedCell } from './import-columns.ts'
import type { Outcome } from './use-import.ts'

interface Props {
  readonly table: Table
  readonly mapping: Mapping
  readonly judged: readonly ImportedRowView[]
  readonly outcomes: readonly Outcome[] | undefined
  readonly onCell: (cell: MendedCell) => void
}

/** The rows with what would become of each; their cells are mended here. Only what is in sight is drawn. */
export function ImportTable({ table, mapping, judged, outcomes, onCell }: Props) {
  const scroller = useRef<HTMLDivElement>(null)
  // The library keeps its own state; nothing here is memoised on it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: table.rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 46,
    overscan: 6,
  })
  const items = rows.getVirtualItems()
  const shown = mapping.flatMap((field, column) => (field === null ? [] : [{ field, column }]))
  const before = items[0]?.start ?? 0
  const after = rows.getTotalSize() - (items.at(-1)?.end ?? 0)
  return (
    <div ref={scroller} className="min-h-0 grow overflow-auto">
      <table className="sheet" aria-rowcount={table.rows.length + 1}>
        <thead className="sticky top-0 z-10 bg-base-100">
          <tr>
            <th scope="col" className="w-12">
              Row
            </th>
            <th scope="col" className="min-w-60">
              Effect
            </th>
            {shown.map(({ field, column }) => (
              <th key={column} scope="col" className={field === 'mail' ? 'min-w-60' : 'min-w-40'}>
                {fieldWord(field)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {before > 0 && (
            <tr aria-hidden>
              <td colSpan={shown.length + 2} style={{ height: before, padding: 0, border: 0 }} />
            </tr>
          )}
          {items.map(({ index, key }) => (
            <ImportRow
              key={key}
              index={index}
              cells={table.rows[index] ?? []}
              shown={shown}
              judged={judged[index]}
              outcome={outcomes?.[index]}
              onCell={onCell}
            />
          ))}
          {after > 0 && (
            <tr aria-hidden>
              <td colSpan={shown.length + 2} style={{ height: after, padding: 0, border: 0 }} />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  )
}

interface RowProps extends Pick<Props, 'onCell'> {
  readonly index: number
  readonly cells: readonly string[]
  readonly shown: readonly { readonly field: ImportField; readonly column: number }[]
  readonly judged: ImportedRowView | undefined
  readonly outcome: Outcome | undefined
}

const ImportRow = ({ index, cells, shown, judged, outcome, onCell }: RowProps) => (
  <tr aria-rowindex={index + 2} style={{ height: 46 }}>
    <td className="quiet">{index + 2}</td>
    <td className="max-w-80">
      <Verdict judged={judged} outcome={outcome} />
    </td>
    {shown.map(({ field, column }) => (
      <td key={column}>
        <input
          className="w-full bg-transparent px-1 py-0.5 hover:bg-base-200"
          aria-label={`${fieldWord(field)}, row ${index + 2}`}
          value={cells[column] ?? ''}
          onChange={event => onCell({ row: index, column, text: event.target.value })}
        />
      </td>
    ))}
  </tr>
)

const tones = { new: '', changes: '', 'as it is': 'quiet', wrong: 'text-error' } as const

function Verdict({
  judged,
  outcome,
}: {
  readonly judged: ImportedRowView | undefined
  readonly outcome: Outcome | undefined
}) {
  if (typeof outcome === 'object')
    return <span className="line-clamp-2 text-error">Refused: {outcome.refused}</span>
  if (outcome === 'done') return <span>Done.</span>
  if (judged === undefined) return <span className="quiet">…</span>
  const words = judged.says.join(' ')
  return (
    <span className={`line-clamp-2 text-sm ${tones[judged.verdict]}`} title={words}>
      {words === '' ? 'No change.' : words}
    </span>
  )
}
