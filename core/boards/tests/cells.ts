import fc from 'fast-check'
import { readDay, writtenDay } from '../days.ts'
import type { CellValue, KindName, Usage } from '../kind.ts'
import { kindOf } from '../kinds/all.ts'
import { type Mark, marks } from '../kinds/state.ts'
import { isSameName } from '../words.ts'

/** Random columns and cells. */

const names = [
  'Aino Vuori',
  'Edda Kroon',
  'Ilse Brandt',
  'Piran Yeo',
  'Joachim Lund-Marsh',
  'Ødegård 12',
  'Ödegard 9',
]
const idOf = (name: string) => `id-${names.indexOf(name)}`
const ids = names.map(idOf)

/** Clocks that are an hour ahead. */
export const usage: Usage = {
  decimal: '.',
  isDayFirst: true,
  today: readDay('2026-11-30') ?? 0,
  localOf: instant => instant + 3_600_000,
  instantOf: local => local - 3_600_000,
  personOf: name =>
    names.some(each => isSameName(each, name))
      ? idOf(names.find(each => isSameName(each, name)) ?? '')
      : undefined,
  placeOf: name => (names.includes(name) ? idOf(name) : undefined),
  nameOf: id => names[ids.indexOf(id)],
}

const optionName = fc
  .string({ minLength: 1, maxLength: 12, unit: 'grapheme' })
  .map(name => name.replaceAll(/[,;\p{Cc}\p{Cf}\u2028\u2029]/gu, '').trim())
  .filter(name => name !== '')

const options = fc
  .uniqueArray(optionName, { minLength: 1, maxLength: 6, comparator: isSameName })
  .map(all => all.map((name, index) => ({ id: `o${index}`, name })))

export function anySettings(kind: KindName): fc.Arbitrary<unknown> {
  switch (kind) {
    case 'number':
      return fc.record({
        places: fc.integer({ min: 0, max: 6 }),
        unit: fc.constantFrom('', '€', 'm', 'km / h'),
        foot: fc.constantFrom('sum', 'mean', 'least', 'greatest'),
      })
    case 'serial number':
      return fc.record({ prefix: fc.constantFrom('', 'P-', 'Loan ') })
    case 'state':
      return options
        .chain(all =>
          fc.tuple(
            ...all.map(each =>
              fc.record({
                id: fc.constant(each.id),
                name: fc.constant(each.name),
                mark: fc.constantFrom<Mark>(...marks),
                isFinished: fc.boolean(),
              }),
            ),
          ),
        )
        .map(states => ({ states }))
    case 'tags':
      return options.map(tags => ({ tags }))
    case 'person':
      return fc.record({ isSeveral: fc.boolean() })
    case 'date':
      return fc.record({ withTime: fc.boolean() })
    default:
      return fc.constant({})
  }
}

const day = fc.integer({ min: 0, max: 40_000 })
const some = fc.subarray(ids, { minLength: 1 })

/** In the stored form; now and then nothing. */
export function anyCell(kind: KindName, settings: unknown): fc.Arbitrary<CellValue> {
  return fc.option(
    filled(kind, settings).filter(value => kindOf({ kind }).fits(value, settings)),
    { nil: null, freq: 6 },
  )
}

function filled(kind: KindName, settings: unknown): fc.Arbitrary<CellValue> {
  const of = Object(settings) as Record<string, unknown>
  switch (kind) {
    case 'text':
      return fc
        .oneof(fc.string({ unit: 'grapheme' }), fc.constantFrom('Fence', 'Øre 12', 'øre 9', '=1+1'))
        .map(text => text.trim())
    case 'long text':
      return fc.array(fc.string({ unit: 'grapheme' }), { maxLength: 3 }).map(lines => lines.join('\n').trim())
    case 'number': {
      const unit = 10 ** (of['places'] as number)
      return fc.integer({ min: -1e9, max: 1e9 }).map(whole => whole / unit + 0)
    }
    case 'serial number':
      return fc.integer({ min: 1, max: 1e6 })
    case 'state':
      return fc.constantFrom(...(of['states'] as { id: string }[]).map(each => each.id))
    case 'tags':
      return fc.subarray(
        (of['tags'] as { id: string }[]).map(each => each.id),
        { minLength: 1 },
      )
    case 'person':
      return of['isSeveral'] === true ? some : fc.constantFrom(...ids).map(id => [id])
    case 'date':
      return of['withTime'] === true
        ? day.chain(at => fc.integer({ min: 0, max: 1439 }).map(minute => at * 86_400_000 + minute * 60_000))
        : day.map(writtenDay)
    case 'period':
      return fc
        .tuple(day, fc.nat({ max: 300 }))
        .map(([from, length]) => [writtenDay(from), writtenDay(from + length)])
    case 'checkbox':
      return fc.constant(true)
    case 'link':
      return fc.oneof(fc.webUrl(), fc.constantFrom('mailto:a@b.example', 'tel:+4420'))
    case 'place':
    case 'file':
      return some
    case 'created':
    case 'updated':
      return fc.integer({ min: 1, max: 2e12 })
  }
}
