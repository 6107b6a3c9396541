/**
 * An immutable map from string keys to values: `set` and `delete` return a new table that shares
 * all but one path with the old one, so that published states can be kept side by side.
 *
 * A hash trie, 32 ways a level, with bitmap-compressed branches. Always holds: a branch has no empty
 * slot, and a bucket holds more than one entry only when their whole hashes collide.
 * get, set, delete: O(log32 n). Iteration order is by hash: stable for equal contents built from
 * the same keys, but meaningless; sort where order is shown.
 */
export interface Table<Key extends string, Value> {
  readonly size: number
  readonly root: Slot<Key, Value> | undefined
}

interface Bucket<Key, Value> {
  readonly hash: number
  readonly entries: readonly (readonly [Key, Value])[]
}

interface Branch<Key, Value> {
  readonly bitmap: number
  readonly slots: readonly Slot<Key, Value>[]
}

type Slot<Key, Value> = Bucket<Key, Value> | Branch<Key, Value>

const isBranch = <Key, Value>(slot: Slot<Key, Value>): slot is Branch<Key, Value> => 'slots' in slot

const empty: Table<string, unknown> = { size: 0, root: undefined }
export const emptyTable = <Key extends string, Value>() => empty as Table<Key, Value>

export function getIn<Key extends string, Value>(table: Table<Key, Value>, key: Key): Value | undefined {
  const hash = hashOf(key)
  let slot = table.root
  for (let shift = 0; slot !== undefined && isBranch(slot); shift += 5) {
    const bit = bitAt(hash, shift)
    slot = slot.bitmap & bit ? slot.slots[rank(slot.bitmap, bit)] : undefined
  }
  return slot?.entries.find(entry => entry[0] === key)?.[1]
}

export function setIn<Key extends string, Value>(
  table: Table<Key, Value>,
  key: Key,
  value: Value,
): Table<Key, Value> {
  const before = getIn(table, key)
  if (before === value) return table
  const entry: Entry<Key, Value> = { hash: hashOf(key), key, value }
  const root = table.root === undefined ? bucketOf(entry) : inserted(table.root, entry, 0)
  return { size: table.size + (before === undefined ? 1 : 0), root }
}

export function deleteIn<Key extends string, Value>(table: Table<Key, Value>, key: Key): Table<Key, Value> {
  if (table.root === undefined || getIn(table, key) === undefined) return table
  return { size: table.size - 1, root: removed(table.root, { hash: hashOf(key), key }, 0) }
}

export function* entriesOf<Key extends string, Value>(
  table: Table<Key, Value>,
): Generator<readonly [Key, Value]> {
  const waiting = table.root === undefined ? [] : [table.root]
  for (let slot = waiting.pop(); slot !== undefined; slot = waiting.pop()) {
    if (isBranch(slot)) waiting.push(...slot.slots)
    else yield* slot.entries
  }
}

export function* valuesOf<Key extends string, Value>(table: Table<Key, Value>): Generator<Value> {
  for (const [, value] of entriesOf(table)) yield value
}

interface Place<Key> {
  readonly hash: number
  readonly key: Key
}

interface Entry<Key, Value> extends Place<Key> {
  readonly value: Value
}

function inserted<Key, Value>(
  slot: Slot<Key, Value>,
  entry: Entry<Key, Value>,
  shift: number,
): Slot<Key, Value> {
  if (!isBranch(slot)) {
    if (slot.hash === entry.hash) return { hash: slot.hash, entries: withEntry(slot, entry) }
    return inserted({ bitmap: bitAt(slot.hash, shift), slots: [slot] }, entry, shift)
  }
  const bit = bitAt(entry.hash, shift)
  const index = rank(slot.bitmap, bit)
  const below = slot.bitmap & bit ? slot.slots[index] : undefined
  if (below === undefined)
    return { bitmap: slot.bitmap | bit, slots: slot.slots.toSpliced(index, 0, bucketOf(entry)) }
  return { bitmap: slot.bitmap, slots: slot.slots.with(index, inserted(below, entry, shift + 5)) }
}

function removed<Key, Value>(
  slot: Slot<Key, Value>,
  place: Place<Key>,
  shift: number,
): Slot<Key, Value> | undefined {
  if (!isBranch(slot)) {
    const entries = slot.entries.filter(entry => entry[0] !== place.key)
    return entries.length === 0 ? undefined : { hash: slot.hash, entries }
  }
  const bit = bitAt(place.hash, shift)
  const index = rank(slot.bitmap, bit)
  const below = slot.slots[index]
  if (below === undefined) return slot
  const rest = removed(below, place, shift + 5)
  if (rest !== undefined) return { bitmap: slot.bitmap, slots: slot.slots.with(index, rest) }
  return slot.slots.length === 1
    ? undefined
    : { bitmap: slot.bitmap & ~bit, slots: slot.slots.toSpliced(index, 1) }
}

const bucketOf = <Key, Value>({ hash, key, value }: Entry<Key, Value>): Bucket<Key, Value> => ({
  hash,
  entries: [[key, value]],
})

const withEntry = <Key, Value>(bucket: Bucket<Key, Value>, { key, value }: Entry<Key, Value>) => [
  ...bucket.entries.filter(entry => entry[0] !== key),
  [key, value] as const,
]

const bitAt = (hash: number, shift: number) => 1 << ((hash >>> shift) & 31)

/** How many of the bitmap's bits lie below `bit`: the slot's index. */
function rank(bitmap: number, bit: number): number {
  let bits = bitmap & (bit - 1)
  let count = 0
  for (; bits !== 0; bits &= bits - 1) count += 1
  return count
}

/** FNV-1a over UTF-16 units, with a final mix so that the low bits, which choose the first level, spread. */
export function hashOf(key: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < key.length; i += 1) hash = Math.imul(hash ^ key.charCodeAt(i), 0x01000193)
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b)
  return hash ^ (hash >>> 13)
}
