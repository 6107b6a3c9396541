import { open } from 'node:fs/promises'
import { parse } from 'csv-parse/sync'

/** So much of the start is shown. */
const mostBytes = 512 * 1024
const mostRows = 1000
const mostColumns = 60
const mostInCell = 500

/** The start of a text, and whether that is all of it. */
export async function textIn(path) {
  const file = await open(path)
  try {
    const { size } = await file.stat()
    const { buffer, bytesRead } = await file.read(Buffer.alloc(mostBytes), 0, mostBytes, 0)
    const isWhole = bytesRead === size
    return { text: decoded(buffer.subarray(0, bytesRead), isWhole), isWhole }
  } finally {
    await file.close()
  }
}

/** What is cut in the middle of a sign is left out. What is no UTF is taken as older programs wrote it. */
function decoded(bytes, isWhole) {
  const utf16 = { '255 254': 'utf-16le', '254 255': 'utf-16be' }[bytes.subarray(0, 2).join(' ')]
  for (const encoding of utf16 === undefined ? ['utf-8'] : [utf16])
    try {
      return new TextDecoder(encoding, { fatal: true }).decode(bytes, { stream: !isWhole })
    } catch {
      // The next one.
    }
  return new TextDecoder('windows-1252').decode(bytes)
}

/** The first rows of a table. Lines that are not whole, or longer than others, are rows like any other. */
export async function rowsIn(path, separator) {
  const { text, isWhole } = await textIn(path)
  const delimiter = separator === ',' ? separatorOf(text) : separator
  const rows = parsed(text, delimiter)
  return {
    rows: rows
      .slice(0, mostRows)
      .map(row => row.slice(0, mostColumns).map(cell => cell.slice(0, mostInCell))),
    isWhole: isWhole && rows.length <= mostRows,
  }
}

/** Quotes that are never closed are signs like any other. */
function parsed(text, delimiter) {
  const options = { delimiter, relax_quotes: true, relax_column_count: true, to: mostRows + 1 }
  try {
    return parse(text, options)
  } catch {
    return parse(text, { ...options, quote: false })
  }
}

/** Where a comma is used in numbers, cells stand between semicolons. */
function separatorOf(text) {
  const [line = ''] = text.split('\n', 1)
  const count = sign => line.split(sign).length
  return count(';') > count(',') ? ';' : ','
}
