import type { Principal } from '#core/rules/principal.ts'
import type { Instant } from '#core/base/instant.ts'

/** Ids of the demo are made from names, so that the same thing has the same id in every demo. */
export function idOf(kind: string, ...key: readonly string[]): string {
  const id = [kind, ...key]
    .join('-')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
  return id.length <= 40 ? id : `${id.slice(0, 32)}-${hashOf(id)}`
}

/** The id of a place by its path of names from its home, or of what is made in a team's home from its key. */
export const placeId = (path: string): string => idOf('node', ...path.split('/'))

export const personId = (key: string): string => idOf('person', key)
export const teamId = (key: string): string => idOf('team', key)

/** `everyone`, `guests`, a person's key, or a team's key behind `team:` or `leads:`. */
export function principalOf(to: string): Principal {
  if (to === 'everyone' || to === 'guests') return to
  const [kind, key] = to.split(':')
  if (key === undefined) return `person:${personId(to)}`
  return kind === 'leads' ? `leads:${teamId(key)}` : `team:${teamId(key)}`
}

const day = 86_400_000
export const daysAgo = (now: Instant, days: number): Instant => now - days * day

/** The same, moved into the hours in which people work: the earlier stays the earlier, and none comes after now. */
export function workdaysAgo(now: Instant, days: number): Instant {
  const at = daysAgo(now, days)
  const midnight = Math.floor(at / day) * day
  return Math.min(at < now - day ? midnight + day * 0.3 + Math.round((at - midnight) * 0.45) : at, now)
}
export const inDays = (now: Instant, days: number | undefined): Instant | null =>
  days === undefined ? null : now + days * day

/** Short and stable: two long names that begin alike stay apart. */
function hashOf(text: string): string {
  let hash = 5381
  for (const sign of text) hash = (Math.imul(hash, 33) ^ (sign.codePointAt(0) ?? 0)) >>> 0
  return hash.toString(36).padStart(7, '0').slice(0, 7)
}
