import { listed } from '#core/words/english.ts'
import type { RoleDetailView } from '#contract/views/roles.ts'

/** A place on the ladder: on a rank beside others, or between two. */
export interface Slot {
  readonly rank: number
  /** Who stands there; nobody between ranks. */
  readonly roles: readonly RoleDetailView[]
}

/**
 * Every place where a role could stand, the highest first: each rank that others stand on, and one between each two
 * where there is room. The role itself is left out, so that its own rank counts as a gap if it stands there alone.
 */
export function slotsFor(all: readonly RoleDetailView[], role: string | undefined): Slot[] {
  const others = all.filter(each => each.id !== role)
  const ranks = [...new Set(others.map(each => each.rank))].sort((a, b) => b - a)
  const slots: Slot[] = []
  let above = 100
  for (const rank of [...ranks, 0]) {
    const between = Math.floor((above + rank) / 2)
    if (between > rank && between < above) slots.push({ rank: between, roles: [] })
    if (rank > 0) slots.push({ rank, roles: others.filter(each => each.rank === rank) })
    above = rank
  }
  return slots
}

/** The slot that a rank stands for: the rank itself, or the gap that it lies in. */
export function slotOf(slots: readonly Slot[], rank: number): number {
  const exact = slots.findIndex(slot => slot.roles.length > 0 && slot.rank === rank)
  if (exact !== -1) return exact
  const below = slots.findIndex(slot => slot.roles.length > 0 && slot.rank < rank)
  return below === -1 ? slots.length - 1 : Math.max(0, below - 1)
}

/** “Outranks Member and Guest. Same rank as Auditor. Outranked by Owner.” */
export function standingOf(all: readonly RoleDetailView[], role: string | undefined, rank: number): string {
  const others = all.filter(each => each.id !== role)
  const named = (fits: (each: RoleDetailView) => boolean) =>
    listed(others.filter(fits).map(each => each.name))
  const below = named(each => each.rank < rank)
  const beside = named(each => each.rank === rank)
  const above = named(each => each.rank > rank)
  const parts = [
    below === '' ? 'Outranks nobody.' : `Outranks ${below}.`,
    ...(beside === '' ? [] : [`Same rank as ${beside}.`]),
    ...(above === '' ? [] : [`Outranked by ${above}.`]),
  ]
  return parts.join(' ')
}
