import type { NodeId, PersonId } from '#core/base/ids.ts'
import { ownersOf } from '#core/access/powers.ts'
import { leftAlone } from '#core/changes/guards/steward-left.ts'
import { placesWords } from '#core/words/english.ts'
import { type Asker, mayOutline, maySee } from '../../viewer/asker.ts'
import { listed, visiblePlaces, whoDid } from '../words.ts'
import { isOwner, type NotificationKind, type Written } from '../kind.ts'

interface Data {
  readonly nodes: readonly NodeId[]
}

/** Somebody left, or their time ended, who alone gave and took access at some places: all Owners are told. */
export const alone: NotificationKind<Data> = {
  kind: 'alone',
  when: 'a place has no active steward any more',
  reaches: isOwner,
  find: written => {
    const nodes = written.changes.some(change => change.table === 'persons') ? leftAlone(written) : []
    return nodes.length === 0 ? [] : ownersOf(written.after).map(person => ({ person, data: { nodes } }))
  },
  tell: (reader, { nodes }) => {
    if (isNothing(reader, nodes)) return undefined
    const text = `There is no active steward any more on ${named(reader, nodes)}.`
    return { text, place: null, to: lookFor(reader, nodes), revision: null }
  },
}

/** Whoever recovers access somewhere: all Owners are told, the one who did it too. */
export const recovered: NotificationKind<Data & { readonly by: PersonId; readonly revision: number }> = {
  kind: 'recovered',
  when: 'somebody recovers access to a place',
  reaches: isOwner,
  find: ({ after, author, revision, recovered: nodes }: Written) =>
    nodes.length === 0
      ? []
      : ownersOf(after).map(person => ({ person, data: { nodes, by: author, revision } })),
  tell: (reader, { nodes, by, revision }) => {
    if (isNothing(reader, nodes)) return undefined
    return {
      text: `${whoDid(reader, by)} recovered access to ${named(reader, nodes)}.`,
      place: visiblePlaces(reader, nodes)[0] ?? null,
      revision,
    }
  },
}

/**
 * Places that the reader sees by name, others by their number: what only the outline shows is looked at there, so
 * that it stands in the history. Private folders are nobody else's to know of.
 */
function named(reader: Asker, nodes: readonly NodeId[]): string {
  const seen = visiblePlaces(reader, nodes)
  const hidden = hiddenIn(reader, nodes)
  if (hidden === 0) return listed(seen)
  const others = placesWords(hidden)
  return seen.length === 0
    ? `${others} that you do not see`
    : `${listed(seen)}, and ${others} that you do not see`
}

const isNothing = (reader: Asker, nodes: readonly NodeId[]): boolean =>
  visiblePlaces(reader, nodes).length + hiddenIn(reader, nodes) === 0

const hiddenIn = (reader: Asker, nodes: readonly NodeId[]): number =>
  nodes.filter(node => !maySee(reader, node) && mayOutline(reader, node)).length

const lookFor = (reader: Asker, nodes: readonly NodeId[]) =>
  hiddenIn(reader, nodes) === 0 ? null : { name: 'Open the outline', path: 'oversight/sessions' }
