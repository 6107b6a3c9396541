import fc from 'fast-check'
import { expect, test } from 'vitest'
import { emptyBoard, heldOf, type RowRead, withRows } from './data.ts'
import { writtenDay } from './days.ts'
import { foundRows } from './found-rows.ts'
import { type Asking, type ColumnForm, type Held, isNothing, type Totals } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { type RowsAsked, rowsFor, somebody } from './rows.ts'
import { shownRows } from './shown-rows.ts'
import { anyBoard, sections } from './tests/boards.ts'
import { usage } from './tests/cells.ts'
import { totalsFor } from './totals.ts'
import {
  type Condition,
  type Conditions,
  everyCondition,
  isNested,
  nameColumn,
  plainView,
  sectionColumn,
  viewFrom,
  viewParameters,
  type ViewState,
  withAlso,
} from './view.ts'

/** Filter, sort, groups and totals, against what they are by definition: row by row, one list after another. */

const asking: Asking = {
  me: 'id-1',
  today: usage.today,
  startOf: day => day * 86_400_000 - 3_600_000,
  membersOf: team => new Set(team === 't' ? ['id-0', 'id-2'] : []),
}

const arguments_: Readonly<Record<string, fc.Arbitrary<readonly string[]>>> = {
  nothing: fc.constant([]),
  text: fc.constantFrom(['gate'], ['ø'], ['x'], ['']),
  number: fc.integer({ min: -100, max: 100 }).map(number => [String(number)]),
  'two numbers': fc.tuple(fc.integer(), fc.integer()).map(all => all.map(String)),
  options: fc.subarray(['o0', 'o1', 'o2']),
  people: fc.subarray(['id-0', 'id-1', 'id-3']),
  team: fc.constantFrom(['t'], ['other']),
  places: fc.subarray(['id-0', 'id-4']),
  day: fc.integer({ min: 0, max: 40_000 }).map(day => [writtenDay(day)]),
  'two days': fc
    .tuple(fc.nat({ max: 40_000 }), fc.nat({ max: 400 }))
    .map(([day, more]) => [writtenDay(day), writtenDay(day + more)]),
  count: fc.nat({ max: 5000 }).map(count => [String(count)]),
}

/** Of columns that are there, and now and then of one that is not. */
function anyView(columns: readonly ColumnForm[]): fc.Arbitrary<ViewState> {
  const condition = fc.constantFrom(...columns).chain(({ id, kind }) =>
    fc.constantFrom(...kindOf({ kind }).filters).chain(({ word, takes }) =>
      (arguments_[takes] as fc.Arbitrary<readonly string[]>).map((given): Condition => ({
        column: id,
        word,
        given,
      })),
    ),
  )
  const others: fc.Arbitrary<Condition> = fc.constantFrom(
    { column: sectionColumn, word: 'is', given: ['s1'] },
    { column: sectionColumn, word: 'is not', given: ['s1', 's2'] },
    { column: nameColumn, word: 'contains', given: ['gate'] },
    { column: 'absent', word: 'is', given: ['x'] },
  )
  const any = fc.oneof({ weight: 4, arbitrary: condition }, { weight: 1, arbitrary: others })
  const join = fc.constantFrom<'all' | 'any'>('all', 'any')
  const ids = [...columns.map(each => each.id), nameColumn, 'absent']
  return fc.record({
    layout: fc.constantFrom('table', 'lanes', 'calendar'),
    by: fc.option(fc.constantFrom(...ids)),
    where: fc.record({
      join,
      of: fc.array(fc.oneof(any, fc.record({ join, of: fc.array(any, { minLength: 1, maxLength: 2 }) })), {
        maxLength: 3,
      }),
    }),
    sort: fc.array(fc.record({ column: fc.constantFrom(...ids), isDown: fc.boolean() }), { maxLength: 3 }),
    group: fc.option(fc.constantFrom(...ids, sectionColumn)),
    columns: fc.option(
      fc.array(
        fc.record({ column: fc.constantFrom(...ids), width: fc.option(fc.integer({ min: 40, max: 1000 })) }),
        { minLength: 1 },
      ),
    ),
  })
}

