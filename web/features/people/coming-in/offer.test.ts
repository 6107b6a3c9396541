import fc from 'fast-check'
import { expect, test } from 'vitest'
import { draftOf, emptyOfferOf, offerOf } from './offer.ts'

const zones = ['UTC', 'Europe/London', 'Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kathmandu']
const hour = 3_600_000
const anyDay = fc
  .integer({ min: 0, max: 1500 })
  .map(days => new Date(Date.UTC(2026, 0, 1) + days * 24 * hour).toISOString().slice(0, 10))

const anyDraft = fc.record({
  welcome: fc.constant(''),
  as: fc.constantFrom('member' as const, 'guest' as const),
  role: fc.constantFrom('', 'role-people-lead'),
  teams: fc.subarray(['t0', 't1']),
  places: fc.constant([{ node: 'n', gives: 3, name: 'Dunes', path: 'Sites', atMost: 7 }]),
  from: fc.option(anyDay, { nil: '' }),
  through: fc.option(anyDay, { nil: '' }),
})
const names = { n: { name: 'Dunes', path: 'Sites', atMost: 7 } }

test('an offer that is opened again reads as it was written, in whatever zone', () => {
  fc.assert(
    fc.property(anyDraft, fc.constantFrom(...zones), (draft, timeZone) => {
      const again = draftOf(offerOf(draft, timeZone), { timeZone, names })
      expect(again).toEqual({ ...draft, role: draft.as === 'guest' ? '' : draft.role })
    }),
  )
})

test('a day begins where the one before ends, and is as long as it is where the workspace lives', () => {
  fc.assert(
    fc.property(anyDay, fc.constantFrom(...zones), (day, timeZone) => {
      const { from, until } = offerOf(
        { ...emptyOfferOf(['invite members']), from: day, through: day },
        timeZone,
      )
      const length = ((until as number) - (from as number)) / hour
      // Where clocks are set, a day is an hour shorter or longer.
      expect([23, 24, 25]).toContain(length)
      const written = new Intl.DateTimeFormat('en-CA', { timeZone, dateStyle: 'short' })
      expect([written.format(from as number), written.format((until as number) - 1)]).toEqual([day, day])
    }),
  )
})

test('guests are offered no role; who is offered nothing in time is offered it at once and for good', () => {
  const offered = offerOf(
    { ...emptyOfferOf(['invite members']), as: 'guest', role: 'role-people-lead' },
    'UTC',
  )
  expect([offered.role, offered.from, offered.until]).toEqual([null, null, null])
})
