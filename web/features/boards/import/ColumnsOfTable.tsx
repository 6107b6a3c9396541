import type { BoardInfo } from '#contract/views/boards.ts'
import { kindNames } from '#core/boards/kind.ts'
import type { KindName } from '#core/boards/kind.ts'
import { nameColumn, sectionColumn } from '#core/boards/view.ts'
import { Choice } from '../../../ui/Choice.tsx'
import type { Table } from '../../../workers/table.ts'
import { useOpenBoard } from '../board-context.ts'
import {
  keysAmong,
  type Mapped,
  type MappedColumn,
  newKinds,
  targetsOf,
  textsOf,
  withKind,
  withTarget,
  writtenMatters,
} from './columns.ts'

interface Props {
  readonly table: Table
  readonly mapped: Mapped
  readonly onMapped: (mapped: Mapped) => void
}

/** What each column of a table is on the board, how it is written there, and which one tells rows apart. */
export function ColumnsOfTable({ table, mapped, onMapped }: Props) {
  const { info, usage } = useOpenBoard()
  const headOf = (index: number) => table.heads[index] || `Column ${index + 1}`
  const keys = keysAmong(mapped, info)
  return (
    <fieldset>
      <legend className="sr-only">Columns</legend>
      {!mapped.columns.some(each => each.column === nameColumn) && (
        <p className="mb-2 text-sm text-warning">
          Without a column for the name only rows that are on the board are changed.
        </p>
      )}
      {mapped.columns.map((column, index) => (
        <OneColumn
          key={index}
          head={headOf(index)}
          column={column}
          onTarget={target => onMapped(withTarget(mapped, index, target))}
          onKind={as => onMapped(withKind(mapped, { index, as, texts: textsOf(table, index) }, usage))}
          onWritten={written =>
            onMapped({
              ...mapped,
              columns: mapped.columns.map((each, nth) => (nth === index ? { ...each, ...written } : each)),
            })
          }
        />
      ))}
      <div className="mt-4">
        <Choice
          label="Rows are told apart by"
          value={mapped.key === null ? '' : String(mapped.key)}
          options={[
            { value: '', name: 'nothing: each is a new row' },
            ...keys.map(index => ({ value: String(index), name: headOf(index) })),
          ]}
          onValue={key => onMapped({ ...mapped, key: key === '' ? null : Number(key) })}
        />
      </div>
    </fieldset>
  )
}

/** Under what a column of a table stands among those that are brought in. */
export function targetWord(column: MappedColumn | undefined, head: string, info: BoardInfo): string {
  if (column?.column === nameColumn) return 'Name'
  if (column?.column === sectionColumn) return 'Section'
  return info.columns.find(each => each.id === column?.column)?.name ?? head
}

interface OneProps {
  readonly head: string
  readonly column: MappedColumn
  readonly onTarget: (target: Pick<MappedColumn, 'to' | 'column'>) => void
  readonly onKind: (kind: KindName) => void
  readonly onWritten: (written: Partial<MappedColumn>) => void
}

const newPrefix = 'new '

function OneColumn({ head, column, onTarget, onKind, onWritten }: OneProps) {
  const { info } = useOpenBoard()
  const matters = writtenMatters(column, info)
  const value = column.to === 'new' ? `${newPrefix}${column.as}` : column.column
  const choose = (chosen: string) => {
    if (chosen.startsWith(newPrefix)) onKind(chosen.slice(newPrefix.length) as KindName)
    else onTarget(chosen === '' ? { to: 'nothing', column: '' } : { to: 'column', column: chosen })
  }
  return (
    <div className="mb-1 grid grid-cols-2 items-center gap-x-2 gap-y-0.5">
      <span className={`truncate ${column.to === 'nothing' ? 'quiet' : ''}`} title={head}>
        {head}
      </span>
      <select
        className="choice"
        aria-label={`Column ${head}`}
        value={value}
        onChange={event => choose(event.target.value)}
      >
        <Targets />
      </select>
      {matters === 'decimal' && (
        <Written
          label={`Numbers in ${head}`}
          value={column.decimal}
          options={[
            { value: '.', name: '1,204.50' },
            { value: ',', name: '1.204,50' },
          ]}
          onValue={decimal => onWritten({ decimal })}
        />
      )}
      {matters === 'day' && (
        <Written
          label={`Dates in ${head}`}
          value={column.isDayFirst ? 'day' : 'month'}
          options={[
            { value: 'day', name: '31/12/2026' },
            { value: 'month', name: '12/31/2026' },
          ]}
          onValue={first => onWritten({ isDayFirst: first === 'day' })}
        />
      )}
    </div>
  )
}

/** What a column of a table can be on the board. */
function Targets() {
  const { info, mayArrange } = useOpenBoard()
  return (
    <>
      <option value="">not imported</option>
      <option value={nameColumn}>Name</option>
      {info.sections.length > 0 && <option value={sectionColumn}>Section</option>}
      {targetsOf(info).map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
      {mayArrange && (
        <optgroup label="A new column">
          {newKinds(kindNames).map(kind => (
            <option key={kind} value={`${newPrefix}${kind}`}>
              new: {kind}
            </option>
          ))}
        </optgroup>
      )}
    </>
  )
}

interface WrittenProps<Value extends string> {
  readonly label: string
  readonly value: Value
  readonly options: readonly { readonly value: Value; readonly name: string }[]
  readonly onValue: (value: Value) => void
}

const Written = <Value extends string>({ label, value, options, onValue }: WrittenProps<Value>) => (
  <label className="quiet col-start-2 flex items-center gap-1.5 text-sm whitespace-nowrap">
    as
    <select
      className="h-6 cursor-pointer bg-base-100 tabular-nums"
      aria-label={label}
      value={value}
      onChange={event => onValue(event.target.value as Value)}
    >
      {options.map(each => (
        <option key={each.value} value={each.value}>
          {each.name}
        </option>
      ))}
    </select>
  </label>
)
