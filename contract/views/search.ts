import { Type } from '@sinclair/typebox'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'
import { instant, nodeKind, personKind } from '../terms.ts'

/** A text with what was looked for in it: where each begins, and behind which sign it ends. */
const MarkedText = view('MarkedText', {
  text: Type.String(),
  marks: Type.Array(Type.Tuple([Type.Number(), Type.Number()])),
})
export type MarkedText = View<typeof MarkedText>

/** A place that was found: by its name or note, by what is written in it or in its cells, or by what stands in a file. */
export const SearchHit = view('SearchHit', {
  id: Type.String(),
  kind: nodeKind,
  name: MarkedText,
  /** What it stands in, as far as its reader sees it. */
  path: Type.String(),
  part: oneOf('place', 'text', 'file', 'cells'),
  excerpt: orNull(MarkedText),
  changedAt: instant,
  /** `null` for somebody whom the reader does not know. */
  changedBy: orNull(Type.String()),
})
export type SearchHit = View<typeof SearchHit>

export const SearchView = view('SearchView', {
  hits: Type.Array(SearchHit),
  /** From where on to ask for more. */
  next: orNull(Type.Number()),
  people: Type.Array(
    Type.Object(
      { id: Type.String(), name: MarkedText, kind: personKind, mail: orNull(Type.String()) },
      strict,
    ),
  ),
  teams: Type.Array(Type.Object({ id: Type.String(), name: MarkedText }, strict)),
  /** How much of the index is made, from 0 to 1. */
  indexed: Type.Number(),
})
export type SearchView = View<typeof SearchView>
