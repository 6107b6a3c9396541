import { Fragment, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { ColumnView } from '#contract/views/boards.ts'
import { calendarDay, dayLength, readDay } from '#core/boards/days.ts'
import type { CellValue, Filled, KindName } from '#core/boards/kind.ts'
import { isLink } from '#core/boards/kinds/link.ts'
import type { NumberSettings } from '#core/boards/kinds/number.ts'
import type { SerialSettings } from '#core/boards/kinds/serial-number.ts'
import { serialNumber } from '#core/boards/kinds/serial-number.ts'
import type { StateSettings } from '#core/boards/kinds/state.ts'
import type { TagSettings } from '#core/boards/kinds/tags.ts'
import { CalendarDay, Day, useDates } from '../../../ui/dates.tsx'
import { StateMark } from '../StateMark.tsx'
import { groupedNumber } from './number-words.ts'
import { useReading } from './reading.ts'

interface Props {
  readonly column: ColumnView
  readonly value: CellValue
  readonly names: Readonly<Record<string, string>>
}

interface ShownProps extends Props {
  readonly value: Filled
}

/** What stands in a cell, as it is read. */
export function CellShown({ column, value, names }: Props): ReactNode {
  if (value === null) return null
  const Shown = shownBy[column.kind]
  return <Shown column={column} value={value} names={names} />
}

const Plain = ({ value }: ShownProps) => <>{String(value)}</>

function NumberShown({ column, value }: ShownProps) {
  const { usage } = useReading()
  const { places } = column.settings as NumberSettings
  return <>{groupedNumber(Number(value), places, usage)}</>
}

function SerialShown({ column, value }: ShownProps) {
  const { usage } = useReading()
  return <span className="quiet">{serialNumber.words(value, column.settings as SerialSettings, usage)}</span>
}

function StateShown({ column, value }: ShownProps) {
  const state = (column.settings as unknown as StateSettings).states.find(each => each.id === value)
  return state === undefined ? null : (
    <span className="inline-flex items-center gap-1.5 align-middle">
      <StateMark mark={state.mark} isFinished={state.isFinished} />
      {state.name}
    </span>
  )
}

function TagsShown({ column, value }: ShownProps) {
  const { tags } = column.settings as unknown as TagSettings
  return (
    <span className="inline-flex gap-1.5">
      {tags
        .filter(each => (value as readonly string[]).includes(each.id))
        .map(({ id, name }) => (
          <span key={id} className="border-b border-base-content/40 px-0.5">
            {name}
          </span>
        ))}
    </span>
  )
}

const initialsOf = (name: string): string =>
  name
    .split(/\s+/)
    .map(word => word[0] ?? '')
    .slice(0, 2)
    .join('')
    .toUpperCase()

export const Initials = ({ name }: { readonly name: string }) => (
  <span
    aria-hidden
    className="inline-grid size-5 shrink-0 place-items-center bg-base-300 text-[0.62rem] leading-none font-bold text-base-content"
  >
    {initialsOf(name)}
  </span>
)

/** Of several people the first one by name: the others have room for their initials. */
const PeopleShown = ({ value, names }: ShownProps) => (
  <span className="inline-flex max-w-full items-center gap-1.5 align-middle">
    {(value as readonly string[]).map((id, index) => {
      const name = names[id]
      return (
        <span key={id} className="inline-flex min-w-0 items-center gap-1.5" title={name ?? 'somebody'}>
          {name !== undefined && <Initials name={name} />}
          <span className={index === 0 ? `truncate ${name === undefined ? 'quiet' : ''}` : 'sr-only'}>
            {name ?? 'somebody'}
          </span>
          {index > 0 && name === undefined && <span className="quiet">?</span>}
        </span>
      )
    })}
  </span>
)

const PlacesShown = ({ value, names }: ShownProps) => {
  const { slug } = useReading()
  return (
    <>
      {(value as readonly string[])
        .filter(id => names[id] !== undefined)
        .map((id, index) => (
          <Fragment key={id}>
            {index > 0 && '; '}
            <Link tabIndex={-1} className="underline underline-offset-2" to={`/at/${slug}/content/${id}`}>
              {names[id]}
            </Link>
          </Fragment>
        ))}
    </>
  )
}

function DateShown({ value }: ShownProps) {
  if (typeof value === 'number') return <WithTime at={value} />
  const day = readDay(String(value))
  return day === undefined ? null : <CalendarDay at={day * dayLength} />
}

function WithTime({ at }: { readonly at: number }) {
  const inWords = useDates()
  const { timeZone } = useReading()
  return (
    <time dateTime={new Date(at).toISOString()} title={inWords(at, 'exact')}>
      {inWords(at, 'day', timeZone)}, {inWords(at, 'time', timeZone)}
    </time>
  )
}

/** The year is said once where both days are of it. */
function PeriodShown({ value }: ShownProps) {
  const inWords = useDates()
  const [from, through] = (value as readonly string[]).map(readDay)
  if (from === undefined || through === undefined) return null
  if (from === through) return <CalendarDay at={from * dayLength} />
  const isOfOneYear = calendarDay(from).year === calendarDay(through).year
  return (
    <>
      {isOfOneYear ? inWords(from * dayLength, 'day', 'UTC') : <CalendarDay at={from * dayLength} />} –{' '}
      <CalendarDay at={through * dayLength} />
    </>
  )
}

const Checked = () => (
  <>
    <span aria-hidden>✓</span>
    <span className="sr-only">yes</span>
  </>
)

/** What somebody typed becomes a link only where it is one of those that a page opens. */
const LinkShown = ({ value }: ShownProps) =>
  isLink(value) ? (
    <a
      tabIndex={-1}
      className="underline underline-offset-2"
      href={value}
      target="_blank"
      rel="noreferrer noopener"
    >
      {value.replace(/^(https?:\/\/|mailto:|tel:)(www\.)?/i, '')}
    </a>
  ) : (
    <>{String(value)}</>
  )

const OneLine = ({ value }: ShownProps) => <>{String(value).replaceAll(/\s*\n\s*/g, ' · ')}</>

const Instant = ({ value }: ShownProps) => <Day at={Number(value)} />

const shownBy: Readonly<Record<KindName, (props: ShownProps) => ReactNode>> = {
  text: Plain,
  'long text': OneLine,
  number: NumberShown,
  'serial number': SerialShown,
  state: StateShown,
  tags: TagsShown,
  person: PeopleShown,
  date: DateShown,
  period: PeriodShown,
  checkbox: Checked,
  link: LinkShown,
  place: PlacesShown,
  file: PlacesShown,
  created: Instant,
  updated: Instant,
}

/** Numbers stand under each other. */
export const isRight = (kind: KindName | undefined): boolean => kind === 'number'
