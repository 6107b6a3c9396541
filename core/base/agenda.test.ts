import fc from 'fast-check'
import { expect, test } from 'vitest'
import { agendaOf, type Dated, datesBetween, nextAfter, withDate, withoutDate } from './agenda.ts'

const anyDate = fc.record({ at: fc.integer({ min: 0, max: 40 }), key: fc.constantFrom('a', 'b', 'c') })
const name = ({ at, key }: Dated) => `${String(at).padStart(2, '0')} ${key}`
const byName = (date: Dated) => [name(date), date] as const

test('an agenda tells what comes next, and what lies between, in order, as a sorted list does', () => {
  const anySteps = fc.array(fc.tuple(anyDate, fc.boolean()), { maxLength: 40 })
  // Many at first, so that pages are filled, divided and emptied.
  const anyFirst = fc.integer({ min: 0, max: 700 })
  fc.assert(
    fc.property(anyFirst, anySteps, fc.nat(40), fc.nat(40), (count, steps, after, upTo) => {
      const first = Array.from({ length: count }, (_, index) => ({ at: index % 41, key: `${index}` }))
      let agenda = agendaOf<Dated>(first)
      const model = new Map(first.map(byName))
      for (const [date, comes] of steps) {
        agenda = comes ? withDate(agenda, date) : withoutDate(agenda, date)
        if (comes) model.set(name(date), date)
        else model.delete(name(date))
      }
      const sorted = [...model.values()].sort((a, b) => a.at - b.at || (a.key < b.key ? -1 : 1))
      expect([...datesBetween(agenda, { after: -1, upTo: 41 })]).toEqual(sorted)
      expect([...datesBetween(agenda, { after, upTo })]).toEqual(
        sorted.filter(each => each.at > after && each.at <= upTo),
      )
      expect(nextAfter(agenda, after)).toBe(
        sorted.find(each => each.at > after)?.at ?? Number.POSITIVE_INFINITY,
      )
      expect(agenda.pages.every(page => page.length > 0 && page.length <= 256)).toBe(true)
    }),
  )
})
