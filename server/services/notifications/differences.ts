import { isThere } from '#core/access/by-id.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { check } from '#core/access/evaluate.ts'
import { subjectOf } from '#core/access/subject.ts'
import type { Difference } from '#core/access/diff-rows.ts'
import { has } from '#core/levels/action.ts'
import { isForAccess } from '#core/people/request.ts'
import { parentOf, pathOf, type RecordChange } from '#core/state/state.ts'
import type { Written } from './kind.ts'

/**
 * What changed for each person by somebody else's act or by time: not what only follows from what is
 * above it, not what became of a place itself (new in a place that was open already, archived, binned).
 */
export function ownDifferences(written: Written): ReadonlyMap<PersonId, readonly Difference[]> {
  const kept = known.get(written) ?? ownIn(written)
  known.set(written, kept)
  return kept
}

/** Several kinds of notifications come of the same. */
const known = new WeakMap<Written, ReadonlyMap<PersonId, readonly Difference[]>>()

function ownIn(written: Written): Map<PersonId, Difference[]> {
  // Who is answered what they asked for is told so, not that it was opened besides.
  const answered = new Set(
    written.changes.flatMap(({ table, before, after }) =>
      table === 'requests' && before !== null && after === null && isForAccess(before)
        ? [`${before.person} ${before.wants.node}`]
        : [],
    ),
  )
  const state = new Set(written.changes.filter(isOfPlaceItself).map(change => change.id as string))
  const isToldOtherwise = ({ person, node }: Difference) =>
    state.size + answered.size > 0 &&
    pathOf(written.after.state, node).some(({ id }) => state.has(id) || answered.has(`${person} ${id}`))
  const found = new Map<PersonId, Difference[]>()
  for (const [person, impact] of byPerson(written.impact)) {
    if (person === written.author || subjectOf(written.after, person)?.isActive !== true) continue
    const differences = impact.filter(each => !isToldOtherwise(each))
    const keys = new Set(differences.map(keyOf))
    const own = differences.filter(each => !follows(written, each, keys))
    if (own.length > 0) found.set(person, own)
  }
  return found
}

function byPerson(impact: readonly Difference[]): Map<PersonId, Difference[]> {
  const found = new Map<PersonId, Difference[]>()
  for (const each of impact) {
    const own = found.get(each.person)
    if (own === undefined) found.set(each.person, [each])
    else own.push(each)
  }
  return found
}

function isOfPlaceItself({ table, before, after }: RecordChange): boolean {
  if (table !== 'nodes' || before === null || after === null) return false
  return (
    before.archived !== after.archived ||
    (before.binned === null) !== (after.binned === null) ||
    before.draft !== after.draft
  )
}

/** What differs alike at one place has one key. */
const keyOf = ({ node, before, after }: Pick<Difference, 'node' | 'before' | 'after'>) =>
  `${node} ${before} ${after}`

function follows({ before, after }: Written, own: Difference, keys: ReadonlySet<string>): boolean {
  const parent = parentOf(after.state, own.node) ?? parentOf(before.state, own.node)
  if (parent === undefined) return false
  if (keys.has(keyOf({ node: parent, before: own.before, after: own.after }))) return true
  const isNew = !isThere(before.state, own.node)
  return isNew && sees(before, own.person, parent) && sees(after, own.person, parent)
}

const sees = (snapshot: Written['before'], person: PersonId, node: NodeId) =>
  has(check(snapshot, person, node), 'see')
