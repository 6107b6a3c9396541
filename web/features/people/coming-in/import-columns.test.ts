import { expect, test } from 'vitest'
import { importFields } from '#contract/import-fields.ts'
import { withCell } from '../../../ui/tables/mended.ts'
import { fieldWord, mappingFor, rowFrom } from './import-columns.ts'

test('columns are known by their names, in any case; the first of two is taken, others are left aside', () => {
  expect(mappingFor([' E-Mail ', 'FULL NAME', 'Shoe size', 'Organisation', 'mail', 'Last day', ''])).toEqual([
    'mail',
    'name',
    null,
    'department',
    null,
    'until',
    null,
  ])
})

test('columns are known in five languages, with and without marks on their letters', () => {
  const tables = [
    ['E-Mail-Adresse', 'Name', 'Abteilung', 'Land', 'Rolle', 'Gruppen', 'Letzter Tag'],
    ['Courriel', 'Nom', 'Société', 'Pays', 'Rôle', 'Équipes', 'Date de fin'],
    ['Correo electrónico', 'Nombre', 'Organización', 'País', 'Rol', 'Equipos', 'Último día'],
    ['e-mailadres', 'Naam', 'Afdeling', 'Land', 'Rollen', 'Groepen', 'Einddatum'],
    ['EMAIL_ADDRESS', 'full name', 'company', 'Country', 'role', 'Team', 'End date'],
  ]
  for (const heads of tables)
    expect(mappingFor(heads)).toEqual(['mail', 'name', 'department', 'country', 'role', 'teams', 'until'])
})

test('each field finds itself by the word that is shown for it', () => {
  expect(mappingFor(importFields.map(fieldWord))).toEqual(importFields)
})

test('a row has what its columns are taken for; cells that are missing are empty, and none is endless', () => {
  const mapping = mappingFor(['Shoe size', 'Mail', 'Name', 'Title'])
  expect(rowFrom(['44', 'a@b.example', 'x'.repeat(3000)], mapping)).toEqual({
    mail: 'a@b.example',
    name: 'x'.repeat(2000),
    title: '',
  })
})

test('one cell is mended, in a short row too, and the other rows are the same rows', () => {
  const rows = [['a'], ['b', 'c']]
  const mended = withCell(rows, { row: 0, column: 2, text: 'new' })
  expect(mended).toEqual([
    ['a', '', 'new'],
    ['b', 'c'],
  ])
  expect(mended[1]).toBe(rows[1])
})
