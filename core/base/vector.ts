/**
 * Whole numbers by address, in pages that are copied before they are written: whoever holds a vector keeps
 * it as it is while the next one is made, and the two share every page that did not change.
 *
 * What is made whole at once lies in shared memory, so that a worker reads it where it is; pages that changed
 * since are small enough to be sent. An address that was never written reads as `none`; one beyond the length
 * must not be read. Reading: two loads. A first write into a page: a copy of 16 KiB at most.
 */
export interface Vector {
  readonly length: number
  readonly pages: readonly Int32Array[]
}

/** A vector that is being made: no page of it that another vector shares is ever written. */
export interface Writing {
  length: number
  readonly pages: Int32Array[]
  readonly isOwn: boolean[]
}

export const none = -1

/** How many bits of an address say where in its page it lies. */
export const pageShift = 12
const shift = pageShift
/** How many addresses a page holds. */
const pageLength = 1 << shift
const mask = pageLength - 1
export const pageBytes = 4 * pageLength

// Every vector, finished or not, is made with these three fields in this order: so reading meets one shape only,
// which makes it several times as fast.
const shaped = (length: number, pages: Int32Array[], isOwn: boolean[]): Writing => ({ length, pages, isOwn })

export const emptyVector: Vector = shaped(0, [], [])

// The casts spare a check at each of millions of reads: an address below `length` has its page.
export const read = (vector: Vector, address: number): number =>
  (vector.pages[address >> shift] as Int32Array)[address & mask] as number

/** The page in which an address lies, and where in it: fields of one row lie in one page. */
export const pageAt = (vector: Vector, address: number): Int32Array =>
  vector.pages[address >> shift] as Int32Array
export const offsetIn = (address: number): number => address & mask

export function write(writing: Writing, address: number, value: number): void {
  const index = address >> shift
  const offset = address & mask
  if (writing.isOwn[index] !== true || offset >= (writing.pages[index] as Int32Array).length)
    own(writing, index, offset)
  ;(writing.pages[index] as Int32Array)[offset] = value
  if (address >= writing.length) writing.length = address + 1
}

/** Makes a page one's own that is long enough to hold an offset. */
function own(writing: Writing, index: number, offset: number): void {
  while (writing.pages.length < index) writing.pages.push(new Int32Array(pageLength).fill(none))
  const page = writing.pages[index] ?? noPage
  const copy = new Int32Array(Math.max(page.length, lengthFor(offset)))
  copy.set(page)
  copy.fill(none, page.length)
  writing.pages[index] = copy
  writing.isOwn[index] = true
}

const noPage = new Int32Array()

/** Short as long as little stands in it: small workspaces are made by the thousand. */
function lengthFor(offset: number): number {
  let length = 16
  while (length <= offset) length *= 2
  return length
}

export const writingOf = ({ length, pages }: Vector): Writing => shaped(length, [...pages], [])

/** So many numbers in one piece of memory, to be made whole at once; they read as `none`. */
export const createFull = (length: number): Int32Array =>
  new Int32Array(new SharedArrayBuffer(4 * Math.ceil(length / pageLength) * pageLength)).fill(none)

/** The first numbers of a whole as a vector, which goes on being written. */
export function writingIn(whole: Int32Array, length: number): Writing {
  const pages = Array.from({ length: whole.length / pageLength }, (_, index) =>
    whole.subarray(index * pageLength, (index + 1) * pageLength),
  )
  return shaped(
    length,
    pages,
    pages.map(() => true),
  )
}

/** What was written, from now on unchanged. The writing must not be used again. */
export const vectorOf = ({ length, pages }: Writing): Vector => shaped(length, pages, [])

/** In bytes, shared pages and all. */
export const sizeOf = ({ pages }: Vector): number => pages.length * pageBytes
