import { useState } from 'react'
import { counted, numberWords } from '#core/words/english.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { tableIn } from '../../../workers/client.ts'
import { mostBoardRows } from '../../../workers/limits.ts'
import type { Table } from '../../../workers/table.ts'
import { DropFile } from '../../../ui/tables/DropFile.tsx'
import { HowRead } from '../../../ui/tables/HowRead.tsx'
import { JudgedTable } from '../../../ui/tables/JudgedTable.tsx'
import { type MendedCell, withCell, withMended } from '../../../ui/tables/mended.ts'
import { saveResults } from '../../../ui/tables/results.ts'
import { Running } from '../../../ui/tables/Running.tsx'
import { type Outcome, outcomeWords, Verdict } from '../../../ui/tables/Verdict.tsx'
import { useOpenBoard } from '../board-context.ts'
import { type Mapped, mappedFor, sentOf } from './columns.ts'
import { ColumnsOfTable, targetWord } from './ColumnsOfTable.tsx'
import { type Importing, useImporting } from './use-importing.ts'
import { type Judging, useJudging } from './use-judging.ts'

interface Opened {
  readonly source: File
  readonly table: Table
  readonly mapped: Mapped
  readonly mended: readonly MendedCell[]
}

/** A table from elsewhere, in the place of the board's own: its columns matched, each row judged and mended, then brought in. */
export function BoardImport({ onClose }: { readonly onClose: () => void }) {
  const board = useOpenBoard()
  const [opened, setOpened] = useState<Opened>()
  const [refused, setRefused] = useState<string>()
  const importing = useImporting()
  const take = async (file: File | undefined, encoding?: string) => {
    if (file === undefined) return
    const read = await tableIn(file, { mostRows: mostBoardRows, encoding })
    importing.forget()
    setRefused('refused' in read ? read.refused : undefined)
    if ('refused' in read) {
      setOpened(undefined)
      return
    }
    const fresh = {
      source: file,
      table: read.table,
      mapped: mappedFor({ ...board, table: read.table }),
      mended: [],
    }
    setOpened(before => (encoding === undefined ? fresh : asBefore(fresh, before)))
  }
  return (
    <div className="grid min-h-0 flex-1 max-md:overflow-y-auto md:grid-cols-[20rem_minmax(0,1fr)]">
      <section
        aria-label="File"
        className="min-h-0 border-base-300 pb-4 md:overflow-y-auto md:border-r md:pr-5"
      >
        <Head onClose={onClose} />
        <DropFile onFile={file => void take(file)} file={opened?.source.name} />
        {refused !== undefined && (
          <p role="alert" className="mt-2 border-l-4 border-error bg-base-200 px-3 py-2">
            {refused}
          </p>
        )}
        {opened !== undefined && (
          <>
            <HowRead table={opened.table} onEncoding={each => void take(opened.source, each)} />
            <ColumnsOfTable
              table={opened.table}
              mapped={opened.mapped}
              onMapped={mapped => {
                importing.forget()
                setOpened({ ...opened, mapped })
              }}
            />
          </>
        )}
      </section>
      {opened === undefined ? (
        <Explained />
      ) : (
        <Rows key={opened.source.name} opened={opened} onOpened={setOpened} importing={importing} />
      )}
    </div>
  )
}

const Head = ({ onClose }: { readonly onClose: () => void }) => (
  <div className="mb-2 flex items-baseline justify-between gap-3">
    <h2 className="text-lg font-bold">Import rows from CSV</h2>
    <button type="button" className="link shrink-0 text-sm" onClick={onClose}>
      To the board
    </button>
  </div>
)

/** The same file read in another encoding, with what was chosen and mended in it. */
function asBefore(fresh: Opened, before: Opened | undefined): Opened {
  const isAlike =
    before?.table.heads.length === fresh.table.heads.length &&
    before.table.rows.length === fresh.table.rows.length
  return isAlike ? before.mended.reduce(mendedBy, { ...fresh, mapped: before.mapped }) : fresh
}

const mendedBy = (opened: Opened, cell: MendedCell): Opened => ({
  ...opened,
  table: { ...opened.table, rows: withCell(opened.table.rows, cell) },
  mended: withMended(opened.mended, cell),
})

