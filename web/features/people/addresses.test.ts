import { expect, test } from 'vitest'
import type { PersonView } from '#contract/views.ts'
import { readAddresses } from './addresses.ts'

const people = [
  { mail: 'here@a.example', status: 'active' },
  { mail: 'asked@a.example', status: 'invited' },
] as PersonView[]

const read = (text: string) =>
  readAddresses(text, people).map(({ mail, name, verdict }) => [mail, name, verdict])

test('a list is read in any shape', () => {
  const expected = [
    ['ada@a.example', 'Ada Lowe', 'new'],
    ['ben@a.example', '', 'new'],
    ['cy@a.example', 'Ohm, Cy', 'new'],
    ['dot@a.example', '', 'new'],
  ]
  expect(read('Ada Lowe <Ada@a.example>; ben@a.example\n"Ohm, Cy" <cy@a.example>,, dot@a.example ')).toEqual(
    expected,
  )
  expect(read('ada@a.example ben@a.example').map(([mail]) => mail)).toEqual([
    'ada@a.example',
    'ben@a.example',
  ])
})

test('each address is judged at once', () => {
  expect(
    read('HERE@a.example, asked@a.example, new@a.example, new@a.example, nobody@, x@y').map(each => each[2]),
  ).toEqual([
    'here already',
    'invited already',
    'new',
    'twice in the list',
    'not an address',
    'not an address',
  ])
})
