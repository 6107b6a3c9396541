import { createContext, useContext } from 'react'

const shapes = {
  day: { day: 'numeric', month: 'short' },
  'day of a year': { day: 'numeric', month: 'short', year: 'numeric' },
  year: { year: 'numeric' },
  numbers: { day: '2-digit', month: '2-digit', year: 'numeric' },
  exact: { dateStyle: 'full', timeStyle: 'long' },
  time: { hour: '2-digit', minute: '2-digit' },
  'long day': { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>

type InWords = (at: number, shape: keyof typeof shapes, timeZone?: string) => string

/** How a reader's dates are written: in their language, and in their time zone where no other is given. */
export function datesFor(language: string, ownZone?: string): InWords {
  // Formats are dear to make and asked for in every row.
  const kept = new Map<string, Intl.DateTimeFormat>()
  return (at, shape, timeZone = ownZone) => {
    const key = `${shape} ${timeZone}`
    const format =
      kept.get(key) ??
      new Intl.DateTimeFormat(language, { ...shapes[shape], ...(timeZone === undefined ? {} : { timeZone }) })
    kept.set(key, format)
    return format.format(at)
  }
}

export const ReadersDates = createContext(datesFor('en-GB'))
export const useDates = (): InWords => useContext(ReadersDates)

/** The year in which the page was opened is the one that need not be said. */
const openedAt = Date.now()

const shortDay = (inWords: InWords, at: number, timeZone?: string): string =>
  inWords(at, 'year', timeZone) === inWords(openedAt, 'year', timeZone)
    ? inWords(at, 'day', timeZone)
    : inWords(at, 'day of a year', timeZone)

/** A day that is the same wherever it is read, as its midnight in UTC. */
export function CalendarDay({ at }: { readonly at: number }) {
  const date = new Date(at)
  // By the calendar alone: very many are drawn at once, and words take their time.
  const isThisYear = date.getUTCFullYear() === new Date(openedAt).getUTCFullYear()
  return (
    <time dateTime={date.toISOString().slice(0, 10)}>
      {useDates()(at, isThisYear ? 'day' : 'day of a year', 'UTC')}
    </time>
  )
}

/** A day as people say it, in the reader's own time zone or a given one, with the exact instant on hover. */
export function Day({ at, timeZone }: { readonly at: number; readonly timeZone?: string }) {
  const inWords = useDates()
  return (
    <time dateTime={new Date(at).toISOString()} title={inWords(at, 'exact')}>
      {shortDay(inWords, at, timeZone)}
    </time>
  )
}

export function Time({ at }: { readonly at: number }) {
  const inWords = useDates()
  return (
    <time dateTime={new Date(at).toISOString()} title={inWords(at, 'exact')}>
      {inWords(at, 'time')}
    </time>
  )
}

/** A day as a heading. */
export const LongDay = ({ at }: { readonly at: number }) => useDates()(at, 'long day')

interface ThroughProps {
  readonly until: number
  readonly timeZone: string
  /** It begins what is said. */
  readonly isFirst?: boolean
}

/** An end: the last day that is still included, in the workspace's time zone. */
export function Through({ until, timeZone, isFirst = false }: ThroughProps) {
  const inWords = useDates()
  return (
    <time dateTime={new Date(until).toISOString()} title={`ends ${inWords(until, 'exact')}`}>
      {isFirst ? 'Until' : 'until'} {shortDay(inWords, until - 1, timeZone)}
    </time>
  )
}
