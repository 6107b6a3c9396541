import { useState } from 'react'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import { type ImportField, importFields } from '#contract/import-fields.ts'
import { counted, numberWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { tableIn } from '../../../workers/client.ts'
import { mostPeople } from '../../../workers/limits.ts'
import type { Table } from '../../../workers/table.ts'
import { DropFile } from '../../../ui/tables/DropFile.tsx'
import { HowRead } from '../../../ui/tables/HowRead.tsx'
import { type MendedCell, withCell, withMended } from '../../../ui/tables/mended.ts'
import { saveResults } from '../../../ui/tables/results.ts'
import { Running } from '../../../ui/tables/Running.tsx'
import { type Outcome, outcomeWords } from '../../../ui/tables/Verdict.tsx'
import { fieldWord, type Mapping, mappingFor, rowFrom } from './import-columns.ts'
import { ImportTable } from './ImportTable.tsx'
import { emptyOfferOf, offerOf } from './offer.ts'
import { OfferForm } from './OfferForm.tsx'
import { PeopleHead } from '../PeopleHead.tsx'
import { type Importing, type Judging, useImporting, useJudging } from './use-import.ts'

interface Opened {
  readonly source: File
  readonly file: string
  readonly table: Table
  readonly mapping: Mapping
  /** The cells that were mended by hand. */
  readonly mended: readonly MendedCell[]
}

/** A table of people: its columns matched, each row judged and mended where it stands, then brought in. */
export function ImportScreen() {
  const { workspace } = useHere()
  const [opened, setOpened] = useState<Opened>()
  const [refused, setRefused] = useState<string>()
  const [offer, setOffer] = useState(() => emptyOfferOf(workspace.me.privileges))
  const importing = useImporting()
  const take = async (file: File | undefined, encoding?: string) => {
    if (file === undefined) return
    const read = await tableIn(file, { mostRows: mostPeople, encoding })
    importing.forget()
    setRefused('refused' in read ? read.refused : undefined)
    setOpened(
      'table' in read ? openedAs(file, read.table, encoding === undefined ? undefined : opened) : undefined,
    )
  }
  const judged = useJudging(
    opened?.mapping.includes('mail') === true
      ? {
          rows: opened.table.rows.map(cells => rowFrom(cells, opened.mapping)),
          offer: offerOf(offer, workspace.timeZone),
          welcome: offer.welcome === '' ? null : offer.welcome,
        }
      : undefined,
  )
  return (
    <main className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] px-4 pt-3 max-md:overflow-y-auto">
      <PeopleHead />
      <div className="grid min-h-0 max-md:content-start md:grid-cols-[20rem_minmax(0,1fr)]">
        <section
          aria-label="File"
          className="min-h-0 border-base-300 pb-4 md:overflow-y-auto md:border-r md:pr-5"
        >
          <h2 className="mb-2 text-lg font-bold">Import people from CSV</h2>
          <DropFile onFile={file => void take(file)} file={opened?.file} />
          {refused !== undefined && (
            <p role="alert" className="mt-2 border-l-4 border-error bg-base-200 px-3 py-2">
              {refused}
            </p>
          )}
          {opened !== undefined && (
            <>
              <HowRead table={opened.table} onEncoding={each => void take(opened.source, each)} />
              <Columns opened={opened} onMapping={mapping => setOpened({ ...opened, mapping })} />
              <h3 className="mt-4 mb-2 font-bold">What new people get</h3>
              <OfferForm offer={offer} onOffer={setOffer} />
            </>
          )}
        </section>
        {opened === undefined ? (
          <Explained />
        ) : (
          <Rows opened={opened} onOpened={setOpened} judged={judged} importing={importing} />
        )}
      </div>
    </main>
  )
}

/** A table that was read; where the same file is read anew in another encoding, with what was chosen and mended in it. */
function openedAs(source: File, table: Table, earlier: Opened | undefined): Opened {
  const opened = { source, file: source.name, table, mapping: mappingFor(table.heads), mended: [] }
  const isAlike =
    earlier?.table.heads.length === table.heads.length && earlier.table.rows.length === table.rows.length
  return isAlike ? earlier.mended.reduce(mendedBy, { ...opened, mapping: earlier.mapping }) : opened
}

const mendedBy = (opened: Opened, cell: MendedCell): Opened => ({
  ...opened,
  table: { ...opened.table, rows: withCell(opened.table.rows, cell) },
  mended: withMended(opened.mended, cell),
})

