import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { heldOf } from './data.ts'
import { calendarDay, dayFrom, dayOf, readDay, writtenDay } from './days.ts'
import { type CellValue, isNothing, kindNames, nothingIn } from './kind.ts'
import { columnKinds, kindOf } from './kinds/all.ts'
import { anyCell, anySettings, usage } from './tests/cells.ts'

/** What holds for every kind of column, whatever is in it. */

const written = kindNames.filter(kind => columnKinds[kind].isWritten)

describe.each(kindNames)('%s', kind => {
  const of = kindOf({ kind })
  const anyOfIt = anySettings(kind).chain(settings =>
    fc.record({
      settings: fc.constant(settings),
      value: anyCell(kind, settings),
      other: anyCell(kind, settings),
    }),
  )

  test('values are fit, and are held and stored again as they were', () => {
    fc.assert(
      fc.property(anyOfIt, ({ settings, value }) => {
        expect(of.settings.wrong(settings)).toBeUndefined()
        if (value === null) return
        expect(of.fits(value, settings)).toBe(true)
        const held = of.hold(value, settings)
        expect([isNothing(held), of.stored(held, settings)]).toEqual([false, value])
      }),
    )
    expect(of.stored(nothingIn(of.form), of.settings.plain)).toBeNull()
    expect(of.settings.wrong(of.settings.plain)).toBeUndefined()
  })

  test('what is not of its form is not fit', () => {
    fc.assert(
      fc.property(anySettings(kind), fc.anything(), (settings, value) => {
        if (!of.fits(value, settings)) return
        expect(of.stored(of.hold(value, settings), settings)).toEqual(value)
      }),
      { numRuns: 500 },
    )
    for (const settings of [null, 1, 'x', { more: 1 }, { ...(of.settings.plain as object), more: 1 }])
      if (settings !== null || Object.keys(of.settings.plain as object).length > 0)
        expect(of.settings.wrong(settings)).not.toBe(undefined)
  })

  test('its order is total, and alike for what is alike', () => {
    const key = (value: CellValue, settings: unknown) =>
      value === null ? null : of.orderOf(heldOf({ id: 'c', kind, settings }, value), settings, usage.nameOf)
    fc.assert(
      fc.property(anyOfIt, ({ settings, value, other }) => {
        const [a, b] = [key(value, settings), key(other, settings)]
        if (a === null || b === null) return
        expect(typeof a).toBe(typeof b)
        expect([a < b, a > b, a === b].filter(Boolean)).toHaveLength(1)
        if (JSON.stringify(value) === JSON.stringify(other)) expect(a).toBe(b)
      }),
    )
  })
})

test.each(written.filter(kind => kind !== 'file'))(
  '%s: what is read of its own words is the same value',
  kind => {
    const of = kindOf({ kind })
    fc.assert(
      fc.property(
        anySettings(kind).chain(settings => fc.tuple(fc.constant(settings), anyCell(kind, settings))),
        fc.constantFrom<'.' | ','>('.', ','),
        fc.boolean(),
        ([settings, value], decimal, isDayFirst) => {
          const here = { ...usage, decimal, isDayFirst }
          const words = value === null ? '' : of.words(value, settings, here)
          expect(of.parse(words, settings, here)).toEqual({ ok: true, value })
        },
      ),
      { numRuns: 300 },
    )
  },
)

const parsed =
  (kind: (typeof kindNames)[number], settings: object, more: object = {}) =>
  (text: string) => {
    const read = kindOf({ kind }).parse(text, settings, { ...usage, ...more })
    return read.ok ? read.value : read.error
  }

test.each([
  ['1,234.50', '.', 1234.5],
  ['1.234,50', ',', 1234.5],
  ['1.234,50', '.', 1234.5],
  ['1,234', '.', 1234],
  ['1,234', ',', 1.234],
  ['1.234', ',', 1234],
  ['1.234', '.', 1.234],
  ['12 500,5', ',', 12_500.5],
  ["12'500.5", '.', 12_500.5],
  ['40,5', '.', 40.5],
  ['1.234.567', '.', 1_234_567],
  ['−3 €', '.', -3],
  ['+3', '.', 3],
  ['.5', '.', 0.5],
  ['-0', '.', 0],
  ['', '.', null],
  ['1,23,4', '.', 'This is not a number.'],
  ['12a', '.', 'This is not a number.'],
  ['1e3', '.', 'This is not a number.'],
  ['0.12345', '.', 'This column has 4 decimals.'],
  ['9999999999999.9999', '.', 'This number is too large.'],
])('the number %s, where decimals stand after %s', (text, decimal, value) => {
  expect(parsed('number', { places: 4, unit: '€', foot: 'sum' }, { decimal })(text)).toBe(value)
})

