import {
  type Agenda,
  agendaOf,
  type TimeRange,
  datesBetween,
  emptyAgenda,
  nextAfter,
  withDate,
  withoutDate,
} from '../base/agenda.ts'
import type { Instant, Span } from '../base/instant.ts'
import type { Rows, TableName } from './kinds.ts'
import { type DateKind, dateKinds, type RecordShapes } from './shape.ts'
import type { State } from './state.ts'

/** When something happens by itself: in order for each kind, following every change of the records. */
export type Dates = Readonly<Record<DateKind, Agenda<RowDate>>>

export interface RowDate {
  readonly at: Instant
  readonly key: string
  readonly table: TableName
  readonly id: string
}

/** How long a place lies in the bin before it is deleted for good. */
export const binTime: Instant = 30 * 86_400_000

/** How long before an end those concerned are told. */
export const nearness: Instant = 7 * 86_400_000

export const noDates = Object.fromEntries(dateKinds.map(kind => [kind, emptyAgenda])) as unknown as Dates

export function startOf({ from }: Span): Instant | null {
  return from
}

export function endOf({ until }: Span): Instant | null {
  return until
}

/** Nothing that began nearer to its end than that is told of. */
export function nearingOf({ until }: Span, begunAt: Instant | null): Instant | null {
  const toldAt = until === null ? null : until - nearness
  return toldAt === null || begunAt === null || toldAt <= begunAt ? null : toldAt
}

type Reading = (row: never) => Instant | null

function dateOf(
  { kinds }: Pick<State, 'kinds'>,
  kind: DateKind,
  { table, row }: { readonly table: TableName; readonly row: { readonly id: string } },
): RowDate | null {
  const reading = kinds[table].dates?.[kind] as Reading | undefined
  const at = reading?.(row as never) ?? null
  return at === null ? null : { at, key: `${table} ${row.id}`, table, id: row.id }
}

interface Changed {
  readonly table: TableName
  readonly before: { readonly id: string } | null
  readonly after: { readonly id: string } | null
}

export function datesAfter(state: Pick<State, 'kinds' | 'dates'>, changes: readonly Changed[]): Dates {
  const next: Record<DateKind, Agenda<RowDate>> = { ...state.dates }
  for (const { table, before, after } of changes)
    for (const kind of dateKinds) {
      const was = before && dateOf(state, kind, { table, row: before })
      const is = after && dateOf(state, kind, { table, row: after })
      if (was?.at === is?.at) continue
      if (was) next[kind] = withoutDate(next[kind], was)
      if (is) next[kind] = withDate(next[kind], is)
    }
  return next
}

/** All dates of some rows at once. Those without any may be left out. */
export function datesOf(
  kinds: RecordShapes,
  rows: { readonly [T in TableName]?: readonly Rows[T][] },
): Dates {
  const of = (kind: DateKind) => {
    const found: RowDate[] = []
    for (const table of Object.keys(kinds) as TableName[])
      if (kinds[table].dates?.[kind] !== undefined)
        for (const row of rows[table] ?? []) {
          const date = dateOf({ kinds }, kind, { table, row })
          if (date !== null) found.push(date)
        }
    return [kind, agendaOf(found)] as const
  }
  return Object.fromEntries(dateKinds.map(of)) as unknown as Dates
}

/** The next instant after `at` of some kinds; Infinity if none comes. */
export const nextOf = (dates: Dates, of: readonly DateKind[], at: Instant): Instant =>
  Math.min(...of.map(kind => nextAfter(dates[kind], at)))

/** What of a kind comes after `after` and not after `upTo`, in order. */
export const datesIn = (dates: Dates, kind: DateKind, range: TimeRange): Generator<RowDate> =>
  datesBetween(dates[kind], range)
