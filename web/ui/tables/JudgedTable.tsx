import { type ReactNode, useRef } from 'react'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { MendedCell } from './mended.ts'

export interface JudgedColumn {
  /** Its place in the table. */
  readonly column: number
  readonly head: string
  readonly isWide?: boolean
}

interface Props {
  readonly rows: readonly (readonly string[])[]
  /** Which of them are shown, by their place; all, if nothing is said. */
  readonly only?: readonly number[] | undefined
  readonly columns: readonly JudgedColumn[]
  readonly effectOf: (row: number) => ReactNode
  /** What is wrong with a cell. */
  readonly faultOf?: (row: number, column: number) => string | undefined
  readonly onCell: (cell: MendedCell) => void
}

const rowHeight = 46

/** The rows of a table with what would become of each; their cells are mended here. Only what is in sight is drawn. */
export function JudgedTable({ rows, only, columns, effectOf, faultOf, onCell }: Props) {
  const scroller = useRef<HTMLDivElement>(null)
  const count = only?.length ?? rows.length
  // The library keeps its own state; nothing here is memoised on it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  })
  const items = virtual.getVirtualItems()
  const before = items[0]?.start ?? 0
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0)
  return (
    <div ref={scroller} className="min-h-0 grow overflow-auto">
      <table className="sheet" aria-rowcount={count + 1}>
        <thead className="sticky top-0 z-10 bg-base-100">
          <tr>
            <th scope="col" className="w-12">
              Row
            </th>
            <th scope="col" className="min-w-60">
              Effect
            </th>
            {columns.map(({ column, head, isWide }) => (
              <th key={column} scope="col" className={isWide === true ? 'min-w-60' : 'min-w-40'}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Space height={before} columns={columns.length + 2} />
          {items.map(({ index: place }) => {
            const index = only?.[place] ?? place
            return (
              <tr key={index} aria-rowindex={place + 2} style={{ height: rowHeight }}>
                <td className="quiet">{index + 2}</td>
                <td className="max-w-80">{effectOf(index)}</td>
                {columns.map(({ column, head }) => (
                  <Cell
                    key={column}
                    label={`${head}, row ${index + 2}`}
                    text={rows[index]?.[column] ?? ''}
                    fault={faultOf?.(index, column)}
                    onText={text => onCell({ row: index, column, text })}
                  />
                ))}
              </tr>
            )
          })}
          <Space height={after} columns={columns.length + 2} />
        </tbody>
      </table>
    </div>
  )
}

const Space = ({ height, columns }: { readonly height: number; readonly columns: number }) =>
  height > 0 && (
    <tr aria-hidden>
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  )

interface CellProps {
  readonly label: string
  readonly text: string
  readonly fault: string | undefined
  readonly onText: (text: string) => void
}

const Cell = ({ label, text, fault, onText }: CellProps) => (
  <td>
    <input
      className={`w-full bg-transparent px-1 py-0.5 hover:bg-base-200 ${fault === undefined ? '' : 'outline-1 outline-error'}`}
      aria-label={label}
      aria-invalid={fault !== undefined}
      title={fault}
      value={text}
      onChange={event => onText(event.target.value)}
    />
  </td>
)
