import { stringify } from 'csv-stringify/sync'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { mostPeople } from './limits.ts'
import { readTable as readAtMost } from './table.ts'

const readTable = (bytes: Uint8Array, encoding?: string) => readAtMost(bytes, mostPeople, encoding)

const bytesOf = (text: string) => new TextEncoder().encode(text)
const cells = (bytes: Uint8Array) => {
  const { heads, rows } = readTable(bytes)
  return [heads, ...rows]
}
const expected = [
  ['Mail', 'Name', 'Note'],
  ['ada@a.example', 'Lowe, Ada', 'first\nsecond'],
  ['bjørn@a.example', 'Bjørn "Bo" Ås', ''],
]
const written = (delimiter: string, lineEnd: string) =>
  [
    ['Mail', 'Name', 'Note'].join(delimiter),
    ['ada@a.example', '"Lowe, Ada"', '"first\nsecond"'].join(delimiter),
    ['bjørn@a.example', '"Bjørn ""Bo"" Ås"', ''].join(delimiter),
    '',
  ].join(lineEnd)

const utf16 = (text: string, isLittle: boolean, hasMark: boolean) => {
  const units = Array.from((hasMark ? '\ufeff' : '') + text, sign => sign.charCodeAt(0))
  return new Uint8Array(units.flatMap(unit => (isLittle ? [unit & 255, unit >> 8] : [unit >> 8, unit & 255])))
}

test.each([
  ['commas', bytesOf(written(',', '\n'))],
  ['semicolons and Windows lines', bytesOf(written(';', '\r\n'))],
  ['tabs', bytesOf(written('\t', '\n'))],
  ['a byte-order mark', bytesOf(`\ufeff${written(';', '\r\n')}`)],
  ['a line that names its delimiter', bytesOf(`sep=;\r\n${written(';', '\r\n')}`)],
  ['UTF-16, little end first', utf16(written('\t', '\r\n'), true, true)],
  ['UTF-16, big end first', utf16(written(';', '\r\n'), false, true)],
  ['UTF-16 without a mark', utf16(written(';', '\r\n'), true, false)],
  ['Windows-1252', Uint8Array.from(written(';', '\r\n'), sign => sign.charCodeAt(0))],
])('a table with %s is read', (_how, bytes) => {
  expect(cells(bytes)).toEqual(expected)
})

test('rows that are too short or too long are read as far as they go', () => {
  expect(cells(bytesOf('a,b\n1\n1,2,3\n\n,,\n'))).toEqual([['a', 'b', ''], ['1'], ['1', '2', '3']])
})

test.each([
  ['a picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10), /picture/],
  ['a workbook', bytesOf('PK\x03\x04…'), /Save the table as CSV/],
  ['nothing', new Uint8Array(), /empty/],
  ['heads alone', bytesOf('Mail,Name\n'), /only one row/],
  ['too much', new Uint8Array(20_000_001), /larger than 20 MB/],
  ['too many rows', bytesOf(`Mail\n${'x\n'.repeat(10_001)}`), /at most 10000/],
  ['bytes', Uint8Array.of(1, 2, 0, 3, 4, 5, 6, 7, 8, 9), /not a text file/],
])('%s is refused kindly', (_what, bytes, why) => {
  expect(() => readTable(bytes)).toThrow(why)
})

test('a quoted cell of many lines does not hide the delimiter; one that never ends is told', () => {
  const long = `Mail;Name;Note\na@a.example;Ada;"${'a line,\n'.repeat(4000)}"\n`
  expect(readTable(bytesOf(long)).heads).toEqual(['Mail', 'Name', 'Note'])
  expect(() => readTable(bytesOf('Mail;Name\n"a@a.example;Ada\n'))).toThrow(/quoted cell near line 2/)
})

/** Whatever a spreadsheet holds and however it writes it: what is read is what was there. */
const cell = fc.oneof(
  fc.string({ maxLength: 12 }).map(text => text.replace(/\0/g, '')),
  fc.constantFrom('a;b', 'a,b', 'say "no"', 'two\nlines', 'tab\tin it', 'ß', 'Ångström', '  ', "'=1+1"),
)
const plainHead = fc.constantFrom('Mail', 'Name', 'Title', 'Team', 'Note')
const anyTable = fc
  .record({
    heads: fc.uniqueArray(plainHead, { minLength: 2, maxLength: 5 }),
    rows: fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { minLength: 1, maxLength: 12 }),
  })
  .map(({ heads, rows }) => ({ heads, rows: rows.map(row => row.slice(0, heads.length)) }))

const encodings: Readonly<Record<string, (text: string) => Uint8Array>> = {
  'UTF-8': bytesOf,
  'UTF-8 with a mark': text => bytesOf(`\ufeff${text}`),
  'UTF-16LE': text => utf16(text, true, true),
  'UTF-16BE': text => utf16(text, false, true),
}

test.each(Object.keys(encodings))('any table written as %s is read as it was', encoding => {
  fc.assert(
    fc.property(
      anyTable,
      fc.constantFrom(';', ',', '\t'),
      fc.constantFrom('unix', 'windows'),
      ({ heads, rows }, delimiter, lines) => {
        // A row without anything in it is no row.
        const kept = rows.filter(row => row.some(each => each.trim() !== ''))
        fc.pre(kept.length > 0)
        const text = stringify([heads, ...rows], {
          delimiter,
          record_delimiter: lines as 'unix',
          quoted: true,
        })
        const read = readTable(encodings[encoding]!(text))
        expect([read.heads, read.rows]).toEqual([heads, kept])
      },
    ),
    { numRuns: 150 },
  )
})

test('signs of another country are told by what each encoding would read, and read as it was chosen', () => {
  const bytes = (...parts: (string | number)[]) =>
    Uint8Array.from(
      parts.flatMap(part =>
        typeof part === 'string' ? Array.from(part, sign => sign.charCodeAt(0)) : [part],
      ),
    )
  // “Łucja” as a spreadsheet in Poland writes it.
  const file = bytes('Mail,Name\na@x.example,', 0xa3, 'ucja')
  const { encoding, rows, readings } = readTable(file)
  expect([encoding, rows[0]?.[1]]).toEqual(['WINDOWS-1252', '£ucja'])
  expect(readings.find(each => each.encoding === 'WINDOWS-1250')?.sample).toContain('Łucja')
  expect(readTable(file, 'windows-1250').rows[0]?.[1]).toBe('Łucja')
  // Where all encodings read the same there is nothing to choose.
  expect(readTable(bytes('Mail,Name\na@x.example,Lucja')).readings).toEqual([])
})
