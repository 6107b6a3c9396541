import fc from 'fast-check'
import { expect, test } from 'vitest'
import { datesFor } from './dates.tsx'
import { dayForm } from './day-form.ts'

const formOf = (language: string) => dayForm(at => datesFor(language)(at, 'numbers', 'UTC'))

test('what is written in any language’s form is read as the same day, and so is the plain form', () => {
  const days = fc
    .date({ min: new Date('2001-01-01'), max: new Date('2099-12-31'), noInvalidDate: true })
    .map(date => date.toISOString().slice(0, 10))
  const languages = [
    'en-GB',
    'en-US',
    'de',
    'fr',
    'es',
    'nl',
    'sv',
    'hu',
    'pl',
    'ja',
    'ko',
    'lt',
    'ar-EG',
    'th',
    'fa',
  ]
  fc.assert(
    fc.property(days, fc.constantFrom(...languages), (day, language) => {
      const { read, write } = formOf(language)
      expect([read(write(day)), read(day)]).toEqual([day, day])
    }),
    { numRuns: 500 },
  )
})

test('days are read in the reader’s order; what is no day is not read', () => {
  const british = formOf('en-GB')
  expect(british.pattern).toBe('dd/mm/yyyy')
  expect(formOf('en-US').pattern).toBe('mm/dd/yyyy')
  expect(formOf('de').pattern).toBe('dd.mm.yyyy')
  expect(british.read('3/4/27')).toBe('2027-04-03')
  expect(formOf('en-US').read('3/4/2027')).toBe('2027-03-04')
  for (const none of [
    '',
    '31/2/2027',
    '13/13/2027',
    'tomorrow',
    '3/4',
    '3/4/2',
    '1/2/3/2027',
    'the 3/4/2027',
  ])
    expect([none, british.read(none)]).toEqual([none, undefined])
  expect(british.write('')).toBe('')
})
