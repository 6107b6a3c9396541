import { setTimeout as after } from 'node:timers/promises'
import type { SearchQuery } from '#contract/requests.ts'
import type { SearchHit, SearchView } from '#contract/views/search.ts'
import { foldedWords, placesOf } from '#core/base/fold-words.ts'
import { rowOf } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { pathOf } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { FoundDocument, MatchQuery, PagedQuery } from '../../store/search/index-port.ts'
import { documentsSeen, fewDocuments, visibleOf } from '../../worker/visible-documents.ts'
import { type Asker, knowsPerson, maySee, nameOf, pathWords, visiblePlace } from '../viewer/asker.ts'
import { columnsSeen, seesCells } from './cells.ts'
import { documentNodesFor } from './document-nodes.ts'
import { excerptOf } from './excerpt.ts'
import { peopleFound, teamsFound } from './people-found.ts'
import { ranked } from './rank.ts'

/**
 * What somebody may see, by its words. The index tells what matches, the newest first; the core says of each what is
 * seen, before it is counted, ranked or read. How long it takes tells nothing either: an answer leaves at the next of
 * some fixed instants, but for who sees everything anyway.
 */

/** So many words are looked for, and so many hits are ranked, of each way to be one. */
const wordsAtMost = 8
const mostRanked = 200
const pageLength = 20
/** Of so few documents each is looked at by itself. */
const littleIs = 2000
/** In milliseconds. */
const tick = 20

export async function searchView(parts: Parts, asker: Asker, query: SearchQuery): Promise<SearchView> {
  const began = performance.now()
  const words = wordsOf(query.find ?? '')
  const looking = lookingFor(asker, query, words)
  const seesColumn = columnsSeen(asker)
  const { seesAll, numbers } = await foundBy(parts, asker, { ...looking, seesColumn })
  const documents = await parts.index.documents(asker.workspace, numbers)
  const hits = ranked(documents.filter(isVisible(asker, { ...looking, seesColumn })), {
    words,
    now: parts.clock(),
  })
  const from = Number(query.from ?? 0)
  const page = hits.slice(from, from + pageLength)
  const isFirst = from === 0 && hasNoConditions(query)
  const [hitsShown, people] = await Promise.all([
    hitViews(parts, asker, { page, words }),
    isFirst ? peopleFound(asker, words) : [],
  ])
  const view: SearchView = {
    hits: hitsShown,
    next: hits.length > from + pageLength ? from + pageLength : null,
    people,
    teams: isFirst ? teamsFound(asker, words) : [],
    indexed: parts.indexing.done,
  }
  if (!seesAll) await after(tick - ((performance.now() - began) % tick))
  return view
}

/** The last one may be half typed, and so may any other: each is a beginning. */
const wordsOf = (find: string): string[] => [...new Set(foldedWords(find))].slice(0, wordsAtMost)

const hasNoConditions = ({ in: place, by, kind, since }: SearchQuery): boolean =>
  [place, by, kind, since].every(each => each === undefined)

interface Looking extends MatchQuery {
  readonly within: NodeId | null
}

function lookingFor(
  asker: Asker,
  { in: place, by, kind, since }: SearchQuery,
  words: readonly string[],
): Looking {
  if (by !== undefined && !knowsPerson(asker, by as PersonId)) throw problemOf('not-found')
  return {
    workspace: asker.workspace,
    words,
    within: place === undefined ? null : visiblePlace(asker, place).place.node.id,
    ...(kind === undefined ? {} : { kinds: [kind] }),
    ...(by === undefined ? {} : { by: by as PersonId }),
    ...(since === undefined ? {} : { since: Number(since) }),
  }
}

interface Seeing extends Looking {
  readonly seesColumn: (column: ColumnId) => boolean
}

interface Found {
  readonly numbers: readonly number[]
  readonly seesAll: boolean
}

/**
 * Who sees little is answered from that: it costs what they see, however many others match. Else by the whole name, by words
 * of it, by words anywhere: of each the newest that the asker sees.
 */
async function foundBy(
  parts: Parts,
  asker: Asker,
  { within, seesColumn, ...looking }: Seeing,
): Promise<Found> {
  const kept = await documentNodesFor(parts, { workspace: asker.workspace, state: asker.snapshot.state })
  const seen = await documentsSeen(parts.thread, { ...asker, kept, within, seesColumn })
  const ways = waysTo(looking)
  const last = ways.at(-1)
  if (seen === undefined || last === undefined) return { numbers: [], seesAll: seen?.seesAll ?? false }
  const { seesAll } = seen
  const few = await fewDocuments(seen, littleIs)
  if (few !== undefined) return { numbers: [...(await parts.index.matchesAmong(last, few))], seesAll }
  const found = new Set<number>()
  for (const query of ways) {
    let left = mostRanked
    for await (const numbers of parts.index.matches(query)) {
      const more = visibleOf(
        seen,
        numbers.filter(each => !found.has(each)),
        left,
      )
      for (const number of more) found.add(number)
      left -= more.length
      if (left === 0) break
    }
  }
  return { numbers: [...found], seesAll }
}

/** What begins with one letter is too much to be looked for: that is a name, or nothing. */
function waysTo({ words, ...looking }: MatchQuery): PagedQuery[] {
  const longer = words.filter(each => each.length > 1)
  const isAsked = looking.kinds !== undefined || looking.by !== undefined || looking.since !== undefined
  const exact = { ...looking, words: [], name: words.join(' '), where: 'names' } as const
  const named = words.length > 0 ? [exact] : []
  if (words.length > 0 ? longer.length === 0 : !isAsked) return named
  const begun = { ...looking, words: longer }
  return [...named, { ...begun, where: 'names' }, { ...begun, where: 'texts' }]
}

/** Once more by its id, which is never another place's. */
const isVisible =
  (asker: Asker, { within, since = 0, seesColumn }: Seeing) =>
  (document: FoundDocument): boolean => {
    const { node, changedAt } = document
    return (
      maySee(asker, node) &&
      seesCells(asker, document, seesColumn) &&
      changedAt >= since &&
      (within === null || pathOf(asker.snapshot.state, node).some(each => each.id === within))
    )
  }

interface Page {
  readonly page: readonly FoundDocument[]
  readonly words: readonly string[]
}

async function hitViews(parts: Parts, asker: Asker, { page, words }: Page): Promise<SearchHit[]> {
  const { workspace, snapshot } = asker
  const bodies = await parts.index.bodies(
    workspace,
    page.map(each => each.number),
  )
  return page.flatMap(({ number, node: id, part, changedAt, changedBy }) => {
    const node = rowOf(snapshot.state.nodes, id)
    if (node === undefined) return []
    // As it is called now, whatever the index says.
    const { name, kind } = node
    return [
      {
        id,
        kind,
        name: { text: name, marks: placesOf(name, words) },
        path: pathWords(asker, pathOf(snapshot.state, id).slice(1)),
        part: part.startsWith('column:') ? 'cells' : (part as SearchHit['part']),
        excerpt: excerptOf(bodies.get(number) ?? '', words),
        changedAt,
        changedBy: changedBy !== null && knowsPerson(asker, changedBy) ? nameOf(snapshot, changedBy) : null,
      },
    ]
  })
}
