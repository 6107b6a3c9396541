import { counted } from '#core/words/english.ts'
import { Choice } from '../Choice.tsx'
import type { Table } from '../../workers/table.ts'

interface Props {
  readonly table: Table
  readonly onEncoding: (encoding: string) => void
}

const delimiterWords: Readonly<Record<string, string>> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'bars',
}

/** How a file was read; where signs came out wrong, each encoding with what it would read. */
export const HowRead = ({ table: { encoding, delimiter, rows, readings }, onEncoding }: Props) => (
  <>
    {readings.length > 1 && (
      <div className="mt-3">
        <Choice
          label="Encoding"
          value={encoding}
          options={readings.map(each => ({ value: each.encoding, name: `${each.encoding}: ${each.sample}` }))}
          onValue={onEncoding}
        />
        <p className="quiet mt-1 text-sm">If names look wrong, choose the one in which they read right.</p>
      </div>
    )}
    <p className="quiet mt-1 mb-3 text-sm">
      {counted(rows.length, 'row', 'rows')}, encoding {encoding}, separated by{' '}
      {delimiterWords[delimiter] ?? delimiter}
    </p>
  </>
)
