import { type ImportField, importFields } from '#contract/requests.ts'
import type { ImportRow } from '#contract/requests.ts'

/** Under what columns are known, besides the word that is shown. */
const known: Readonly<Record<ImportField, { readonly word: string; readonly heads: readonly string[] }>> = {
  mail: {
    word: 'Mail',
    heads: ['e-mail', 'email', 'mail address', 'email address', 'address', 'e-mail address'],
  },
  name: { word: 'Name', heads: ['full name', 'display name', 'person'] },
  handle: { word: 'Handle', heads: ['nickname', 'user name', 'username', 'login'] },
  title: { word: 'Title', heads: ['job title', 'function', 'position'] },
  department: { word: 'Department', heads: ['organisation', 'organization', 'unit', 'company'] },
  country: { word: 'Country', heads: ['nation'] },
  as: { word: 'Comes as', heads: ['kind', 'type', 'member or guest'] },
  role: { word: 'Role', heads: ['roles'] },
  teams: { word: 'Teams', heads: ['team', 'groups', 'group'] },
  until: { word: 'Last day', heads: ['until', 'end', 'ends', 'end date', 'through'] },
}

export const fieldWord = (field: ImportField): string => known[field].word

/** Which field each column of a table is: `null` for one that is left aside. */
export type Mapping = readonly (ImportField | null)[]

/** By the names of the columns; a field is taken from the first that fits. */
export function mappingFor(heads: readonly string[]): Mapping {
  const taken = new Set<ImportField>()
  return heads.map(head => {
    const plain = head.trim().toLowerCase()
    const field = importFields.find(
      each =>
        !taken.has(each) && (known[each].word.toLowerCase() === plain || known[each].heads.includes(plain)),
    )
    if (field !== undefined) taken.add(field)
    return field ?? null
  })
}

export const rowFrom = (cells: readonly string[], mapping: Mapping): ImportRow =>
  Object.fromEntries(
    mapping.flatMap((field, index) => (field === null ? [] : [[field, (cells[index] ?? '').slice(0, 2000)]])),
  )

/** The table with one cell changed; the rest is shared. */
export const withCell = (
  rows: readonly (readonly string[])[],
  { row, column, text }: { row: number; column: number; text: string },
): readonly (readonly string[])[] =>
  rows.map((cells, index) =>
    index === row
      ? Array.from({ length: Math.max(cells.length, column + 1) }, (_, at) =>
          at === column ? text : (cells[at] ?? ''),
        )
      : cells,
  )