const anyAsked = anyBoard.chain(({ columns, steps }) =>
  fc.subarray([...columns], { minLength: 1 }).chain(seen =>
    fc.record({
      board: fc.constant({ columns, steps }),
      asked: anyView([...columns]).map((view): RowsAsked => ({
        view,
        columns: seen,
        sections,
        hidden: new Set(),
        unknown: new Set(),
        asking,
        nameOf: usage.nameOf,
      })),
      hidden: fc.subarray(['r0', 'r3', 'r5', 'r8']),
      unknown: fc.subarray(['id-0', 'id-1', 'id-4']),
    }),
  ),
)

/** The rows as they are after all steps, in the order in which they came. */
function rowsAfter(
  steps: readonly { readonly rows: readonly RowRead[]; readonly gone: readonly string[] }[],
) {
  const rows = new Map<string, RowRead & { readonly isGone?: boolean }>()
  for (const { rows: some, gone } of steps) {
    for (const row of some) rows.set(row.id, row)
    for (const id of gone) {
      const row = rows.get(id)
      if (row !== undefined) rows.set(id, { ...row, isGone: true })
    }
  }
  return [...rows.values()]
}

/** What the foot says of a column, from what its cells hold. */
function totalOf({ kind, settings }: ColumnForm, cells: readonly Held[]): Totals {
  const filled = cells.filter(held => !isNothing(held))
  const count = filled.length
  if (kindOf({ kind }).form === 'list') {
    const { states, tags } = Object(settings) as Record<
      string,
      readonly { readonly id: string }[] | undefined
    >
    const order = (states ?? tags ?? []).map(each => each.id)
    const all = (filled as readonly (readonly string[])[]).flat()
    if (!('states' in Object(settings)) && !('tags' in Object(settings)))
      return { filled: count, different: new Set(all).size }
    const timesOf = (id: string) => all.filter(each => each === id).length
    const place = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length)
    const ids = [...new Set(all)].sort(
      (a, b) => place(a) - place(b) || timesOf(b) - timesOf(a) || (a < b ? -1 : 1),
    )
    return { filled: count, options: ids.map(id => [id, timesOf(id)]) }
  }
  const withExtremes = ['number', 'date', 'period', 'created', 'updated'].includes(kind)
  if (!withExtremes || count === 0) return { filled: count }
  const flat = (filled as readonly (number | readonly number[])[]).flat()
  const extremes = { filled: count, least: Math.min(...flat), greatest: Math.max(...flat) }
  if (kind !== 'number') return extremes
  const unit = 10 ** (settings as { readonly places: number }).places
  const sum = (filled as readonly number[]).reduce((all, held) => all + Math.round(held * unit), 0) / unit
  return { ...extremes, sum, mean: sum / count }
}

interface Naive {
  readonly asked: RowsAsked
  readonly seen: (
    row: RowRead,
    id: string,
  ) => { held: unknown; by: string | undefined; form: ColumnForm } | undefined
}

function naive({ columns, unknown }: Pick<RowsAsked, 'columns' | 'unknown'>): Naive['seen'] {
  return (row, id) => {
    if (id === nameColumn) return { held: row.name, by: undefined, form: { id, kind: 'text', settings: {} } }
    const form = columns.find(each => each.id === id)
    if (form === undefined) return undefined
    if (form.kind === 'serial number') return { held: row.serial, by: undefined, form }
    if (form.kind === 'created') return { held: row.madeAt, by: row.maker, form }
    if (form.kind === 'updated') {
      let [at, by] = [row.madeAt, row.maker]
      for (const each of columns) {
        const cell = row.cells[each.id]
        if (cell !== undefined && cell[1] > at) [at, by] = [cell[1], cell[2]]
      }
      return { held: at, by, form }
    }
    const held = heldOf(form, row.cells[id]?.[0] ?? null)
    if (kindOf(form).form !== 'list') return { held, by: undefined, form }
    const list = held as readonly string[]
    const shown =
      form.kind === 'person'
        ? [...new Set(list.map(each => (unknown.has(each) ? somebody : each)))]
        : list.filter(each => !unknown.has(each))
    return { held: shown, by: undefined, form }
  }
}

