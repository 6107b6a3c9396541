/** Days as numbers (since 1970) and as they are written (2026-12-04), without any time zone. */

export const dayLength = 86_400_000

export interface CalendarDay {
  readonly year: number
  /** 1 to 12. */
  readonly month: number
  readonly date: number
}

// Years are counted from March: then the day that comes every four years is the last of one, and months follow a rule.
const daysInEra = 146_097
const daysBefore1970 = 719_468

export function calendarDay(day: number): CalendarDay {
  const since = day + daysBefore1970
  const era = Math.floor(since / daysInEra)
  const ofEra = since - era * daysInEra
  const yearOfEra = Math.floor(
    (ofEra - Math.floor(ofEra / 1460) + Math.floor(ofEra / 36_524) - Math.floor(ofEra / 146_096)) / 365,
  )
  const ofYear = ofEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100))
  const fromMarch = Math.floor((5 * ofYear + 2) / 153)
  const month = fromMarch < 10 ? fromMarch + 3 : fromMarch - 9
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    date: ofYear - Math.floor((153 * fromMarch + 2) / 5) + 1,
  }
}

/** Without a look at whether there is such a day. */
function countDays({ year, month, date }: CalendarDay): number {
  const fromMarch = month <= 2 ? year - 1 : year
  const era = Math.floor(fromMarch / 400)
  const yearOfEra = fromMarch - era * 400
  const ofYear = Math.floor((153 * (month > 2 ? month - 3 : month + 9) + 2) / 5) + date - 1
  const ofEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + ofYear
  return era * daysInEra + ofEra - daysBefore1970
}

const figures = (number: number, count: number): string => String(number).padStart(count, '0')

export function writtenDay(day: number): string {
  const { year, month, date } = calendarDay(day)
  return `${figures(year, 4)}-${figures(month, 2)}-${figures(date, 2)}`
}

/** What a clock shows, in milliseconds since 1970 as it counts: 2026-12-04 09:30. */
export function writtenTime(local: number): string {
  const minutes = Math.floor(local / 60_000) % (24 * 60)
  const ofDay = minutes < 0 ? minutes + 24 * 60 : minutes
  return `${writtenDay(Math.floor(local / dayLength))} ${figures(Math.floor(ofDay / 60), 2)}:${figures(ofDay % 60, 2)}`
}

/** `undefined` for what is no day of the calendar, or not one of the years 1 to 9999. */
export function dayOf(year: number, month: number, date: number): number | undefined {
  if (year < 1 || year > 9999 || month < 1 || month > 12) return undefined
  const day = countDays({ year, month, date })
  const there = calendarDay(day)
  return there.month === month && there.date === date ? day : undefined
}

/** The form in which days are stored. */
export function readDay(written: string): number | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(written)
  return match === null ? undefined : dayOf(Number(match[1]), Number(match[2]), Number(match[3]))
}

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

interface Written {
  readonly today: number
  readonly isDayFirst: boolean
}

const near: ReadonlyMap<string, number> = new Map([
  ['today', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
])

/** A day as people write one. A year that is left out is this one; one of two digits lies within fifty years. */
export function dayFrom(text: string, usage: Written): number | undefined {
  const written = text.trim().toLowerCase().replaceAll(/\s+/g, ' ')
  const away = near.get(written)
  if (away !== undefined) return usage.today + away
  return yearFirst(written) ?? withMonthName(written, usage) ?? inNumbers(written, usage)
}

function yearFirst(written: string): number | undefined {
  const match = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(written)
  return match === null ? undefined : dayOf(Number(match[1]), Number(match[2]), Number(match[3]))
}

function withMonthName(written: string, usage: Written): number | undefined {
  const dayFirst = /^(\d{1,2})\.? ?([a-z]{3,9})\.?,?(?: ?(\d{4}|\d{2}))?$/.exec(written)
  const monthFirst = /^([a-z]{3,9})\.? (\d{1,2})(?:,? (\d{4}))?$/.exec(written)
  const [date, name, year] =
    dayFirst === null ? [monthFirst?.[2], monthFirst?.[1], monthFirst?.[3]] : dayFirst.slice(1)
  const month = months.indexOf((name ?? '').slice(0, 3))
  return month === -1 ? undefined : dayOf(yearOf(year, usage), month + 1, Number(date))
}

function inNumbers(written: string, usage: Written): number | undefined {
  const match = /^(\d{1,2})([-/.])(\d{1,2})(?:\2(\d{4}|\d{2})?)?$/.exec(written)
  if (match === null) return undefined
  const [first, second] = [Number(match[1]), Number(match[3])]
  const year = yearOf(match[4], usage)
  // A point between them is only written where the day is first.
  const isDayFirst = usage.isDayFirst || match[2] === '.'
  return isDayFirst ? dayOf(year, second, first) : dayOf(year, first, second)
}

function yearOf(written: string | undefined, { today }: Written): number {
  const { year: thisYear } = calendarDay(today)
  if (written === undefined) return thisYear
  if (written.length === 4) return Number(written)
  const inCentury = Math.floor(thisYear / 100) * 100 + Number(written)
  return inCentury > thisYear + 50 ? inCentury - 100 : inCentury < thisYear - 49 ? inCentury + 100 : inCentury
}
