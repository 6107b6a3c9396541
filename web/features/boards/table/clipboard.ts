/**
 * Cells as text between tabs and line ends, as spreadsheets exchange them: a text that holds either, or a quotation mark,
 * stands between quotation marks, and one in it is written twice.
 */
export const writtenTable = (rows: readonly (readonly string[])[]): string =>
  rows
    .map(row =>
      row.map(cell => (/[\t\n\r"]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join('\t'),
    )
    .join('\n')

export function readTable(text: string): string[][] {
  const rows: string[][] = [[]]
  let at = 0
  const put = (cell: string) => rows.at(-1)?.push(cell)
  while (at <= text.length) {
    const [cell, end] = text[at] === '"' ? quoted(text, at) : plain(text, at)
    put(cell)
    if (text[end] === '\t') at = end + 1
    else if (end >= text.length) break
    else {
      at = end + (text.startsWith('\r\n', end) ? 2 : 1)
      // A line end behind the last row begins no other.
      if (at >= text.length) break
      rows.push([])
    }
  }
  return rows
}

type Read = readonly [cell: string, end: number]

function plain(text: string, from: number): Read {
  let end = from
  while (end < text.length && text[end] !== '\t' && text[end] !== '\n' && text[end] !== '\r') end += 1
  return [text.slice(from, end), end]
}

/** What only begins with a quotation mark, and is not closed before the cell ends, is text. */
function quoted(text: string, from: number): Read {
  let cell = ''
  for (let at = from + 1; at < text.length; at += 1) {
    if (text[at] !== '"') cell += text.charAt(at)
    else if (text[at + 1] === '"') {
      cell += '"'
      at += 1
    } else return /^[\t\n\r]?$/.test(text[at + 1] ?? '') ? [cell, at + 1] : plain(text, from)
  }
  return plain(text, from)
}
