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
import { type AccessRequest, goesOnAfter, remindAfter } from '../people/asking.ts'
import type { Membership, Person } from '../people/person.ts'
import type { Grant } from '../rules/entry.ts'
import type { ContentNode } from '../tree/node.ts'
import type { Rows, TableName } from './state.ts'

/** When something happens by itself: in order for each kind, following every change of the records. */
export type Dates = Readonly<Record<Kind, Agenda<RowDate>>>

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

/** For each kind the tables whose rows have such instants, and which. */
const kinds = {
  starts: {
    grants: startOf,
    limits: startOf,
    memberships: startOf,
    holdings: startOf,
    persons: startOf,
  },
  ends: { grants: endOf, limits: endOf, memberships: endOf, holdings: endOf },
  /** Of people: unlike ended entries they stay. */
  leavings: { persons: endOf },
  /** When what lies in the bin is deleted for good. */
  binEnds: { nodes: ({ binned }: ContentNode) => (binned === null ? null : binned.at + binTime) },
  /** When those concerned are told that an end comes near. */
  nearings: { grants: nearingOf, memberships: nearingOf, persons: nearingOf },
  reminders: { accessRequests: stepOf(remindAfter) },
  goingsOn: { accessRequests: stepOf(goesOnAfter) },
} as const satisfies Record<string, { readonly [T in TableName]?: (row: Rows[T]) => Instant | null }>

export type Kind = keyof typeof kinds

const kindNames = Object.keys(kinds) as Kind[]

export const noDates = Object.fromEntries(kindNames.map(kind => [kind, emptyAgenda])) as unknown as Dates

function startOf({ from }: Span): Instant | null {
  return from
}

function endOf({ until }: Span): Instant | null {
  return until
}

/** Nothing that began nearer to its end than that is told of. */
function nearingOf(row: Grant | Membership | Person): Instant | null {
  const begunAt =
    'at' in row ? row.at : 'since' in row ? row.since : (row.joinedAt ?? Number.POSITIVE_INFINITY)
  const toldAt = row.until === null ? null : row.until - nearness
  return toldAt === null || toldAt <= begunAt ? null : toldAt
}

function stepOf(after: Instant) {
  return ({ at, declined }: AccessRequest): Instant | null => (declined === null ? at + after : null)
}

type Reading = (row: never) => Instant | null

const readingOf = (kind: Kind, table: TableName): Reading | undefined =>
  (kinds[kind] as Partial<Record<TableName, Reading>>)[table]

const dated = new Set(Object.values(kinds).flatMap(tables => Object.keys(tables)))

export const hasDates = (table: TableName): boolean => dated.has(table)

function dateOf(kind: Kind, table: TableName, row: { readonly id: string }): RowDate | null {
  const at = readingOf(kind, table)?.(row as never) ?? null
  return at === null ? null : { at, key: `${table} ${row.id}`, table, id: row.id }
}

interface Changed {
  readonly table: TableName
  readonly before: { readonly id: string } | null
  readonly after: { readonly id: string } | null
}

export function datesAfter(dates: Dates, changes: readonly Changed[]): Dates {
  const next: Record<Kind, Agenda<RowDate>> = { ...dates }
  for (const { table, before, after } of changes)
    for (const kind of kindNames) {
      const was = before && dateOf(kind, table, before)
      const is = after && dateOf(kind, table, after)
      if (was?.at === is?.at) continue
      if (was) next[kind] = withoutDate(next[kind], was)
      if (is) next[kind] = withDate(next[kind], is)
    }
  return next
}

/** All dates of some rows at once. Those without any may be left out. */
export function datesOf(rows: { readonly [T in TableName]?: readonly Rows[T][] }): Dates {
  const of = (kind: Kind) => {
    const found: RowDate[] = []
    for (const table of Object.keys(kinds[kind]) as TableName[])
      for (const row of rows[table] ?? []) {
        const date = dateOf(kind, table, row)
        if (date !== null) found.push(date)
      }
    return [kind, agendaOf(found)] as const
  }
  return Object.fromEntries(kindNames.map(of)) as unknown as Dates
}

/** The next instant after `at` of some kinds; Infinity if none comes. */
export const nextOf = (dates: Dates, of: readonly Kind[], at: Instant): Instant =>
  Math.min(...of.map(kind => nextAfter(dates[kind], at)))

/** What of a kind comes after `after` and not after `upTo`, in order. */
export const datesIn = (dates: Dates, kind: Kind, range: TimeRange): Generator<RowDate> =>
  datesBetween(dates[kind], range)
