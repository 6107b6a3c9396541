import { useMemo } from 'react'
import { instantOf, localOf } from '#contract/clock.ts'
import { fold } from '#core/base/fold-words.ts'
import type { Usage } from '#core/boards/kind.ts'
import { api } from '../../api/api.ts'
import { useKnownPeople } from '../../api/use-known-people.ts'

interface Here {
  readonly timeZone: string
  readonly today: number
  /** The names that the rows are read by which were shown until now. */
  readonly namesNow: () => Readonly<Record<string, string>>
}

/** How this reader writes and reads what stands in cells. */
export function useUsage({ timeZone, today, namesNow }: Here): Usage {
  const people = useKnownPeople()
  const language = api.endpoints.session.useQueryState().data?.account?.language ?? 'en-GB'
  return useMemo(() => {
    const byName = new Map<string, string | null>()
    for (const { id, name, mail } of people)
      for (const word of new Set([fold(name), fold(mail)])) byName.set(word, byName.has(word) ? null : id)
    const known = new Map(people.map(each => [each.id, each.name]))
    return {
      ...writtenIn(language),
      today,
      localOf: instant => localOf(instant, timeZone),
      instantOf: local => instantOf(local, timeZone),
      personOf: name => byName.get(fold(name.trim())) ?? undefined,
      placeOf: name => Object.entries(namesNow()).find(each => fold(each[1]) === fold(name.trim()))?.[0],
      nameOf: id => known.get(id) ?? namesNow()[id],
    }
  }, [people, language, timeZone, today, namesNow])
}

/** Where decimals stand, and whether the day comes before the month. */
function writtenIn(language: string): Pick<Usage, 'decimal' | 'isDayFirst'> {
  const decimal = new Intl.NumberFormat(language)
    .formatToParts(1.5)
    .find(each => each.type === 'decimal')?.value
  const parts = new Intl.DateTimeFormat(language).formatToParts(0).map(each => each.type)
  return { decimal: decimal === ',' ? ',' : '.', isDayFirst: parts.indexOf('day') < parts.indexOf('month') }
}
