import { CsvError, parse } from 'csv-parse/browser/esm/sync'
import { mostBytes } from './limits.ts'

/** A table as a spreadsheet wrote it: its first row as heads, then rows of cells. */
export interface Table {
  readonly heads: readonly string[]
  readonly rows: readonly (readonly string[])[]
  /** How it was read, as told to whoever brought it. */
  readonly encoding: string
  readonly delimiter: string
  /** In which others it could be read, each with what a line of it would say: none where only one makes sense. */
  readonly readings: readonly Reading[]
}

export interface Reading {
  readonly encoding: string
  readonly sample: string
}

/** Why a file is no table, in words. */
export class NoTable extends Error {}

/** Reads bytes as spreadsheets write them: whichever delimiter, encoding, line end. Throws `NoTable` on anything else. */
export function readTable(bytes: Uint8Array, mostRows: number, chosen?: string): Table {
  refuseOthers(bytes)
  const { text, encoding } = chosen === undefined ? decoded(bytes) : decodedAs(bytes, chosen)
  if (text.includes('\0')) throw new NoTable('This file is not a text file. Save the table as CSV.')
  const hint = /^sep=(.)\r?\n/.exec(text)
  const body = hint === null ? text : text.slice(hint[0].length)
  const delimiter = hint?.[1] ?? delimiterOf(body)
  const [heads = [], ...rows] = allRecords(body, delimiter)
  if (heads.length === 0) throw new NoTable('This file is empty.')
  if (rows.length === 0) throw new NoTable('This file has only one row: the column headings.')
  if (rows.length > mostRows)
    throw new NoTable(`This file has ${rows.length} rows. Import at most ${mostRows} at once.`)
  const width = Math.max(heads.length, ...rows.map(row => row.length))
  const named = Array.from({ length: width }, (_, index) => (heads[index] ?? '').trim())
  return { heads: named, rows, encoding, delimiter, readings: readingsOf(bytes, encoding) }
}

/** What begins like these is known not to be text. */
const others: readonly (readonly [begins: readonly number[], instead: string])[] = [
  [
    [0x50, 0x4b],
    'This is a workbook or a ZIP file. Save the table as CSV in your spreadsheet program, then import that file.',
  ],
  [[0xd0, 0xcf, 0x11, 0xe0], 'This is a workbook. Save the table as CSV in your spreadsheet program.'],
  [[0x89, 0x50, 0x4e, 0x47], 'This is a picture, not a table.'],
  [[0xff, 0xd8, 0xff], 'This is a picture, not a table.'],
  [[0x47, 0x49, 0x46], 'This is a picture, not a table.'],
  [[0x25, 0x50, 0x44, 0x46], 'This is a PDF, not a table.'],
  [[0x1f, 0x8b], 'This file is compressed. Unpack it first.'],
]

function refuseOthers(bytes: Uint8Array): void {
  if (bytes.length > mostBytes)
    throw new NoTable('This file is larger than 20 MB. Import it in several parts.')
  for (const [begins, instead] of others)
    if (begins.every((byte, index) => bytes[index] === byte)) throw new NoTable(instead)
}

/** By its byte-order mark; without one UTF-8 if it is that throughout, else what spreadsheets wrote before it. */
function decoded(bytes: Uint8Array): { readonly text: string; readonly encoding: string } {
  const as = (encoding: string, isFatal = false) => decodedAs(bytes, encoding, isFatal)
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return as('utf-16le')
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return as('utf-16be')
  const sample = bytes.subarray(0, 400)
  const zeros = sample.filter(byte => byte === 0).length
  if (zeros > sample.length / 4) return as(sample[1] === 0 ? 'utf-16le' : 'utf-16be')
  try {
    return as('utf-8', true)
  } catch {
    return as('windows-1252')
  }
}

const decodedAs = (bytes: Uint8Array, encoding: string, isFatal = false) => ({
  text: new TextDecoder(encoding, { fatal: isFatal }).decode(bytes),
  encoding: encoding.toUpperCase(),
})

/** What spreadsheets in different countries write where it is not UTF-8, after those that can be told apart. */
const encodings = [
  ...[
    'utf-8',
    'windows-1252',
    'windows-1250',
    'windows-1251',
    'windows-1253',
    'windows-1254',
    'windows-1257',
  ],
  ...['macintosh', 'utf-16le', 'utf-16be'],
]
const sampleLength = 40

/** Told by what stands around the first byte that they read differently. */
function readingsOf(bytes: Uint8Array, now: string): Reading[] {
  const first = bytes.findIndex(byte => byte > 127)
  if (first === -1 && !now.startsWith('UTF-16')) return []
  // An even start: two bytes make a sign in some.
  const from = Math.max(0, (first - sampleLength / 2) & ~1)
  const part = bytes.subarray(from, from + sampleLength * (now.startsWith('UTF-16') ? 2 : 1))
  const seen = new Set<string>()
  return encodings.flatMap(each => {
    const { text, encoding } = decodedAs(part, each)
    const sample = text.replaceAll(/[\s\p{C}]+/gu, ' ').trim()
    if (encoding !== now && seen.has(sample)) return []
    seen.add(sample)
    return [{ encoding, sample }]
  })
}

const delimiters = [';', ',', '\t', '|'] as const

/** The one that cuts the first records into most columns, as evenly as can be. */
function delimiterOf(text: string): string {
  const scored = delimiters.map(delimiter => {
    const widths = widthsBy(text, delimiter)
    const [width = 1] = widths
    const even = widths.filter(each => each === width).length / Math.max(widths.length, 1)
    return { delimiter, score: width > 1 ? even * 100 + width : 0 }
  })
  const [best] = scored.sort((a, b) => b.score - a.score)
  return best === undefined || best.score === 0 ? ',' : best.delimiter
}

/** None where the delimiter makes no table at all: quotes it leaves open, above all. */
function widthsBy(text: string, delimiter: string): number[] {
  try {
    return records(text, delimiter, 20).map(row => row.length)
  } catch {
    return []
  }
}

function allRecords(text: string, delimiter: string): string[][] {
  try {
    return records(text, delimiter)
  } catch (error) {
    if (!(error instanceof CsvError)) throw error
    const line = typeof error.lines === 'number' ? ` near line ${error.lines}` : ''
    throw new NoTable(
      `A quoted cell${line} has no end. Correct it in your spreadsheet program and save the file again.`,
    )
  }
}

const records = (text: string, delimiter: string, to: number | null = null): string[][] =>
  parse(text, {
    delimiter,
    to,
    bom: true,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: true,
    skip_records_with_empty_values: true,
  })
