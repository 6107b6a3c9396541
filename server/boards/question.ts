import { instantOf } from '#contract/clock.ts'
import type { BoardData } from '#core/boards/data.ts'
import { dayLength } from '#core/boards/days.ts'
import type { Held, Totals } from '#core/boards/kind.ts'
import { foundRows } from '#core/boards/found-rows.ts'
import { keyOf } from '#core/boards/row-key.ts'
import { type Group, type RowsAsked, type RowsFound, seenColumn } from '#core/boards/rows.ts'
import { type ShownRow, shownRows } from '#core/boards/shown-rows.ts'
import { totalsFor } from '#core/boards/totals.ts'
import { heldAt } from '#core/boards/vectors.ts'

/** What may be asked of a board, as it goes to the thread that holds it: all that is a function is data here. */

/** What one who asks sees of a board, and how they ask for its rows. */
export interface Looking extends Pick<RowsAsked, 'view' | 'columns' | 'sections'> {
  readonly hidden: readonly string[]
  readonly unknown: readonly string[]
  /** By id, of those whom a sort or a group is by. */
  readonly names: readonly (readonly [id: string, name: string])[]
  readonly me: string
  /** Days since 1970. */
  readonly today: number
  /** An IANA name: where days begin. */
  readonly timeZone: string
  /** The people of the teams that conditions name. */
  readonly teams: Readonly<Record<string, readonly string[]>>
}

export type BoardQuestion =
  /** Some of the rows that fit, as they are shown. */
  | { readonly kind: 'rows'; readonly looking: Looking; readonly from: number; readonly count: number }
  /** Some rows by their ids, as far as they are seen. */
  | { readonly kind: 'rows of'; readonly looking: Looking; readonly ids: readonly string[] }
  /** What the foot tells of the rows that fit. */
  | { readonly kind: 'totals'; readonly looking: Looking }
  /** All that cells of some columns name: people, places. */
  | { readonly kind: 'named'; readonly columns: readonly string[] }
  /** Of some keys, the rows that have them: by their name, a text, a number. */
  | {
      readonly kind: 'keys'
      readonly looking: Looking
      readonly column: string
      readonly keys: readonly (string | number)[]
    }
  /** The last place that a row has on the board. */
  | { readonly kind: 'last order' }

export interface RowsAnswer extends Omit<RowsFound, 'slots'> {
  readonly count: number
  readonly groups: readonly Group[]
  readonly rows: readonly ShownRow[]
}

export interface BoardAnswers {
  readonly rows: RowsAnswer
  readonly 'rows of': readonly ShownRow[]
  readonly totals: Readonly<Record<string, Totals>>
  readonly named: readonly string[]
  /** Of each key two at most: then it says nothing. */
  readonly keys: readonly (readonly string[])[]
  readonly 'last order': number
}
export type BoardQuestionKind = BoardQuestion['kind']

const foundFor = (board: BoardData, looking: Looking): RowsFound =>
  foundRows(board, askedFrom(looking), JSON.stringify(looking))

function askedFrom(looking: Looking): RowsAsked {
  const { view, columns, sections, hidden, unknown, names, me, today, timeZone, teams } = looking
  const nameOf = new Map(names)
  return {
    view,
    columns,
    sections,
    hidden: new Set(hidden),
    unknown: new Set(unknown),
    asking: {
      me,
      today,
      startOf: day => startOf(day, timeZone),
      membersOf: team => new Set(teams[team]),
    },
    nameOf: id => nameOf.get(id),
  }
}

export function answerOf(board: BoardData, question: BoardQuestion): BoardAnswers[BoardQuestionKind] {
  switch (question.kind) {
    case 'rows': {
      const { looking, from, count } = question
      const { slots, ...found } = foundFor(board, looking)
      const rows = shownRows(board, askedFrom(looking), slots.subarray(from, from + count))
      return { ...found, count: slots.length, rows }
    }
    case 'rows of': {
      const { looking, ids } = question
      const hidden = new Set(looking.hidden)
      const slots = ids.flatMap(id => {
        const slot = board.slotOf.get(id)
        return slot === undefined || board.isThere[slot] !== 1 || hidden.has(id) ? [] : [slot]
      })
      return shownRows(board, askedFrom(looking), slots)
    }
    case 'totals':
      return totalsFor(board, askedFrom(question.looking), foundFor(board, question.looking).slots)
    case 'named':
      return namedIn(board, question.columns)
    case 'keys':
      return rowsByKey(board, question)
    case 'last order':
      return board.orders.numbers.reduce((most, order) => Math.max(most, order || 0), 0)
  }
}

const namedIn = ({ columns }: BoardData, ids: readonly string[]): string[] => [
  ...new Set(
    ids.flatMap(id => {
      const held = columns.get(id)?.held
      return held?.form === 'list' ? held.lists.flat() : []
    }),
  ),
]

/** Costs a look at each row. */
function rowsByKey(
  board: BoardData,
  { looking, column, keys }: Extract<BoardQuestion, { kind: 'keys' }>,
): string[][] {
  const seen = seenColumn(board, askedFrom(looking), column)
  const found = new Map<Held, string[]>(keys.map(key => [key, []]))
  if (seen !== undefined)
    for (const slot of foundFor(board, looking).slots) {
      const rows = found.get(keyOf(heldAt(seen.held, slot)))
      if (rows !== undefined && rows.length < 2) rows.push(board.ids[slot] as string)
    }
  return keys.map(key => found.get(key) ?? [])
}

const startOf = (day: number, timeZone: string): number => instantOf(day * dayLength, timeZone)