function fits({ asked, seen }: Naive, row: RowRead, { join, of }: Conditions): boolean | undefined {
  const results = of.flatMap((each): boolean[] => {
    if (isNested(each)) {
      const result = fits({ asked, seen }, row, each)
      return result === undefined ? [] : [result]
    }
    if (each.column === sectionColumn)
      return [each.given.includes(row.section ?? '') === (each.word === 'is')]
    const cell = seen(row, each.column)
    if (cell === undefined) return []
    const filter = kindOf(cell.form).filters.find(({ word }) => word === each.word)
    return filter === undefined
      ? []
      : [filter.test(each.given, cell.form.settings, asked.asking)(cell.held as never, cell.by)]
  })
  if (results.length === 0) return undefined
  return join === 'all' ? results.every(Boolean) : results.some(Boolean)
}

function compare({ asked, seen }: Naive, a: RowRead, b: RowRead): number {
  const key = (row: RowRead, column: string) => {
    const cell = seen(row, column)
    if (cell === undefined) return undefined
    // A box that is not ticked says no.
    if (isNothing(cell.held as never) && cell.form.kind !== 'checkbox') return undefined
    return kindOf(cell.form).orderOf(cell.held as never, cell.form.settings, asked.nameOf)
  }
  for (const { column, isDown } of asked.view.sort) {
    const [x, y] = [key(a, column), key(b, column)]
    if (x === y) continue
    if (x === undefined) return 1
    if (y === undefined) return -1
    return x < y === isDown ? 1 : -1
  }
  return sections.indexOf(a.section ?? '') - sections.indexOf(b.section ?? '') || a.order - b.order
}

test('rows are those that fit, in their order, with what one may see of them', () => {
  fc.assert(
    fc.property(anyAsked, ({ board: { columns, steps }, asked: plain, hidden, unknown }) => {
      const asked = {
        ...plain,
        hidden: new Set(hidden),
        unknown: new Set(unknown),
        view: { ...plain.view, group: null },
      }
      let board = emptyBoard(columns)
      for (const step of steps) {
        board = withRows(board, step)
        // Asked in between too: what was worked out before a change is not taken for what holds after it.
        totalsFor(board, asked, foundRows(board, asked, 'one').slots)
      }
      const of: Naive = { asked, seen: naive(asked) }
      const all = rowsAfter(steps).filter(row => row.isGone !== true && !hidden.includes(row.id))
      const expected = all
        .filter(row => fits(of, row, asked.view.where) ?? true)
        .sort((a, b) => compare(of, a, b))
      const found = foundRows(board, asked, 'one')
      const shown = shownRows(board, asked, found.slots)
      expect(shown.map(row => row.id)).toEqual(expected.map(row => row.id))
      expect(found.all).toBe(all.length)
      for (const [index, row] of expected.entries()) {
        const cells = Object.fromEntries(
          asked.columns.flatMap(({ id }) => {
            const cell = of.seen(row, id)
            const value =
              cell === undefined ? null : kindOf(cell.form).stored(cell.held as never, cell.form.settings)
            return value === null ? [] : [[id, value]]
          }),
        )
        expect(shown[index]).toMatchObject({ name: row.name, section: row.section, order: row.order })
        expect(shown[index]?.cells).toEqual(cells)
      }
      const totals = totalsFor(board, asked, found.slots)
      for (const form of asked.columns) {
        const cells = expected.map(row => of.seen(row, form.id)?.held as Held)
        expect(totals[form.id]).toEqual(totalOf(form, cells))
      }
    }),
    { numRuns: 300 },
  )
})

test('groups hold the same rows, each once, those of one group together and in their order', () => {
  fc.assert(
    fc.property(anyAsked, ({ board: { columns, steps }, asked: plain, unknown }) => {
      const asked = { ...plain, unknown: new Set(unknown) }
      const board = steps.reduce(withRows, emptyBoard(columns))
      const flat = [...rowsFor(board, { ...asked, view: { ...asked.view, group: null } }).slots]
      const { slots, groups } = rowsFor(board, asked)
      expect([...slots].sort()).toEqual(flat.toSorted())
      expect(new Set(groups.map(each => each.key)).size).toBe(groups.length)
      let from = 0
      for (const { count } of groups) {
        const rows = [...slots.subarray(from, from + count)]
        expect(rows.map(slot => flat.indexOf(slot))).toEqual(
          rows.map(slot => flat.indexOf(slot)).toSorted((a, b) => a - b),
        )
        from += count
      }
      const seen = naive(asked)
      const read = rowsAfter(steps)
      const { group } = asked.view
      if (group === null) return
      from = 0
      for (const { key, count } of groups) {
        for (const slot of slots.subarray(from, from + count)) {
          const row = read.find(each => each.id === board.ids[slot]) as RowRead
          const cell = seen(row, group)
          const { groupOf } = cell === undefined ? {} : kindOf(cell.form)
          if (group === sectionColumn)
            expect(sections.includes(row.section ?? '') ? row.section : '').toBe(key)
          else
            expect(
              cell === undefined || groupOf === undefined
                ? ''
                : groupOf(cell.held as never, cell.form.settings),
            ).toBe(key)
        }
        from += count
      }
    }),
    { numRuns: 200 },
  )
})

