import { setImmediate } from 'node:timers/promises'
import { beginsIn, fold, foldedWords } from '#core/base/fold-words.ts'
import type { DocumentNumbers, MatchQuery, PagedQuery, SearchDocument } from '../../search/index-port.ts'
import type { Connection } from './connection.ts'
import { anyFacet, kindFacet, nameFacet, numberFrom, numbersIn, personFacet, range } from './search-terms.ts'

/** The first few are mostly enough; each further statement may look for all anew. */
const batchSizes = [300, 5000]
const allThatIsLeft = 2_000_000

const someOf = (words: readonly string[]): string => `(${words.map(word => `"${word}"`).join(' OR ')})`

/** Where words are looked for in each table. */
const columns = { names: '{name}', texts: '{body context}' } as const

interface Way {
  readonly table: keyof typeof columns
  readonly each: (word: string) => string
}

const wholeWord = (word: string): string => `"${word}"`
const beginning = (word: string): string => `"${word}" *`

function expressionOf({ words, name, kinds = [], by }: MatchQuery, { table, each }: Way): string {
  const facets = [
    ...(name === undefined ? [] : [someOf([nameFacet(name)])]),
    ...(kinds.length === 0 ? [] : [someOf(kinds.map(kindFacet))]),
    ...(by === undefined ? [] : [someOf([personFacet(by)])]),
  ]
  const asked = [
    ...(name === undefined && words.length > 0
      ? [`${columns[table]} : (${words.map(each).join(' AND ')})`]
      : []),
    ...(facets.length === 0 ? [] : [`{facets} : (${facets.join(' AND ')})`]),
  ]
  return asked.length === 0 ? `{facets} : "${anyFacet}"` : asked.join(' AND ')
}

/**
 * Whole words first: a common one is read from its end, as far as it is needed, where of a beginning all that begins so
 * is put together before the first is known, but for the shortest.
 */
export async function* matchesIn(
  read: Connection['all'],
  base: number,
  { where: table, ...query }: PagedQuery,
): AsyncGenerator<DocumentNumbers> {
  const least = query.since === undefined ? base : await firstSince(read, base, query.since)
  if (least === undefined) return
  const ways = query.name === undefined && query.words.length > 0 ? [wholeWord, beginning] : [wholeWord]
  for (const each of ways)
    yield* batches(read, { base, least, table, expression: expressionOf(query, { table, each }) })
}

interface Expressed {
  readonly base: number
  readonly least: number
  readonly table: Way['table']
  readonly expression: string
}

async function* batches(
  read: Connection['all'],
  { base, least, table, expression }: Expressed,
): AsyncGenerator<DocumentNumbers> {
  let behind = base + range
  for (let batch = 0; ; batch += 1) {
    const count = batchSizes[batch] ?? allThatIsLeft
    const [row] = await read(
      `SELECT group_concat(id) AS ids FROM (SELECT ${numberFrom('rowid')} AS id FROM ${table}
        WHERE ${table} MATCH ? AND rowid >= ? AND rowid < ? ORDER BY rowid DESC LIMIT ?)`,
      [base, expression, least, behind, count],
    )
    const numbers = numbersIn(row?.['ids'])
    if (numbers.length > 0) yield numbers
    if (numbers.length < count) return
    behind = base + (numbers.at(-1) ?? 0)
  }
}

interface Among {
  readonly base: number
  readonly query: MatchQuery
  readonly numbers: readonly number[]
}

/** So many bytes of texts are looked through here; with more the index is asked, which then looks at all that matches. */
const lookedThrough = 4 * 1024 ** 2
/** Others are let in after so many. */
const atOnce = 200_000

/**
 * Texts of which somebody sees few are looked through themselves: whatever else there is costs nothing, and how long it takes
 * says nothing of it.
 */
export async function matchesAmong(
  read: Connection['all'],
  { base, query, numbers }: Among,
): Promise<DocumentNumbers> {
  const ids = JSON.stringify(numbers.map(number => base + number))
  const among = 'IN (SELECT value FROM json_each(?))'
  const [sum] = await read(`SELECT SUM(octet_length(body)) AS bytes FROM documents WHERE id ${among}`, [ids])
  if (Number(sum?.['bytes'] ?? 0) > lookedThrough) {
    // Not pushed into the index, which would look for all of the words once for each of them.
    const parts = await Promise.all(
      (query.name === undefined ? (['names', 'texts'] as const) : (['names'] as const)).map(async table => {
        const [row] = await read(
          `SELECT group_concat(${numberFrom('rowid')}) AS ids FROM ${table} WHERE ${table} MATCH ? AND +rowid ${among}`,
          [base, expressionOf(query, { table, each: beginning }), ids],
        )
        return [...numbersIn(row?.['ids'])]
      }),
    )
    return Int32Array.from(parts.flat())
  }
  const rows = await read(
    `SELECT ${numberFrom('id')} AS number, part, name, body, kind, changedBy FROM documents WHERE id ${among}`,
    [base, ids],
  )
  const found: number[] = []
  let looked = 0
  for (const row of rows as unknown as Looked[]) {
    looked += row.body.length
    if (looked > atOnce) {
      looked = 0
      await setImmediate()
    }
    if (isMatch(row, query)) found.push(row.number)
  }
  return Int32Array.from(found)
}

type Looked = Pick<SearchDocument, 'part' | 'name' | 'body' | 'kind' | 'changedBy'> & {
  readonly number: number
}

/** What the index says of a document, read from itself. */
function isMatch({ part, name, body, kind, changedBy }: Looked, query: MatchQuery): boolean {
  const { words, name: whole, kinds = [], by } = query
  if (kinds.length > 0 && !kinds.includes(kind)) return false
  if (by !== undefined && by !== changedBy) return false
  if (whole !== undefined) return part === 'place' && foldedWords(name).join(' ') === whole
  const own = fold(`${name}\n${body}`)
  return words.every(word => beginsIn(own, word))
}

async function firstSince(read: Connection['all'], base: number, since: number): Promise<number | undefined> {
  const [row] = await read('SELECT MIN(id) AS id FROM documents WHERE space = ? AND changedAt >= ?', [
    base / range,
    since,
  ])
  return row?.['id'] == null ? undefined : Number(row['id'])
}
