import { allRows } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { isLive } from '#core/base/instant.ts'
import { subjectOf } from '#core/access/subject.ts'
import { leftAlone } from '#core/changes/guards/steward-left.ts'
import { ownerRole } from '#core/people/role.ts'
import type { Moment } from '#core/state/state.ts'
import { listed, outlinedPlaces, whoDid } from '../words.ts'
import type { NoticeKind, Written } from '../kind.ts'

interface Data {
  readonly nodes: readonly NodeId[]
}

/** Somebody left, or their time ended, who alone gave and took access at some places: all Owners are told. */
export const alone: NoticeKind<Data> = {
  kind: 'alone',
  when: 'a place is left without a steward',
  find: written => {
    const nodes = written.changes.some(change => change.table === 'persons') ? leftAlone(written) : []
    return nodes.length === 0 ? [] : ownersIn(written.after).map(person => ({ person, data: { nodes } }))
  },
  tell: (reader, { nodes }) => {
    const places = outlinedPlaces(reader, nodes)
    if (places.length === 0) return undefined
    const text = `Nobody active gives and takes access on ${listed(places)} any more.`
    return { text, place: null, revision: null }
  },
}

/** Whoever recovers access somewhere: all Owners are told, the one who did it too. */
export const recovered: NoticeKind<Data & { readonly by: PersonId; readonly revision: number }> = {
  kind: 'recovered',
  when: 'somebody recovers access to a place',
  find: ({ after, author, revision, recovered: nodes }: Written) =>
    nodes.length === 0
      ? []
      : ownersIn(after).map(person => ({ person, data: { nodes, by: author, revision } })),
  tell: (reader, { nodes, by, revision }) => {
    const places = outlinedPlaces(reader, nodes)
    if (places.length === 0) return undefined
    return {
      text: `${whoDid(reader, by)} recovered access to ${listed(places)}.`,
      place: places[0] ?? null,
      revision,
    }
  },
}

const ownersIn = (moment: Moment): PersonId[] =>
  allRows(moment.state.holdings)
    .filter(holding => holding.role === ownerRole && isLive(holding, moment.at))
    .map(holding => holding.person)
    .filter(person => subjectOf(moment, person)?.isActive === true)
