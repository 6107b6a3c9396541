/** Where rows stand among others: by numbers, with room between them for more. */
export const orderStep = 1024

export interface Placing {
  /** The numbers of those that are put there, in their order. */
  readonly moved: readonly number[]
  /** Others that make room, by their place among the others. */
  readonly others: readonly (readonly [place: number, order: number])[]
}

/**
 * Puts some rows among others, whose numbers come in order: before the one at a place, or behind all. Where no number lies
 * between their neighbours, those on the side where fewer have to make room.
 */
export function placing(orders: readonly number[], at: number, count: number): Placing {
  const [low, high] = [orders[at - 1], orders[at]]
  if (low === undefined)
    return {
      moved: numbered(count, nth => (high ?? orderStep * (count + 1)) - orderStep * (count - nth)),
      others: [],
    }
  if (high === undefined) return { moved: numbered(count, nth => low + orderStep * (nth + 1)), others: [] }
  const between = numbered(count, nth => low + ((high - low) * (nth + 1)) / (count + 1))
  return isRising([low, ...between, high]) ? { moved: between, others: [] } : madeRoom(orders, at, count)
}

function madeRoom(orders: readonly number[], at: number, count: number): Placing {
  const [low = 0, high = 0] = [orders[at - 1], orders[at]]
  const after = pushed(orders.slice(at), low + orderStep * count)
  // The same the other way round, with everything turned.
  const before = pushed(
    orders
      .slice(0, at)
      .reverse()
      .map(order => -order),
    -(high - orderStep * count),
  )
  return after.length <= before.length
    ? {
        moved: numbered(count, nth => low + orderStep * (nth + 1)),
        others: after.map((order, nth) => [at + nth, order]),
      }
    : {
        moved: numbered(count, nth => high - orderStep * (count - nth)),
        others: before.map((order, nth) => [at - 1 - nth, -order]),
      }
}

/** New numbers for the first ones of some, so that all lie behind one and still come in order. */
function pushed(orders: readonly number[], behind: number): number[] {
  const found: number[] = []
  let last = behind
  for (const order of orders) {
    if (order > last) break
    last += orderStep
    found.push(last)
  }
  return found
}

const numbered = (count: number, of: (nth: number) => number): number[] =>
  Array.from({ length: count }, (_, nth) => of(nth))

const isRising = (numbers: readonly number[]): boolean =>
  numbers.every((each, nth) => nth === 0 || each > (numbers[nth - 1] ?? 0))
