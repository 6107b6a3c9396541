import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { check } from '#core/access/evaluate.ts'
import { listed as listedWords } from '#core/words/english.ts'
import { nameOfActions } from '#core/levels/level.ts'
import { allRows } from '#core/base/collection.ts'
import type { PlaceName } from '#contract/views/names.ts'
import { type Asker, knowsPerson, maySee, nameOf } from '../viewer/asker.ts'

/** Those of some places that a reader sees now. */
export const visiblePlaces = (reader: Asker, nodes: readonly NodeId[]): PlaceName[] =>
  nodes
    .filter(node => maySee(reader, node))
    .map(id => ({ id, name: rowOf(reader.snapshot.state.nodes, id)?.name ?? '' }))

/** "A, B and 3 more". */
export const listed = (places: readonly PlaceName[]): string =>
  listedWords(
    places.map(place => place.name),
    2,
  )

export const levelAt = (reader: Asker, node: string): string =>
  nameOfActions(check(reader.snapshot, reader.person, node as NodeId), allRows(reader.snapshot.state.levels))
    .name

export const whoDid = (reader: Asker, by: PersonId): string =>
  knowsPerson(reader, by) ? nameOf(reader.snapshot, by) : 'Somebody'

/** A word that somebody sent along, as the end of a sentence. */
export const quoted = (word: string): string => (word === '' ? '' : `: “${word.replace(/\.$/, '')}”`)
