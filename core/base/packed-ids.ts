import { hashOf } from './table.ts'

/**
 * Ids that never change, numbered from 0 on, as bytes: a million of them as strings in a map would take more
 * memory than all that is known of them, and longer to be put there than all else. Ids are ASCII.
 */
export interface PackedIds {
  readonly count: number
  /** Each id and a line feed. */
  readonly lines: Uint8Array
  /** How long each id is; 0 if they differ. */
  readonly width: number
  /** Where they differ, where each line begins; one more than there are ids. */
  readonly starts: Int32Array
  /** Open addressing by hash, two whole numbers each: number + 1, 0 where there is none; and the whole hash. */
  readonly slots: Int32Array
  /** Hashes that two or more ids have. */
  readonly doubles: ReadonlySet<number>
}

// Imported constants are looked up at each use, and there are millions.
const lineFeed = 10
/** Of how many units a hash is made: the last ones, in which ids differ most. */
const hashed = 12

/** Texts in ASCII, each as a line. */
export function linesOf(texts: readonly string[]): Uint8Array {
  const lines = new Uint8Array(texts.reduce((sum, text) => sum + text.length + 1, 0))
  let start = 0
  for (const text of texts) {
    for (let i = 0; i < text.length; i += 1) lines[start + i] = text.charCodeAt(i)
    lines[start + text.length] = lineFeed
    start += text.length + 1
  }
  return lines
}

/** So many lines, each with its line feed. */
export interface Lines {
  readonly lines: Uint8Array
  readonly count: number
}

/** One id in each line, each there once. Takes the lines as its own. */
export function packIds({ lines, count }: Lines): PackedIds {
  const width = widthOf({ lines, count })
  let size = 1
  while (size < 2 * count) size *= 2
  const starts = new Int32Array(width === 0 ? count + 1 : 0)
  const slots = new Int32Array(2 * size)
  const mask = size - 1
  const doubles = new Set<number>()
  let start = 0
  for (let number = 0; number < count; number += 1) {
    const end = width === 0 ? lines.indexOf(lineFeed, start) : start + width
    const hash = hashIn(lines, start, end)
    let slot = hash & mask
    for (; slots[2 * slot] !== 0; slot = (slot + 1) & mask)
      if (slots[2 * slot + 1] === hash) doubles.add(hash)
    slots[2 * slot] = number + 1
    slots[2 * slot + 1] = hash
    start = end + 1
    if (width === 0) starts[number + 1] = start
  }
  if (start !== lines.length) throw new Error(`${count} ids do not fill ${lines.length} bytes`)
  return { count, lines, width, starts, slots, doubles }
}

/** How long each line is; 0 if they differ. As many line feeds as there are lines, all in their places, leave no other. */
function widthOf({ lines, count }: Lines): number {
  const width = lines.indexOf(lineFeed)
  if (lines.length !== count * (width + 1)) return 0
  for (let end = width; end < lines.length; end += width + 1) if (lines[end] !== lineFeed) return 0
  return width
}

/** The hash of the end of a text: the same as `hashOf` of that. */
function hashIn(lines: Uint8Array, start: number, end: number): number {
  let hash = 0x811c9dc5 | 0
  for (let i = end - start > hashed ? end - hashed : start; i < end; i += 1)
    hash = Math.imul(hash ^ (lines[i] as number), 0x01000193)
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b)
  return hash ^ (hash >>> 13)
}

export const noIds: PackedIds = packIds({ lines: new Uint8Array(), count: 0 })

const startOf = ({ width, starts }: PackedIds, number: number): number =>
  width === 0 ? (starts[number] as number) : number * (width + 1)

export function packedNumberOf(packed: PackedIds, id: string): number | undefined {
  const { slots } = packed
  const mask = slots.length / 2 - 1
  const hash = hashOf(id.slice(-hashed))
  for (let slot = hash & mask; slots[2 * slot] !== 0; slot = (slot + 1) & mask) {
    const number = (slots[2 * slot] as number) - 1
    if (slots[2 * slot + 1] === hash && isAt(packed, number, id)) return number
  }
  return undefined
}

function isAt(packed: PackedIds, number: number, id: string): boolean {
  const start = startOf(packed, number)
  if (startOf(packed, number + 1) - 1 - start !== id.length) return false
  for (let i = 0; i < id.length; i += 1) if (packed.lines[start + i] !== id.charCodeAt(i)) return false
  return true
}

/**
 * The numbers of many references: lines of packed ids, or empty ones, which read as `otherwise`. No text is made;
 * an id is only compared where its hash does not tell which one it is.
 */
export function numbersOf(packed: PackedIds, { lines, count }: Lines, otherwise: number): Int32Array {
  const { slots, doubles, width } = packed
  const mask = slots.length / 2 - 1
  const numbers = new Int32Array(count).fill(otherwise)
  let start = 0
  for (let line = 0; line < count; line += 1) {
    if (lines[start] === lineFeed) {
      start += 1
      continue
    }
    const end = width === 0 ? lines.indexOf(lineFeed, start) : start + width
    const hash = hashIn(lines, start, end)
    let slot = hash & mask
    while (slots[2 * slot] !== 0 && slots[2 * slot + 1] !== hash) slot = (slot + 1) & mask
    numbers[line] = (slots[2 * slot] as number) - 1
    if (doubles.has(hash)) numbers[line] = packedNumberOf(packed, textIn(lines, start, end)) ?? otherwise
    start = end + 1
  }
  return numbers
}

export const packedIdOf = (packed: PackedIds, number: number): string =>
  textIn(packed.lines, startOf(packed, number), startOf(packed, number + 1) - 1)

const textIn = (lines: Uint8Array, from: number, to: number): string =>
  String.fromCharCode.apply(null, lines.subarray(from, to) as unknown as number[])