test.each([
  ['2026-12-04', '2026-12-04'],
  ['4 Dec 2026', '2026-12-04'],
  ['4. December 26', '2026-12-04'],
  ['Dec 4, 2026', '2026-12-04'],
  ['4.12.2026', '2026-12-04'],
  ['04/12/26', '2026-12-04'],
  ['4.12.', '2026-12-04'],
  ['tomorrow', '2026-12-01'],
  ['29 Feb 2027', '“29 Feb 2027” is not a date.'],
  ['31/4/2026', '“31/4/2026” is not a date.'],
  ['soon', '“soon” is not a date.'],
  ['constructor', '“constructor” is not a date.'],
  ['2026-12-04 00:00:00', '2026-12-04'],
])('the day %s', (text, value) => {
  expect(parsed('date', { withTime: false })(text)).toBe(value)
})

test('where the month is written first, it is read first; a point is only written after a day', () => {
  const here = { today: usage.today, isDayFirst: false }
  expect(['12/4/2026', '4.12.2026'].map(each => dayFrom(each, here))).toEqual([
    readDay('2026-12-04'),
    readDay('2026-12-04'),
  ])
})

test.each([
  ['2026-12-04/2026-12-09', ['2026-12-04', '2026-12-09']],
  ['4 Dec – 9 Dec', ['2026-12-04', '2026-12-09']],
  ['4 Dec to 9 Dec 2026', ['2026-12-04', '2026-12-09']],
  ['4.12.2026 - 9.12.2026', ['2026-12-04', '2026-12-09']],
  ['4 Dec', ['2026-12-04', '2026-12-04']],
  ['9 Dec to 4 Dec', 'A period ends on the day on which it begins, or after it.'],
])('the period %s', (text, value) => {
  expect(parsed('period', {})(text)).toEqual(value)
})

test.each([
  ['https://example.org/a?b=c', 'https://example.org/a?b=c'],
  ['example.org/a', 'https://example.org/a'],
  ['a.b@example.org', 'mailto:a.b@example.org'],
  ['+44 20 7946 0000', 'tel:+442079460000'],
])('the link %s', (text, value) => {
  expect(parsed('link', {})(text)).toBe(value)
})

test.each([
  'javascript:alert(1)',
  'data:text/html,x',
  'https://',
  'https://a b',
  'ftp://a.b',
  ' java\nscript:x',
  'https://a"b',
])('%j is no link', text => {
  expect(parsed('link', {})(text)).toMatch(/^This is not the address/)
  expect(kindOf({ kind: 'link' }).fits(text, {})).toBe(false)
})

test('days are those of the calendar', () => {
  fc.assert(
    fc.property(fc.integer({ min: -719_162, max: 2_932_896 }), day => {
      const { year, month, date } = calendarDay(day)
      expect(dayOf(year, month, date)).toBe(day)
      expect(writtenDay(day)).toBe(new Date(day * 86_400_000).toISOString().slice(0, 10).padStart(10, '0'))
    }),
  )
})

test.each(Object.getOwnPropertyNames(Object.prototype))('%s is a word like any other', word => {
  for (const name of written) {
    const kind = kindOf({ kind: name })
    fc.assert(
      fc.property(anySettings(name), settings => {
        const read = kind.parse(word, settings, usage)
        if (read.ok && read.value !== null) expect(kind.fits(read.value, settings)).toBe(true)
      }),
      { numRuns: 5 },
    )
  }
})

test('conversions keep what can be kept: each kind reads what every other says of a value, or says why not', () => {
  const pairs = written.flatMap(from => written.map(to => [from, to] as const))
  for (const [from, to] of pairs) {
    const [source, target] = [kindOf({ kind: from }), kindOf({ kind: to })]
    fc.assert(
      fc.property(
        anySettings(from).chain(settings => fc.tuple(fc.constant(settings), anyCell(from, settings))),
        anySettings(to),
        ([settings, value], other) => {
          if (value === null) return
          const read = target.parse(source.words(value, settings, usage), other, usage)
          if (read.ok && read.value !== null) expect(target.fits(read.value, other)).toBe(true)
          if (!read.ok) expect(read.error).toMatch(/\.$/)
        },
      ),
      { numRuns: 10 },
    )
  }
})