interface RowsProps {
  readonly opened: Opened
  readonly onOpened: (opened: Opened) => void
  readonly judged: Judging
  readonly importing: Importing
}

const Rows = ({ opened, onOpened, judged, importing }: RowsProps) => (
  <section aria-label="Rows" className="flex min-h-0 min-w-0 flex-col md:pl-5">
    <ProblemNote problem={judged.problem} />
    <ImportTable
      table={opened.table}
      mapping={opened.mapping}
      judged={judged.rows}
      outcomes={importing.outcomes}
      onCell={cell => onOpened(mendedBy(opened, cell))}
    />
    <Foot opened={opened} rows={judged.rows} isJudging={judged.isJudging} importing={importing} />
  </section>
)

const Explained = () => (
  <section className="max-w-xl max-md:mt-4 md:pl-8">
    <p className="mb-3">
      Save the table as CSV in your spreadsheet program, with commas, semicolons or tabs. One column must be
      the mail address. Columns with these headings are found, you can choose the others by hand:
    </p>
    <p className="mb-3 font-semibold">{importFields.map(fieldWord).join(' · ')}</p>
    <p className="mb-3">
      You see what each row does before anything is changed. New people are invited. For people who are
      already here only differences are changed: an empty cell changes nothing, and teams and roles are added,
      never removed. Importing the same file again changes nothing.
    </p>
  </section>
)

interface ColumnsProps {
  readonly opened: Opened
  readonly onMapping: (mapping: Mapping) => void
}

/** Which column is what; each field is taken from one column at most. */
function Columns({ opened: { table, mapping }, onMapping }: ColumnsProps) {
  const set = (column: number, field: ImportField | null) =>
    onMapping(mapping.map((each, index) => (index === column ? field : each === field ? null : each)))
  return (
    <fieldset>
      <legend className="sr-only">Columns</legend>
      {!mapping.includes('mail') && (
        <p className="mb-2 text-sm text-error">Choose the column with the mail address.</p>
      )}
      {mapping.map((field, column) => (
        <label key={column} className="mb-1 grid grid-cols-2 items-center gap-2">
          <span className={`truncate ${field === null ? 'quiet' : ''}`} title={table.heads[column]}>
            {table.heads[column] || `Column ${column + 1}`}
          </span>
          <select
            className="choice"
            aria-label={`Column ${table.heads[column] || column + 1}`}
            value={field ?? ''}
            onChange={event =>
              set(column, event.target.value === '' ? null : (event.target.value as ImportField))
            }
          >
            <option value="">not imported</option>
            {importFields.map(each => (
              <option key={each} value={each}>
                {fieldWord(each)}
              </option>
            ))}
          </select>
        </label>
      ))}
    </fieldset>
  )
}

interface FootProps {
  readonly opened: Opened
  readonly rows: readonly ImportedRowView[]
  readonly isJudging: boolean
  readonly importing: Importing
}

function Foot({ opened, rows, isJudging, importing }: FootProps) {
  const { progress, outcomes, start, stop } = importing
  const count = (verdict: ImportedRowView['verdict']) => rows.filter(row => row.verdict === verdict).length
  const todo = count('new') + count('changes')
  if (progress !== undefined) return <Running label="Imported" {...progress} onStop={stop} />
  return (
    <div className="flex items-center justify-between gap-4 border-t border-base-content py-3">
      {outcomes === undefined ? (
        <p role="status">
          {isJudging
            ? 'Checking the rows …'
            : `${count('new')} new, ${count('changes')} changed, ${count('as it is')} unchanged, ${count('wrong')} with errors`}
        </p>
      ) : (
        <Done opened={opened} outcomes={outcomes} />
      )}
      <button
        type="button"
        className="btn btn-primary"
        disabled={isJudging || todo === 0}
        onClick={() => void start(rows, opened.file)}
      >
        {todo === 0 ? 'Nothing to import' : `Import ${counted(todo, 'row', 'rows')}`}
      </button>
    </div>
  )
}

function Done({ opened, outcomes }: { readonly opened: Opened; readonly outcomes: readonly Outcome[] }) {
  const done = outcomes.filter(outcome => outcome === 'done').length
  const refused = outcomes.filter(outcome => typeof outcome === 'object').length
  const save = () => saveResults(opened.file, opened.table, outcomes.map(outcomeWords))
  return (
    <p role="status">
      {counted(done, 'row', 'rows')} imported{refused > 0 && `, ${numberWords(refused)} refused`}.{' '}
      <button type="button" className="btn-inline" onClick={save}>
        Export the results as CSV
      </button>
    </p>
  )
}
