import type { ImportedRowView } from '#contract/views/onboarding.ts'
import type { Table } from '../../../workers/table.ts'
import { JudgedTable } from '../../../ui/tables/JudgedTable.tsx'
import type { MendedCell } from '../../../ui/tables/mended.ts'
import { type Outcome, Verdict } from '../../../ui/tables/Verdict.tsx'
import { fieldWord, type Mapping } from './import-columns.ts'

interface Props {
  readonly table: Table
  readonly mapping: Mapping
  readonly judged: readonly ImportedRowView[]
  readonly outcomes: readonly Outcome[] | undefined
  readonly onCell: (cell: MendedCell) => void
}

export const ImportTable = ({ table, mapping, judged, outcomes, onCell }: Props) => (
  <JudgedTable
    rows={table.rows}
    columns={mapping.flatMap((field, column) =>
      field === null ? [] : [{ column, head: fieldWord(field), isWide: field === 'mail' }],
    )}
    effectOf={row => <Verdict judged={judged[row]} outcome={outcomes?.[row]} />}
    onCell={onCell}
  />
)
