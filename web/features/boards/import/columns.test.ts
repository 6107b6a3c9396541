import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { BoardInfo, ColumnView } from '#contract/views/boards.ts'
import type { KindName } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { usage } from '#core/boards/tests/cells.ts'
import {
  keysAmong,
  type Mapped,
  mappedFor,
  repeatedRows,
  requestFor,
  sentOf,
  targetsOf,
  withKind,
  withTarget,
} from './columns.ts'

const column = (id: string, name: string, kind: KindName): ColumnView => ({
  id,
  name,
  kind,
  settings: kindOf({ kind }).settings.plain as never,
  isMine: true,
  order: 0,
  mine: 'edit',
  isRestricted: false,
  viewers: null,
  editors: null,
})

const info = {
  columns: [
    column('no', 'No.', 'serial number'),
    column('back', 'Back on', 'date'),
    column('fee', 'Fee', 'number'),
    column('papers', 'Papers', 'file'),
    column('made', 'Created', 'created'),
  ],
  sections: [{ id: 's1', name: 'Optics', order: 1 }],
} as unknown as BoardInfo

const mapped = (heads: readonly string[], rows: readonly (readonly string[])[], mayArrange = true) =>
  mappedFor({ table: { heads, rows } as never, info, usage, mayArrange })

test('columns are found by their names, whatever their letters; what is not known becomes a new one of its kind', () => {
  const { columns, key } = mapped(
    ['name', 'BACK ON', 'Fee', 'Section', 'Papers', 'Weight', 'Empty', 'fee'],
    [
      ['Tripod', '24.12.2026', '1.250,50', 'Optics', 'a.pdf', '2,5', '', '3'],
      ['Scope', '25.12.2026', '12,00', 'Optics', 'b.pdf', '0,25', '', '4'],
    ],
  )
  expect(columns.map(({ to, column: at, as }) => (to === 'new' ? as : to === 'column' ? at : '–'))).toEqual([
    'name',
    'back',
    'fee',
    'section',
    // Files are not imported, and a column is taken from one of the table.
    '–',
    'number',
    '–',
    '–',
  ])
  expect(columns[2]).toMatchObject({ decimal: ',' })
  expect(columns[1]).toMatchObject({ isDayFirst: true })
  expect(key).toBe(0)
})

test('who may not arrange the board makes no columns; the first one of texts is the name', () => {
  const { columns, key } = mapped(
    ['What', 'Weight'],
    [
      ['Tripod', '2'],
      ['Tripod', '3'],
    ],
    false,
  )
  expect(columns.map(({ to, column: at }) => [to, at])).toEqual([
    ['column', 'name'],
    ['nothing', ''],
  ])
  // Two rows have the same name: it tells no row apart.
  expect(key).toBeNull()
})

test('rows are told apart by the number of the board where the table has it, which goes to the server only then', () => {
  const found = mapped(['No.', 'Name', 'Fee'], [['01', 'Tripod', '4']])
  expect([found.key, sentOf(found, info), requestFor(found, info).key]).toEqual([0, [0, 1, 2], 0])
  const byName = { ...found, key: 1 }
  expect([sentOf(byName, info), requestFor(byName, info).key]).toEqual([[1, 2], 0])
  expect(keysAmong(found, info)).toEqual([0, 1, 2])
})

test('however they are chosen, no column of the board is filled from two of the table', () => {
  const targets = [
    ...targetsOf(info).map(({ id }) => ({ to: 'column' as const, column: id })),
    { to: 'column' as const, column: 'name' },
    { to: 'nothing' as const, column: '' },
  ]
  const anyChoice = fc.array(
    fc.tuple(
      fc.nat({ max: 3 }),
      fc.oneof(
        fc.constantFrom(...targets),
        fc.constantFrom<KindName>('text', 'number', 'date', 'tags', 'state'),
      ),
    ),
  )
  fc.assert(
    fc.property(anyChoice, choices => {
      const texts = [['a', '1', '2026-01-02', 'x']]
      const last = choices.reduce<Mapped>(
        (now, [index, choice]) =>
          typeof choice === 'string'
            ? withKind(now, { index, as: choice, texts: texts.map(row => row[index] ?? '') }, usage)
            : withTarget(now, index, choice),
        mapped(['Name', 'Fee', 'Back on', 'Other'], texts),
      )
      const taken = last.columns.flatMap(({ to, column: at }) => (to === 'column' ? [at] : []))
      expect(new Set(taken).size).toBe(taken.length)
      for (const each of last.columns)
        if (each.to === 'new') expect(kindOf({ kind: each.as }).settings.wrong(each.settings)).toBeUndefined()
      const { key, columns } = requestFor(last, info)
      if (key !== null) expect(columns[key]?.column).not.toBeNull()
    }),
  )
})

test('rows whose key came before are told, whatever its letters; those without one are not', () => {
  const rows = [['Tripod'], ['tripod '], [''], [''], ['Scope'], ['TRIPOD']]
  const of = mapped(['Name'], rows)
  expect([...repeatedRows({ rows }, { ...of, key: 0 })]).toEqual([1, 5])
  expect([...repeatedRows({ rows }, { ...of, key: null })]).toEqual([])
})