const Explained = () => (
  <section className="max-w-xl max-md:mt-4 md:pl-8">
    <p className="mb-3">
      Save the table as CSV in your spreadsheet program, with commas, semicolons or tabs. Columns are found by
      their names; others can be chosen by hand, or become new columns of the kind that their cells are.
    </p>
    <p className="mb-3">
      You see what each row does before anything is changed, and mend what is wrong where it stands. Choose
      what tells rows apart, such as a number or the name: then rows that are on the board already are changed
      where they differ, and the same file again changes nothing. An empty cell changes nothing.
    </p>
  </section>
)

interface RowsProps {
  readonly opened: Opened
  readonly onOpened: (opened: Opened) => void
  readonly importing: Importing
}

function Rows({ opened, onOpened, importing }: RowsProps) {
  const { info } = useOpenBoard()
  const { table, mapped } = opened
  const judging = useJudging(table, mapped, importing.progress !== undefined)
  const [isOnlyWrong, setOnlyWrong] = useState(false)
  const sent = sentOf(mapped, info)
  const wrong = [...judging.rows].flatMap(([place, { verdict }]) => (verdict === 'wrong' ? [place] : []))
  return (
    <section aria-label="Rows" className="flex min-h-0 min-w-0 flex-col md:pl-5">
      <ProblemNote problem={judging.problem ?? importing.problem} />
      <label className="mb-1 flex items-center gap-1.5 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-xs border-base-content/60"
          checked={isOnlyWrong}
          onChange={event => setOnlyWrong(event.target.checked)}
        />
        only rows with errors
      </label>
      <JudgedTable
        rows={table.rows}
        only={isOnlyWrong ? wrong.sort((a, b) => a - b) : undefined}
        columns={sent.map(column => ({
          column,
          head: targetWord(mapped.columns[column], table.heads[column] ?? '', info),
        }))}
        effectOf={row => <Verdict judged={judging.rows.get(row)} outcome={importing.outcomes?.get(row)} />}
        faultOf={(row, column) =>
          judging.rows.get(row)?.faults.find(each => sent[each.column] === column)?.why
        }
        onCell={cell => {
          importing.forget()
          onOpened(mendedBy(opened, cell))
        }}
      />
      <Foot
        opened={opened}
        judging={judging}
        importing={importing}
        onMapped={next => onOpened({ ...opened, mapped: next })}
      />
    </section>
  )
}

interface FootProps {
  readonly opened: Opened
  readonly judging: Judging
  readonly importing: Importing
  readonly onMapped: (mapped: Mapped) => void
}

function Foot({ opened, judging, importing, onMapped }: FootProps) {
  const { table, mapped, source } = opened
  const { progress, outcomes, start, stop } = importing
  const count = (verdict: string) => [...judging.rows.values()].filter(row => row.verdict === verdict).length
  const number = (verdict: string) => numberWords(count(verdict))
  const todo = count('new') + count('changes')
  if (progress !== undefined) return <Running label="Imported" {...progress} onStop={stop} />
  if (judging.isJudging && outcomes === undefined)
    return <Running label="Checked" done={judging.done} of={table.rows.length} />
  return (
    <div className="flex items-center justify-between gap-4 border-t border-base-content py-3">
      {outcomes === undefined ? (
        <p role="status">
          {`${number('new')} new, ${number('changes')} changed, ${number('as it is')} unchanged, ${number('wrong')} with errors`}
        </p>
      ) : (
        <Done opened={opened} outcomes={outcomes} />
      )}
      <button
        type="button"
        className="btn btn-primary"
        disabled={todo === 0 || judging.isJudging}
        onClick={() => void start({ file: source.name, table, mapped, judging, onMapped })}
      >
        {todo === 0 ? 'Nothing to import' : `Import ${counted(todo, 'row', 'rows')}`}
      </button>
    </div>
  )
}

interface DoneProps {
  readonly opened: Opened
  readonly outcomes: ReadonlyMap<number, Outcome>
}

function Done({ opened: { table, source }, outcomes }: DoneProps) {
  const all = [...outcomes.values()]
  const done = all.filter(outcome => outcome === 'done').length
  const refused = all.filter(outcome => typeof outcome === 'object').length
  const results = table.rows.map((_, row) => outcomeWords(outcomes.get(row) ?? 'stopped'))
  return (
    <p role="status">
      {counted(done, 'row', 'rows')} imported{refused > 0 && `, ${numberWords(refused)} refused`}.{' '}
      <button type="button" className="btn-inline" onClick={() => saveResults(source.name, table, results)}>
        Export the results as CSV
      </button>
    </p>
  )
}
