import { allRows, rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { check } from '#core/access/evaluate.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import type { RecordedImpact } from '#core/impact/bulk.ts'
import { beyond, has } from '#core/levels/action.ts'
import { pathOf } from '#core/state/state.ts'
import { listed, nounFor, peopleWords, placesWords } from '#core/words/english.ts'
import { holdsAt } from '../../viewer/asker.ts'
import { whoDid } from '../words.ts'
import { isMember, type NotificationKind, type Written } from '../kind.ts'

interface Data {
  readonly by: PersonId
  readonly node: NodeId
  readonly revision: number
  readonly gain: number
  readonly lose: number
  readonly places: number
}

/** Who has access changed at a place that one watches, or below it: by somebody else's act, or by time. */
export const watched: NotificationKind<Data> = {
  kind: 'watched',
  when: 'access changes on a place that I watch',
  reaches: isMember,
  find: written =>
    allRows(written.after.state.watches)
      .filter(each => each.person !== written.author)
      .flatMap(({ person, node }) => {
        const counts = countsFor(written, person, node)
        const data = { by: written.author, node, revision: written.revision, ...counts }
        return counts.places === 0 ? [] : [{ person, data }]
      }),
  tell: (reader, { by, node, revision, gain, lose, places }) => {
    const place = rowOf(reader.snapshot.state.nodes, node)
    if (place === undefined || !holdsAt(reader, node, 'share')) return undefined
    const who = by === theWorkspace ? 'A start or an end date' : whoDid(reader, by)
    const parts = [
      ...(gain === 0 ? [] : [`${peopleWords(gain)} ${nounFor(gain, 'gains', 'gain')} access`]),
      ...(lose === 0 ? [] : [`${peopleWords(lose)} ${nounFor(lose, 'loses', 'lose')} access`]),
    ]
    const where = places === 1 ? '' : ` on ${placesWords(places)}`
    const text = `${who} changed who has access to ${place.name}. ${listed(parts)}${where}.`
    return { text, place: { id: node, name: place.name }, revision }
  },
}

/** What changed for others where the watcher gives access; the web is nobody. */
function countsFor(written: Written, watcher: PersonId, node: NodeId) {
  const { impact, bulk, before, after } = written
  if (bulk !== null) return bulkCountsFor(written, bulk, { watcher, node })
  const gain = new Set<string>()
  const lose = new Set<string>()
  const places = new Set<string>()
  for (const each of impact) {
    if (each.person === watcher) continue
    if (![before, after].some(({ state }) => pathOf(state, each.node).some(({ id }) => id === node))) continue
    if (![before, after].some(snapshot => has(check(snapshot, watcher, each.node), 'share'))) continue
    places.add(each.node)
    if (beyond(each.after, each.before).length > 0) gain.add(each.person)
    if (beyond(each.before, each.after).length > 0) lose.add(each.person)
  }
  return { gain: gain.size, lose: lose.size, places: places.size }
}

/** Of a wide change all is told where it lies in what is watched; where that lies in it, that it concerns it. */
function bulkCountsFor(
  { before, after }: Written,
  { counted, roots }: RecordedImpact,
  { watcher, node }: { readonly watcher: PersonId; readonly node: NodeId },
) {
  const isWithin = (inner: NodeId, outer: NodeId) =>
    [before, after].some(({ state }) => pathOf(state, inner).some(({ id }) => id === outer))
  const shares = [before, after].some(snapshot => has(check(snapshot, watcher, node), 'share'))
  const isInIt = roots.some(top => isWithin(node, top))
  if (counted === null || !shares || (!isInIt && !roots.some(top => isWithin(top, node))))
    return { gain: 0, lose: 0, places: 0 }
  return {
    gain: counted.gains.people,
    lose: counted.losses.people,
    places: isInIt ? 1 : counted.places,
  }
}
