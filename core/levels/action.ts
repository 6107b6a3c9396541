/**
 * Actions, the atoms of access to content, held as the bits of one number.
 *
 * Invariant: an `ActionSet` is closed, that is, it holds all that its members need. The brand is the
 * proof: only this module makes one.
 */

declare const closed: unique symbol
export type ActionSet = number & { readonly [closed]: true }

interface Definition {
  readonly bit: number
  readonly closure: ActionSet
}

// A definition can only need constants above it, so a cycle cannot be written down.
function define(position: number, ...needs: readonly Definition[]): Definition {
  const bit = 1 << position
  return { bit, closure: needs.reduce((mask, needed) => mask | needed.closure, bit) as ActionSet }
}

// Positions are stored: add new ones (up to 30), never move or reuse one.
const see = define(0)
const copy = define(1, see)
const comment = define(2, see)
const add = define(3, see)
const change = define(4, see)
const remove = define(5, change)
const arrange = define(6, change)
const share = define(7, see)
const seal = define(8, share)
const publish = define(9, copy, share)

const definitions = { see, copy, comment, add, change, remove, arrange, share, seal, publish } as const
export type Action = keyof typeof definitions
export const allActions = Object.keys(definitions) as readonly Action[]

/** The smallest closed set that holds all the given actions. */
export function actions(...names: readonly Action[]): ActionSet {
  return names.reduce((mask, name) => mask | definitions[name].closure, 0) as ActionSet
}

export const noActions = actions()
export const everyAction = actions(...allActions)

export const has = (set: ActionSet, name: Action): boolean => (set & definitions[name].bit) !== 0

/** For loops that ask of millions of sets: `has` looks the name up each time. */
export const bitOf = (name: Action): number => definitions[name].bit
export const holds = (set: ActionSet, part: ActionSet): boolean => (part & ~set) === 0

/** The members in definition order, for display and for JSON. */
export const listActions = (set: ActionSet): Action[] => allActions.filter(name => has(set, name))

// Union and intersection of closed sets are closed as they are; removal needs a repair.
export const union = (a: ActionSet, b: ActionSet) => (a | b) as ActionSet
export const intersect = (a: ActionSet, b: ActionSet) => (a & b) as ActionSet

/** The largest closed subset that lacks `name`: whatever needs it goes too. */
export function without(set: ActionSet, name: Action): ActionSet {
  return actions(...listActions(set).filter(held => !has(definitions[held].closure, name)))
}

/** What of `a` lies outside `b`, as names: a difference of closed sets is not closed. */
export const beyond = (a: ActionSet, b: ActionSet): Action[] =>
  allActions.filter(name => has(a, name) && !has(b, name))

/** Reads a stored mask; `undefined` if it has unknown bits or is not closed. */
export function decodeActions(mask: number): ActionSet | undefined {
  const repaired = actions(...listActions(mask as ActionSet))
  return repaired === mask ? repaired : undefined
}
