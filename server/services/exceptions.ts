import type { ExceptionsView, ExceptionView, PlaceName } from '#contract/views.ts'
import { actionsAsIfActive } from '#core/access/evaluate.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { apartBelow } from '#core/access/regions.ts'
import { subjectOf } from '#core/access/subject.ts'
import { rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { has, holds } from '#core/levels/action.ts'
import { partsOf } from '#core/rules/principal.ts'
import { pathOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { problemOf } from '../problem-error.ts'
import { type Asker, asks, mayName, nameOf } from './asker.ts'
import { askedPlace } from './questions.ts'

/** What below a place has entries of its own; to whoever shares there, or may check anyone's access. */
export function exceptionsView(asker: Asker, id: string): ExceptionsView {
  const { place, actions } = askedPlace(asker, id)
  if (!has(actions, 'share') && !asks(asker, 'check access')) throw problemOf('not-found')
  return { revision: asker.moment.state.revision, ...exceptionsBelow(asker, place) }
}

/** Nodes below with entries of their own: named where the asker may name them, else counted. */
export function exceptionsBelow(asker: Asker, { node }: Place): Omit<ExceptionsView, 'revision'> {
  const { state } = asker.moment
  const below: ExceptionView[] = []
  let hiddenBelow = 0
  for (const each of apartBelow(asker.moment, node.id)) {
    const grants = rowsBy(state.grants, 'node', each.id).length
    const limits = rowsBy(state.limits, 'node', each.id).length
    const isBroken = each.broken !== null
    if (each.id === node.id || each.binned !== null || (grants + limits === 0 && !isBroken)) continue
    if (!mayName(asker, each.id)) hiddenBelow += 1
    else
      below.push({
        id: each.id,
        name: each.name,
        isBroken,
        grants,
        limits,
        heldBack: heldBackAt(asker, each),
      })
  }
  // As one would meet them walking down.
  const wayTo = (each: ExceptionView) =>
    pathOf(state, each.id as NodeId)
      .map(above => above.name)
      .toReversed()
      .join(' › ')
  return { below: below.sort((a, b) => wayTo(a).localeCompare(wayTo(b))), hiddenBelow }
}

/** Who is given something there by name and has less. */
function heldBackAt({ moment }: Asker, { id }: ContentNode): PlaceName[] {
  const place = placeOf(moment, id)
  if (place === undefined || place.limits.length === 0) return []
  return place.grants
    .filter(each => each.grant.node === id)
    .flatMap(({ grant, actions }) => {
      const parts = partsOf(grant.principal)
      const subject = parts.kind === 'person' ? subjectOf(moment, parts.person) : undefined
      if (subject === undefined || holds(actionsAsIfActive(moment, subject, place), actions)) return []
      return [{ id: subject.person.id, name: nameOf(moment, subject.person.id) }]
    })
}
