import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { foldedWords } from '#core/base/fold-words.ts'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { MatchQuery, Part, SearchDocument, SearchIndex } from '../../search/index-port.ts'
import { openSearch } from './search.ts'

/** The three ways in which the index is asked say the same, and that is what a look at every document says. */

const workspace = 'coast' as WorkspaceId
const vocabulary = ['tern', 'terns', 'ternary', 'sluice', 'slu', 'gate', 'Grünschenkel', 'ab', 'a', '10']
const kinds = ['page', 'file', 'folder']
const people = ['ona', 'mika'] as PersonId[]

const folder = mkdtempSync(join(tmpdir(), 'noskel-index-'))
let index: SearchIndex
let documents: readonly SearchDocument[]
const nothing = { drops: [], waiting: [], read: [] }

beforeAll(async () => {
  index = await openSearch(folder, { readsOnly: false })
  const words = fc.array(fc.constantFrom(...vocabulary), { minLength: 1, maxLength: 4 })
  const one = fc.record({ name: words, body: words, kind: fc.nat(2), by: fc.nat(1), written: fc.boolean() })
  documents = fc
    .sample(fc.array(one, { minLength: 150, maxLength: 150 }), { numRuns: 1, seed: 3 })[0]!
    .map(({ name, body, kind, by, written }, at) => ({
      workspace,
      node: `n${Math.floor(at / 2)}` as NodeId,
      part: (at % 2 === 0 ? 'place' : written ? 'text' : 'column:fees') as Part,
      source: '1',
      name: name.join(' '),
      body: at % 2 === 0 && !written ? '' : body.join('. '),
      kind: kinds[kind] ?? '',
      changedAt: 1000 + at,
      changedBy: people[by] ?? null,
    }))
  // Others' words cost nothing and are never told; what is written again has its old words no more.
  await index.write({
    ...nothing,
    puts: documents.map(each => ({ ...each, workspace: 'other' as WorkspaceId })),
  })
  await index.write({
    ...nothing,
    puts: documents.map(each => ({ ...each, body: 'tern gate', name: 'sluice' })),
  })
  await index.write({ ...nothing, puts: documents })
})
afterAll(async () => {
  await index.close()
  rmSync(folder, { recursive: true })
})

/** The numbers of documents follow one another in the order in which they were put. */
const numberOf = (at: number) => documents.length + 1 + at

function isMatch({ part, name, body, kind, changedBy }: SearchDocument, query: MatchQuery): boolean {
  const { words, name: whole, kinds: some, by } = query
  if ((some !== undefined && !some.includes(kind)) || (by !== undefined && by !== changedBy)) return false
  if (whole !== undefined) return part === 'place' && foldedWords(name).join(' ') === whole
  const own = foldedWords(`${name} ${body}`)
  return words.every(word => own.some(each => each.startsWith(word)))
}

async function paged(query: MatchQuery): Promise<number[]> {
  const found = new Set<number>()
  for (const where of query.name === undefined ? (['names', 'texts'] as const) : (['names'] as const))
    for await (const numbers of index.matches({ ...query, where }))
      for (const each of numbers) found.add(each)
  return [...found].toSorted((a, b) => a - b)
}

const sought = fc.record(
  {
    words: fc.uniqueArray(
      fc.constantFrom('t', 'ter', 'tern', 'ternar', 'slu', 'sluic', 'gate', 'grun', 'a', '1'),
      {
        maxLength: 3,
      },
    ),
    name: fc.constantFrom('tern', 'sluice', 'gate tern', 'ab'),
    kinds: fc.constantFrom(['page'], ['file', 'folder']),
    by: fc.constantFrom(...people),
  },
  { requiredKeys: ['words'] },
)

test('page by page, and among some documents, the same is found as by looking at each', async () => {
  const numbers = documents.map((_, at) => numberOf(at))
  await fc.assert(
    fc.asyncProperty(sought, async asked => {
      const query = { workspace, ...asked, ...(asked.name === undefined ? {} : { words: [] }) } as MatchQuery
      const wanted = numbers.filter((_, at) => isMatch(documents[at]!, query))
      expect(await paged(query)).toEqual(wanted)
      expect([...(await index.matchesAmong(query, numbers))].toSorted((a, b) => a - b)).toEqual(wanted)
      const half = numbers.filter(each => each % 2 === 0)
      expect([...(await index.matchesAmong(query, half))].toSorted((a, b) => a - b)).toEqual(
        wanted.filter(each => each % 2 === 0),
      )
    }),
    { numRuns: 150 },
  )
})

test('more text than is looked through is asked of the index', async () => {
  const long = 'lagoon '.repeat(700_000)
  const puts = [{ ...documents[1]!, node: 'long' as NodeId, name: 'Tern', body: `${long} gatehouse` }]
  await index.write({ ...nothing, puts })
  const numbers = [...documents.map((_, at) => numberOf(at)), numberOf(documents.length)]
  for (const words of [['gateho'], ['lagoo', 'tern'], ['sluic']]) {
    const query = { workspace, words }
    const found = [...(await index.matchesAmong(query, numbers))]
    expect([...new Set(found)].toSorted((a, b) => a - b)).toEqual(await paged(query))
  }
  await index.write({
    ...nothing,
    puts: [],
    drops: puts.map(({ node, part }) => ({ workspace, node, part })),
  })
  expect(await paged({ workspace, words: ['gateho'] })).toEqual([])
})

test('since then is told without a look at what is older; what was changed last comes first', async () => {
  const query = { workspace, words: [], where: 'names', since: 1000 + 100 } as const
  const found: number[] = []
  for await (const numbers of index.matches(query)) found.push(...numbers)
  expect(found).toEqual(
    documents.flatMap(({ part }, at) => (part === 'place' && at >= 100 ? [numberOf(at)] : [])).toReversed(),
  )
})
