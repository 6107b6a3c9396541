import type { NodeId, PersonId } from '#core/base/ids.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import { noActions } from '#core/levels/action.ts'
import { nounFor } from '#core/words/english.ts'
import { levelAt, listed, quoted, visiblePlaces, whoDid } from '../words.ts'
import { ownDifferences } from '../differences.ts'
import type { NotificationKind } from '../kind.ts'

interface Data {
  readonly by: PersonId
  readonly nodes: readonly NodeId[]
  readonly message?: string
}

/** Places that one could not see before and sees now. */
export const opened: NotificationKind<Data> = {
  kind: 'opened',
  when: 'a place is shared with me',
  find: written =>
    [...ownDifferences(written)].flatMap(([person, differences]) => {
      const nodes = differences.filter(each => each.before === noActions).map(each => each.node)
      return nodes.length === 0
        ? []
        : [{ person, data: { by: written.author, nodes, message: written.message } }]
    }),
  tell: (reader, { by, nodes, message = '' }) => {
    const places = visiblePlaces(reader, nodes)
    const [first] = places
    if (first === undefined) return undefined
    const level = places.length === 1 ? ` You have ${levelAt(reader, first.id)}.` : ''
    const text =
      by === theWorkspace
        ? `${listed(places)} ${nounFor(places.length, 'is', 'are')} now shared with you.${level}`
        : `${whoDid(reader, by)} shared ${listed(places)} with you${quoted(message)}.${level}`
    return { text, place: first, revision: null }
  },
}
