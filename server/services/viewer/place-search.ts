import { setImmediate } from 'node:timers/promises'
import type { PlaceHit } from '#contract/views/content.ts'
import { check } from '#core/access/evaluate.ts'
import { idsHolding, rowOf } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { pathOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { type Asker, pathWords } from './asker.ts'

interface Search {
  readonly find: string
  /** Asked first, of what may be meant: rights, which are known without the record. */
  readonly may: (id: NodeId, actions: ActionSet) => boolean
  readonly fits?: (node: ContentNode) => boolean
}

const foundAtMost = 50

/**
 * Places by a part of their name, by name; past so many the search ends. It lets others have their turn: there can be
 * a million names.
 */
export async function findPlaces(asker: Asker, { find, may, fits }: Search): Promise<PlaceHit[]> {
  const { snapshot, person } = asker
  const { nodes } = snapshot.state
  const wanted = find.trim().toLowerCase()
  const found: PlaceHit[] = []
  for (const ids of idsHolding(nodes, wanted)) {
    for (const id of ids) {
      const actions = check(snapshot, person, id)
      if (!may(id, actions)) continue
      const node = rowOf(nodes, id)
      if (
        node?.name.toLowerCase().includes(wanted) === true &&
        node.parent !== null &&
        fits?.(node) !== false
      )
        found.push(placeHit(asker, node, actions))
      if (found.length === foundAtMost) return inOrder(found)
    }
    await setImmediate()
  }
  return inOrder(found)
}

export const placeHit = (asker: Asker, { id, name }: ContentNode, actions: ActionSet): PlaceHit => ({
  id,
  name,
  path: pathWords(asker, pathOf(asker.snapshot.state, id).slice(1)),
  actions,
})

const inOrder = (found: readonly PlaceHit[]) =>
  found.toSorted((a, b) => compareWords(a.name, b.name) || compareWords(a.path, b.path))
