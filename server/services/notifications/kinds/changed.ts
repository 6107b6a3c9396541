import type { NodeId, PersonId } from '#core/base/ids.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import { noActions } from '#core/levels/action.ts'
import { levelAt, listed, visiblePlaces, whoDid } from '../words.ts'
import { ownDifferences } from '../differences.ts'
import type { NotificationKind } from '../kind.ts'

interface Data {
  readonly by: PersonId
  /** Seen before and after, with another level. */
  readonly nodes: readonly NodeId[]
  readonly hasLost: boolean
}

/** Another level than before, or places that one sees no more: those are never named again. */
export const changed: NotificationKind<Data> = {
  kind: 'changed',
  when: 'my access to a place changes',
  preset: 'here only',
  find: written =>
    [...ownDifferences(written)].flatMap(([person, differences]) => {
      const known = differences.filter(each => each.before !== noActions)
      const nodes = known.filter(each => each.after !== noActions).map(each => each.node)
      const data = { by: written.author, nodes, hasLost: nodes.length < known.length }
      return known.length === 0 ? [] : [{ person, data }]
    }),
  tell: (reader, { by, nodes, hasLost }) => {
    const places = visiblePlaces(reader, nodes)
    const [first] = places
    const lost = 'You have lost access to something.'
    if (first === undefined) return hasLost ? { text: lost, place: null, revision: null } : undefined
    const level = places.length === 1 ? ` You now have ${levelAt(reader, first.id)}.` : ''
    const what = `your access to ${listed(places)}`
    const text =
      by === theWorkspace
        ? `A start or an end date changed ${what}.${level}`
        : `${whoDid(reader, by)} changed ${what}.${level}`
    return { text: hasLost ? `${text} ${lost}` : text, place: first, revision: null }
  },
}
