import fc from 'fast-check'
import { expect, test } from 'vitest'
import { readTable, writtenTable } from './clipboard.ts'

const anyCell = fc.oneof(
  fc.string(),
  fc.constantFrom('', '"', 'a\tb', 'two\nlines', '"half', 'say "this"', '\r\n'),
)

test('what is copied is pasted again, cell by cell', () => {
  const anyTable = fc
    .integer({ min: 1, max: 4 })
    .chain(width =>
      fc.array(fc.array(anyCell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 5 }),
    )
  fc.assert(
    fc.property(anyTable, rows => {
      // One empty cell alone in the last row is what a line end behind the table looks like.
      fc.pre(!(rows.length > 1 && rows.at(-1)?.length === 1 && rows.at(-1)?.[0] === ''))
      expect(readTable(writtenTable(rows))).toEqual(rows)
    }),
  )
})

test.each([
  [
    'a\tb\r\nc\td\r\n',
    [
      ['a', 'b'],
      ['c', 'd'],
    ],
  ],
  ['one', [['one']]],
  ['\t', [['', '']]],
  ['6" pipe\t"x"', [['6" pipe', 'x']]],
  ['"open\tb', [['"open', 'b']]],
  ['"a ""b""\nc"\td', [['a "b"\nc', 'd']]],
])('%j', (text, rows) => {
  expect(readTable(text)).toEqual(rows)
})
