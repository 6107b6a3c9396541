import type { NumberRange } from '#core/base/collection.ts'

/** Records of a table as they lay in the file: each is made when it is first asked for, and the same ever after. */
export interface PackedRecords {
  readonly count: number
  /** By number, a line of JSON. */
  readonly lines: Buffer
}

export function recordsMade<Row>(
  { count, lines }: PackedRecords,
  make: (values: unknown[], number: number) => Row,
): RecordsMade<Row> {
  const starts = startsOf(lines, count)
  const made: (Row | undefined)[] = []
  made.length = count
  const read = (number: number) => {
    const line = lines.toString('utf8', starts[number], (starts[number + 1] as number) - 1)
    return make(JSON.parse(line) as unknown[], number)
  }
  return {
    at: number => (made[number] ??= read(number)),
    put: (number, row) => void (made[number] = row),
    linesIn: ({ first, behind }) => lines.toString('utf8', starts[first], starts[behind]),
  }
}

interface RecordsMade<Row> {
  readonly at: (number: number) => Row
  readonly put: (number: number, row: Row) => void
  /** As they are, unread. */
  readonly linesIn: (range: NumberRange) => string
}

/** Where each line begins; one more than there are lines. */
function startsOf(lines: Buffer, count: number): Int32Array {
  const starts = new Int32Array(count + 1)
  for (let line = 0, end = -1; line < count; line += 1) {
    end = lines.indexOf(lineFeed, end + 1)
    starts[line + 1] = end + 1
  }
  if (starts[count] !== lines.length) throw new Error(`${count} records do not fill ${lines.length} bytes`)
  return starts
}

const lineFeed = 10

/** For each key from 0 to below `count` the rows that have it, by number; a row with a key below 0 is left out. */
export function rowsByKey(keys: Int32Array, count: number): (key: number) => Int32Array {
  const starts = new Int32Array(count + 1)
  for (let at = 0; at < keys.length; at += 1) {
    const key = keys[at] as number
    if (key >= 0) starts[key + 1] = (starts[key + 1] as number) + 1
  }
  for (let key = 0; key < count; key += 1)
    starts[key + 1] = (starts[key + 1] as number) + (starts[key] as number)
  const all = new Int32Array(starts[count] as number)
  const filled = starts.slice()
  for (let at = 0; at < keys.length; at += 1) {
    const key = keys[at] as number
    if (key < 0) continue
    all[filled[key] as number] = at
    filled[key] = (filled[key] as number) + 1
  }
  return key => all.subarray(starts[key], starts[key + 1])
}
