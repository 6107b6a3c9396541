/** Rows go to the server in parts: each is judged, or written, at once. */

const rowsAtMost = 500
const cellsAtMost = 4000
const signsAtMost = 400_000

/** Some rows of a table, by their places; each part takes as many as go together. */
export function* partsOf(
  places: readonly number[],
  rowAt: (place: number) => readonly string[],
): Generator<readonly number[]> {
  let part: number[] = []
  let [cells, signs] = [0, 0]
  for (const place of places) {
    const row = rowAt(place)
    const length = row.reduce((sum, cell) => sum + cell.length + 4, 0)
    const isFull =
      part.length >= rowsAtMost || cells + row.length > cellsAtMost || signs + length > signsAtMost
    if (isFull && part.length > 0) {
      yield part
      part = []
      ;[cells, signs] = [0, 0]
    }
    part.push(place)
    cells += row.length
    signs += length
  }
  if (part.length > 0) yield part
}
