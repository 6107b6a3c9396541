import { instantOf, localOf } from '#contract/clock.ts'
import { fold } from '#core/base/fold-words.ts'
import { dayLength } from '#core/boards/days.ts'
import type { Usage } from '#core/boards/kind.ts'

/** How words are read and written where nobody says otherwise, as data: it goes to the thread, too. */
export interface PlainUsage {
  /** An IANA name. */
  readonly timeZone: string
  readonly at: number
  readonly names: ReadonlyMap<string, string>
  /** By folded name, handle and address: those that name one. */
  readonly people: ReadonlyMap<string, string>
}

export const clockOf = (timeZone: string, at: number) => ({
  today: Math.floor(localOf(at, timeZone) / dayLength),
  localOf: (instant: number) => localOf(instant, timeZone),
  instantOf: (local: number) => instantOf(local, timeZone),
})

export const usageFrom = ({ timeZone, at, names, people }: PlainUsage): Usage => ({
  ...clockOf(timeZone, at),
  decimal: '.',
  isDayFirst: true,
  personOf: name => people.get(fold(name.trim())),
  // A text becomes a link to no place that whoever wrote it may not have known.
  placeOf: () => undefined,
  nameOf: id => names.get(id),
})
