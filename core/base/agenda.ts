import type { Instant } from './instant.ts'

/**
 * Instants in order, each with what it is of: what comes next is found without looking through everything.
 * Immutable; pages that did not change are shared. A change copies one page and the list of pages.
 */
export interface Agenda<Of extends Dated> {
  /** In order within and among them; none is empty. */
  readonly pages: readonly (readonly Of[])[]
}

export interface Dated {
  readonly at: Instant
  /** Tells apart what is of the same instant. */
  readonly key: string
}

const pageLength = 256

export const emptyAgenda: Agenda<never> = { pages: [] }

/** In any order; two of the same instant and key must not be among them. */
export function agendaOf<Of extends Dated>(dates: readonly Of[]): Agenda<Of> {
  const sorted = dates.toSorted(inOrder)
  const pages: Of[][] = []
  for (let from = 0; from < sorted.length; from += pageLength / 2)
    pages.push(sorted.slice(from, from + pageLength / 2))
  return { pages }
}

/** With one more. What has its instant and key already is left as it is. */
export function withDate<Of extends Dated>({ pages }: Agenda<Of>, date: Of): Agenda<Of> {
  if (pages.length === 0) return { pages: [[date]] }
  const index = Math.min(pageFrom(pages, date), pages.length - 1)
  const page = pages[index] as readonly Of[]
  const place = placeIn(page, date)
  if (isSame(page[place], date)) return { pages }
  const longer = page.toSpliced(place, 0, date)
  if (longer.length <= pageLength) return { pages: pages.with(index, longer) }
  const halves = [longer.slice(0, pageLength / 2), longer.slice(pageLength / 2)]
  return { pages: pages.toSpliced(index, 1, ...halves) }
}

export function withoutDate<Of extends Dated>(agenda: Agenda<Of>, date: Dated): Agenda<Of> {
  const { pages } = agenda
  const index = pageFrom(pages, date)
  const page = pages[index] ?? []
  const place = placeIn(page, date)
  if (!isSame(page[place], date)) return agenda
  return {
    pages: page.length === 1 ? pages.toSpliced(index, 1) : pages.with(index, page.toSpliced(place, 1)),
  }
}

/** The first instant after `at`; Infinity if there is none. */
export function nextAfter({ pages }: Agenda<Dated>, at: Instant): Instant {
  const after: Dated = { at, key: lastKey }
  const page = pages[pageFrom(pages, after)]
  return page?.[placeIn(page, after)]?.at ?? Number.POSITIVE_INFINITY
}

export interface TimeRange {
  readonly after: Instant
  readonly upTo: Instant
}

/** What is later than `after` and not later than `upTo`, in order. */
export function* datesBetween<Of extends Dated>(
  { pages }: Agenda<Of>,
  { after, upTo }: TimeRange,
): Generator<Of> {
  const start: Dated = { at: after, key: lastKey }
  const first = pageFrom(pages, start)
  for (let index = first; index < pages.length; index += 1) {
    const page = pages[index] as readonly Of[]
    for (let place = index === first ? placeIn(page, start) : 0; place < page.length; place += 1) {
      const date = page[place] as Of
      if (date.at > upTo) return
      yield date
    }
  }
}

/** Behind every key of an instant. */
const lastKey = '\uffff'

const inOrder = (a: Dated, b: Dated): number => a.at - b.at || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)
const isSame = (found: Dated | undefined, date: Dated) => found !== undefined && inOrder(found, date) === 0

/** The first page whose last date is not before `date`: the number of pages if there is none. */
const pageFrom = (pages: readonly (readonly Dated[])[], date: Dated): number =>
  firstOf(pages.length, index => inOrder(pages[index]?.at(-1) as Dated, date) >= 0)

const placeIn = (page: readonly Dated[], date: Dated): number =>
  firstOf(page.length, place => inOrder(page[place] as Dated, date) >= 0)

/** The first number below `count` of which something holds that holds of all behind it. */
function firstOf(count: number, holds: (number: number) => boolean): number {
  let low = 0
  for (let high = count; low < high;) {
    const middle = (low + high) >> 1
    if (holds(middle)) high = middle
    else low = middle + 1
  }
  return low
}
