import { ownPlacesBelow } from '#core/access/by-id.ts'
import { setImmediate } from 'node:timers/promises'
import type { OwnAccessPlaceView, OwnAccessView } from '#contract/views/access.ts'
import type { PlaceName } from '#contract/views/names.ts'
import { actionsAsIfActive } from '#core/access/evaluate.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { has, holds } from '#core/levels/action.ts'
import { partsOf } from '#core/rules/principal.ts'
import { type Snapshot, pathOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, mayName, nameOf } from '../viewer/asker.ts'
import { askedPlace } from '../viewer/questions.ts'

/**
 * What below a place has entries of its own; to whoever shares there, or may check anyone's access. How many there are
 * that the asker cannot see is told to whoever shares.
 */
export async function ownAccessView(asker: Asker, id: string): Promise<OwnAccessView> {
  const { place, actions } = askedPlace(asker, id)
  const shares = has(actions, 'share')
  if (!shares && !asks(asker, 'check access')) throw problemOf('not-found')
  const found = await ownAccessBelow(asker, place)
  const hiddenBelow = shares ? found.hiddenBelow : 0
  return { revision: asker.snapshot.state.revision, ...found, hiddenBelow }
}

/** So many are named, and others counted. */
const namedAtMost = 200
/** So many are looked at between one turn of others and the next. */
const atOnce = 1000

/** Places below with entries of their own, down the tree: named where the asker may name them, else counted. */
export async function ownAccessBelow(
  asker: Asker,
  { node }: Place,
): Promise<Omit<OwnAccessView, 'revision'>> {
  const known: NodeId[] = []
  let hiddenBelow = 0
  let looked = 0
  for (const { id, isException, isBinned } of ownPlacesBelow(asker.snapshot.state, node.id)) {
    if (isException && !isBinned) {
      if (mayName(asker, id)) known.push(id)
      else hiddenBelow += 1
    }
    looked += 1
    if (looked % atOnce === 0) await setImmediate()
  }
  const below = known.slice(0, namedAtMost).map(id => exceptionView(asker, id))
  // As one would meet them walking down.
  const wayTo = (each: OwnAccessPlaceView) =>
    pathOf(asker.snapshot.state, each.id as NodeId)
      .map(above => above.name)
      .toReversed()
      .join(' › ')
  return {
    below: below
      .map(each => ({ each, way: wayTo(each) }))
      .sort((a, b) => compareWords(a.way, b.way))
      .map(({ each }) => each),
    moreBelow: known.length - below.length,
    hiddenBelow,
  }
}

function exceptionView({ snapshot }: Asker, id: NodeId): OwnAccessPlaceView {
  const { state } = snapshot
  const node = rowOf(state.nodes, id) as ContentNode
  return {
    id,
    name: node.name,
    isBroken: node.broken !== null,
    isDraft: node.draft,
    isArchived: node.archived,
    web: node.web,
    grants: rowsBy(state.grants, 'node', id).length,
    limits: rowsBy(state.limits, 'node', id).length,
    heldBack: heldBackAt(snapshot, id),
  }
}

/** Who is given something there by name and has less. */
function heldBackAt(snapshot: Snapshot, id: NodeId): PlaceName[] {
  const place = placeOf(snapshot, id)
  if (place === undefined || place.limits.length === 0) return []
  return place.grants
    .filter(each => each.grant.node === id)
    .flatMap(({ grant, actions }) => {
      const parts = partsOf(grant.principal)
      const subject = parts.kind === 'person' ? subjectOf(snapshot, parts.person) : undefined
      if (subject === undefined || holds(actionsAsIfActive(snapshot, subject, place), actions)) return []
      return [{ id: subject.person.id, name: nameOf(snapshot, subject.person.id) }]
    })
}
