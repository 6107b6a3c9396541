import fc from 'fast-check'
import { expect, test } from 'vitest'
import { guessedKind, writtenAs } from './guess.ts'
import type { CellValue, KindName } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { anyCell, anySettings, usage } from './tests/cells.ts'

/** Columns of tables from elsewhere. */

const guessed: readonly KindName[] = ['number', 'person', 'date', 'period', 'checkbox', 'link']

test.each(guessed)('what a column of %s says in words is taken for a kind that reads all of it', kind => {
  const of = kindOf({ kind })
  fc.assert(
    fc.property(
      anySettings(kind).chain(settings =>
        fc.tuple(fc.constant(settings), fc.array(anyCell(kind, settings), { minLength: 1, maxLength: 30 })),
      ),
      ([settings, cells]) => {
        const texts = cells.map(cell => (cell === null ? '' : of.words(cell, settings, usage)))
        if (texts.every(text => text === '')) return
        const found = guessedKind(texts, usage)
        const reads = kindOf(found)
        expect(reads.settings.wrong(found.settings)).toBeUndefined()
        const read = texts.map(text => reads.parse(text, found.settings, usage))
        expect(read.map(each => each.ok)).not.toContain(false)
        // What is read says the same again, whatever kind it was taken for.
        const values = read.map(each => (each.ok ? each.value : null))
        const isAlike = JSON.stringify(found) === JSON.stringify({ kind, settings })
        if (isAlike && kind !== 'number' && kind !== 'person')
          expect(values).toEqual(cells satisfies CellValue[])
      },
    ),
    { numRuns: 150 },
  )
})

const repeated = (words: readonly string[], times: number) =>
  Array.from({ length: times }, () => words).flat()

test.each<readonly [string, readonly string[], object]>([
  ['nothing', ['', ' '], { kind: 'text' }],
  ['names', ['Dinghy', 'Canoe', 'Tarp'], { kind: 'text' }],
  ['names that are numbered', ['sheet 1', 'sheet 2', 'sheet 30'], { kind: 'text' }],
  [
    'a few words again and again',
    repeated(['out', 'Back', 'OUT', ''], 4),
    { kind: 'state', settings: { states: [{ name: 'out' }, { name: 'Back' }] } },
  ],
  ['several words a cell', repeated(['wet, cold', 'cold', 'dry; wet'], 6), { kind: 'tags' }],
  ['lines', ['one\ntwo', 'three'], { kind: 'long text' }],
  [
    'decimals with a unit',
    ['€ 1,204.50', '€ 3.5', '€ 12'],
    { kind: 'number', settings: { places: 2, unit: '€' } },
  ],
  ['figures alone, though some would read them as yes and no', ['1', '0', '1', '1'], { kind: 'number' }],
  [
    'days, a few of them faulty',
    [...repeated(['2026-11-03'], 19), 'soon'],
    { kind: 'date', settings: { withTime: false } },
  ],
  ['instants', ['2026-11-03 09:30', '2026-11-04 10:00'], { kind: 'date', settings: { withTime: true } }],
  ['mail addresses', ['a@x.example', 'b@x.example'], { kind: 'link' }],
])('%s', (_what, texts, expected) => {
  expect(guessedKind(texts, usage)).toMatchObject(expected)
})

test('how a country writes is found by what can be read in one way only', () => {
  const usual = { decimal: '.', isDayFirst: true } as const
  expect(writtenAs(['1.204,50', '3,5', '12'], usual)).toEqual({ decimal: ',', isDayFirst: true })
  expect(writtenAs(['11/13/2026', '1/2/2026', '1,204.50'], usual)).toEqual({
    decimal: '.',
    isDayFirst: false,
  })
  expect(writtenAs(['13/11/2026'], { decimal: ',', isDayFirst: false })).toEqual({
    decimal: ',',
    isDayFirst: true,
  })
  // What could be either is as usual.
  expect(writtenAs(['1,204', '1/2/2026'], usual)).toEqual(usual)
})
