import { listed } from '#core/words/english.ts'
import type { RoleDetailView } from '#contract/role-views.ts'

/** A place on the ladder: on a rung beside others, or between two. */
export interface Slot {
  readonly rung: number
  /** Who stands there; nobody between rungs. */
  readonly roles: readonly RoleDetailView[]
}

/**
 * Every place where a role could stand, the highest first: each rung that others stand on, and one between each two
 * where there is room. The role itself is left out, so that its own rung counts as a gap if it stands there alone.
 */
export function slotsFor(all: readonly RoleDetailView[], role: string | undefined): Slot[] {
  const others = all.filter(each => each.id !== role)
  const rungs = [...new Set(others.map(each => each.rung))].sort((a, b) => b - a)
  const slots: Slot[] = []
  let above = 100
  for (const rung of [...rungs, 0]) {
    const between = Math.floor((above + rung) / 2)
    if (between > rung && between < above) slots.push({ rung: between, roles: [] })
    if (rung > 0) slots.push({ rung, roles: others.filter(each => each.rung === rung) })
    above = rung
  }
  return slots
}

/** The slot that a rung stands for: the rung itself, or the gap that it lies in. */
export function slotOf(slots: readonly Slot[], rung: number): number {
  const exact = slots.findIndex(slot => slot.roles.length > 0 && slot.rung === rung)
  if (exact !== -1) return exact
  const below = slots.findIndex(slot => slot.roles.length > 0 && slot.rung < rung)
  return below === -1 ? slots.length - 1 : Math.max(0, below - 1)
}

/** “Outranks Member and Guest. Same rank as Auditor. Outranked by Owner.” */
export function standingOf(all: readonly RoleDetailView[], role: string | undefined, rung: number): string {
  const others = all.filter(each => each.id !== role)
  const named = (fits: (each: RoleDetailView) => boolean) =>
    listed(others.filter(fits).map(each => each.name))
  const below = named(each => each.rung < rung)
  const beside = named(each => each.rung === rung)
  const above = named(each => each.rung > rung)
  const parts = [
    below === '' ? 'Outranks nobody.' : `Outranks ${below}.`,
    ...(beside === '' ? [] : [`Same rank as ${beside}.`]),
    ...(above === '' ? [] : [`Outranked by ${above}.`]),
  ]
  return parts.join(' ')
}
