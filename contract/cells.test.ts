import fc from 'fast-check'
import { expect, test } from 'vitest'
import { asWritten, harmless } from './cells.ts'

const anyText = fc.string({
  unit: fc.constantFrom('=', '+', '-', '@', "'", '\t', '\r', '\n', '＝', 'a', '1'),
})

test('no line of a cell begins like a formula, and what went out comes back as it was', () => {
  fc.assert(
    fc.property(anyText, text => {
      const cell = harmless(text)
      for (const line of cell.split(/\r\n|\n|\r/)) expect(line).not.toMatch(/^[=+\-@\t＝＋－＠]/)
      expect(asWritten(cell)).toBe(text)
    }),
  )
})

test.each([
  ['=1+1', "'=1+1"],
  ['a\n=1+1', "a\n'=1+1"],
  ['plain - text', 'plain - text'],
  ["'=1", "''=1"],
])('%j goes out as %j', (text, cell) => {
  expect(harmless(text)).toBe(cell)
})
