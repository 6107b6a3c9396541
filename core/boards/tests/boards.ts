import fc from 'fast-check'
import type { RowRead } from '../data.ts'
import { type CellValue, type ColumnForm, kindNames } from '../kind.ts'
import { anyCell, anySettings } from './cells.ts'

/** Random boards: a column of every kind, and rows that come, change and go. */

export const sections = ['s1', 's2', 's3']
const makers = ['id-0', 'id-1', 'id-2']

export interface AnyBoard {
  readonly columns: readonly ColumnForm[]
  /** One after another. */
  readonly steps: readonly { readonly rows: readonly RowRead[]; readonly gone: readonly string[] }[]
}

const anyColumns: fc.Arbitrary<readonly ColumnForm[]> = fc
  .tuple(...kindNames.map(kind => anySettings(kind)))
  .map(all =>
    all.map((settings, index) => ({
      id: `c${index}`,
      kind: kindNames[index] as ColumnForm['kind'],
      settings,
    })),
  )

const rowIds = Array.from({ length: 12 }, (_, index) => `r${index}`)

function anyRow(columns: readonly ColumnForm[]): fc.Arbitrary<RowRead> {
  const cells = fc.tuple(
    ...columns.map(({ kind, settings }) =>
      fc.record({
        value: anyCell(kind, settings),
        at: fc.integer({ min: 1, max: 50 }),
        by: fc.constantFrom(...makers),
      }),
    ),
  )
  return fc.record({
    id: fc.constantFrom(...rowIds),
    name: fc.constantFrom('Gate', 'gate 10', 'Gate 9', 'Øre', 'Track'),
    order: fc.integer({ min: 0, max: 4 }),
    section: fc.option(fc.constantFrom(...sections, 'gone'), { nil: null }),
    serial: fc.integer({ min: 1, max: 99 }),
    madeAt: fc.integer({ min: 1, max: 40 }),
    maker: fc.constantFrom(...makers),
    cells: cells.map(all =>
      Object.fromEntries(
        all.flatMap(({ value, at, by }, index) =>
          value === null && at > 25 ? [] : [[`c${index}`, [value, at, by] as [CellValue, number, string]]],
        ),
      ),
    ),
  })
}

export const anyBoard: fc.Arbitrary<AnyBoard> = anyColumns.chain(columns =>
  fc.record({
    columns: fc.constant(columns),
    steps: fc.array(
      fc.record({
        rows: fc.uniqueArray(anyRow(columns), { maxLength: 10, selector: row => row.id }),
        gone: fc.subarray(rowIds, { maxLength: 2 }),
      }),
      { minLength: 1, maxLength: 4 },
    ),
  }),
)