test('a column that one does not see decides nothing, and one is told that it was left out', () => {
  fc.assert(
    fc.property(anyAsked, ({ board: { columns, steps }, asked }) => {
      const blind = { ...asked, columns: [], view: { ...asked.view, group: null } }
      const board = steps.reduce(withRows, emptyBoard(columns))
      // The same board in which the columns were never written.
      const bare = steps
        .map(step => ({ ...step, rows: step.rows.map(row => ({ ...row, cells: {} })) }))
        .reduce(withRows, emptyBoard(columns))
      const of = (data: typeof board) => {
        const { slots, isPartial } = rowsFor(data, blind)
        return [shownRows(data, blind, slots), isPartial]
      }
      expect(of(board)).toEqual(of(bare))
      const named = [nameColumn, sectionColumn]
      const used = [
        ...asked.view.sort.map(each => each.column),
        ...asked.view.where.of.flatMap(each => (isNested(each) ? each.of : [each])).map(each => each.column),
      ]
      expect(rowsFor(board, blind).isPartial).toBe(used.some(each => !named.includes(each)))
    }),
  )
})

test('one more condition holds whatever the others say, and still stands in an address', () => {
  fc.assert(
    fc.property(anyAsked, fc.constantFrom('s1', 's2'), ({ board: { columns, steps }, asked }, section) => {
      const board = steps.reduce(withRows, emptyBoard(columns))
      const slots = (where: Conditions) =>
        [...rowsFor(board, { ...asked, columns, view: { where, sort: [], group: null } }).slots].sort(
          (a, b) => a - b,
        )
      const seen = new Set<string>([sectionColumn, nameColumn, ...columns.map(each => each.id)])
      // What is by no column at all says nothing, in either form.
      fc.pre(everyCondition(asked.view.where).every(each => seen.has(each.column)))
      const more: Condition = { column: sectionColumn, word: 'is', given: [section] }
      const both = withAlso(asked.view.where, more)
      const own = new Set(slots(asked.view.where))
      expect(slots(both)).toEqual(slots({ join: 'all', of: [more] }).filter(slot => own.has(slot)))
      const parameters = viewParameters({ ...plainView, where: both })
      expect(viewFrom(name => parameters[name])?.where).toEqual(both)
    }),
  )
})

test('a view stands in an address, whatever is in it', () => {
  fc.assert(
    fc.property(
      anyBoard.chain(({ columns }) => anyView([...columns])),
      fc.string({ unit: 'binary', maxLength: 30 }),
      (view, text) => {
        const of = [
          ...view.where.of,
          { column: 'c1', word: 'contains', given: [text.replaceAll(/[\ud800-\udfff]/gu, ''), '~,;()'] },
        ]
        const whole = { ...view, where: { ...view.where, of } }
        const parameters = viewParameters(whole)
        const search = new URLSearchParams(new URLSearchParams(parameters).toString())
        expect(viewFrom(name => search.get(name))).toEqual(whole)
      },
    ),
  )
})

test('an address that says nonsense is no view, or one', () => {
  fc.assert(
    fc.property(
      fc.record(
        { as: fc.string(), where: fc.string(), sort: fc.string(), columns: fc.string(), group: fc.string() },
        { requiredKeys: [] },
      ),
      parts => {
        const read = viewFrom(name => (parts as Record<string, string>)[name])
        if (read !== undefined) expect(viewFrom(name => viewParameters(read)[name])).toEqual(read)
      },
    ),
    { numRuns: 1000 },
  )
  expect(viewFrom(name => (name === 'where' ? 'x' : null))).toBeUndefined()
  expect(viewFrom(name => (name === 'sort' ? Array(6).fill('a').join(',') : null))).toBeUndefined()
})
