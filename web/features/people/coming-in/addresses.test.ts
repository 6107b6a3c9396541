import { expect, test } from 'vitest'
import { readAddresses } from './addresses.ts'

const read = (text: string) => readAddresses(text).map(({ mail, name }) => [mail, name])

test('a list is read in any shape', () => {
  const expected = [
    ['ada@a.example', 'Ada Lowe'],
    ['ben@a.example', ''],
    ['cy@a.example', 'Ohm, Cy'],
    ['dot@a.example', ''],
  ]
  expect(read('Ada Lowe <Ada@a.example>; ben@a.example\n"Ohm, Cy" <cy@a.example>,, dot@a.example ')).toEqual(
    expected,
  )
  expect(read('ada@a.example ben@a.example\tcy@a.example').map(([mail]) => mail)).toEqual([
    'ada@a.example',
    'ben@a.example',
    'cy@a.example',
  ])
  expect(read('A <a@x.example>B <b@x.example>')).toEqual([
    ['a@x.example', 'A'],
    ['b@x.example', 'B'],
  ])
})
