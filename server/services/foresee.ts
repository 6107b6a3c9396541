import { createHash } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { ChangeSetRequest } from '#contract/requests.ts'
import type { ForeseenAt, ForeseenView, PathView, PlaceName, PowerDifferenceView } from '#contract/views.ts'
import type { ColumnDifference } from '#core/access/column-differences.ts'
import { checkColumn } from '#core/access/columns.ts'
import { check } from '#core/access/evaluate.ts'
import { rowOf } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { knownUndoing } from '#core/changes/edits/undo.ts'
import { factsOf } from '#core/changes/fact.ts'
import { type ChangeSet, judge, type Judged, wholeOf } from '#core/changes/judge.ts'
import type { WhyLeft } from '#core/changes/undo.ts'
import { isPolicy } from '#core/changes/touched.ts'
import { eachPlace } from '#core/impact/each-place.ts'
import { type Difference, impact, type ImpactAt } from '#core/impact/impact.ts'
import type { PowerDifference } from '#core/impact/powers.ts'
import { has } from '#core/levels/action.ts'
import { momentOf } from '#core/state/moment.ts'
import { type Moment, pathOf, type RecordChange, rootOf, type State } from '#core/state/state.ts'
import type { Parts } from '../parts.ts'
import { ProblemError, problemOf } from '../problem-error.ts'
import { type Asker, asks, knowsPerson, nameOf, readerAt } from './asker.ts'
import { columnDifferenceView, differenceView, inOrder } from './difference.ts'
import { changeSetFrom, problemFrom } from './change-set.ts'
import { factView, mayReadFact } from './fact.ts'
import { keeperOf, overWords } from './people.ts'

/** Judges a change set without applying it, and tells its author what it would do. */
export async function foresee(parts: Parts, asker: Asker, request: ChangeSetRequest): Promise<ForeseenView> {
  const { changeSet, made } = await changeSetFrom(parts, asker, request)
  const before = momentOf(asker.moment.state, parts.clock())
  const judged = judge(before, changeSet)
  if (!judged.ok) throw new ProblemError(problemFrom(judged.error, asker))
  return foreseenBy(asker, before, { changeSet, made, judged: judged.value })
}

export interface Foreseeable {
  readonly changeSet: ChangeSet
  /** The ids made for `new:x`: others each time, so what is seen is compared without them. */
  readonly made: ReadonlyMap<string, string>
  readonly judged: Judged
}

/** What a judged change set does, as far as its author may know, at the moment of asking. */
export function foreseenBy(
  { workspace, person }: Asker,
  before: Moment,
  { changeSet, made, judged }: Foreseeable,
): ForeseenView {
  const asker = readerAt(workspace, before, person)
  if (asker === undefined) throw problemOf('not-found')
  const after = momentOf(judged.state, before.at)
  const whole = wholeOf(before, changeSet, judged)
  const told = withoutRepeats(
    impact(whole).map(each =>
      foreseenAt(asker, after, { ...each, differences: eachPlace(whole, each.differences) }),
    ),
  )
  return {
    revision: before.state.revision,
    seen: `${before.state.revision}.${digestOf(told, made, before.state)}`,
    impact: told,
    isWhole: judged.changes.every(change => isWithinShared(asker, after, change)),
    leftOut: leftOutBy(asker, changeSet),
  }
}

/** Never opens or closes a place. */
const besidePlaces: ReadonlySet<RecordChange['table']> = new Set([
  'roles',
  'holdings',
  'roleRequests',
  'handovers',
  'looks',
  'accessRequests',
  'watches',
])

/** Nothing that it does is beyond the author's knowledge: it touches no place, or one at which the author shares. */
function isWithinShared(asker: Asker, after: Moment, change: RecordChange): boolean {
  if (besidePlaces.has(change.table)) return true
  if (change.table === 'workspaces') return !isPolicy(change)
  const node = placeIn(change)
  return (
    node !== undefined && [asker.moment, after].some(each => has(check(each, asker.person, node), 'share'))
  )
}

function placeIn(change: RecordChange): NodeId | undefined {
  switch (change.table) {
    case 'nodes':
      return change.id
    case 'grants':
    case 'limits':
      return (change.after ?? change.before)?.node
    case 'columns':
      return (change.after ?? change.before)?.board
    default:
      return undefined
  }
}

/**
 * The same for the same effect, whenever it is asked: what is new gets another id each time, so it is
 * called by its placeholder, or by what it is named and where it stands.
 */
function digestOf(told: readonly ForeseenAt[], made: ReadonlyMap<string, string>, before: State): string {
  const names = new Map([...made].map(([placeholder, id]) => [id, placeholder]))
  const placeOf = ({ id, name, path }: PathView) =>
    names.get(id) ??
    (rowOf(before.nodes, id as NodeId) === undefined ? JSON.stringify(['new', path, name]) : id)
  const columnOf = ({ id, name }: PlaceName) =>
    names.get(id) ??
    (rowOf(before.columns, id as ColumnId) === undefined ? JSON.stringify(['new', name]) : id)
  const plain = told.map(({ at, differences, columns, powers, hiddenPlaces }, index) => [
    index === 0 ? 'now' : at,
    hiddenPlaces,
    differences
      .map(({ person, place, places, before, after }) =>
        [names.get(person.id) ?? person.id, placeOf(place), places, before, after].join(' '),
      )
      .sort(),
    columns
      .map(({ person, column, place, before, after }) =>
        [person.id, columnOf(column), placeOf(place), before, after].join(' '),
      )
      .sort(),
    powers.map(({ person, ...power }) => JSON.stringify([names.get(person.id) ?? person.id, power])).sort(),
  ])
  return createHash('sha256').update(JSON.stringify(plain)).digest('base64url')
}

/** What undoing leaves out, in words, as far as its author may know of it. */
function leftOutBy(asker: Asker, { author, edits }: ChangeSet): string[] {
  const { moment } = asker
  return edits.flatMap(edit => {
    if (edit.kind !== 'undo') return []
    const { leftOut } = knownUndoing({ author, before: moment, now: moment }, edit)
    return leftOut.flatMap(({ change, why }) =>
      factsOf([change])
        .filter(fact => mayReadFact(asker, fact, author))
        .map(fact => `That somebody ${factView(asker, fact).text}: ${whyLeft[why]}`),
    )
  })
}

const whyLeft: Readonly<Record<WhyLeft, string>> = {
  'changed since': 'it was changed again since.',
  over: 'its time is over.',
  'in use': 'something else uses it now.',
  gone: 'it is not there any more, or what it belongs to is not.',
}

/**
 * A difference is told where the author shares, before or after, or where it is the author's own. Where
 * the author shares above a place that is hidden, the place is counted and not named.
 */
function foreseenAt(asker: Asker, after: Moment, { at, differences, columns, powers }: ImpactAt): ForeseenAt {
  const known = differences.filter(each => maySeeDifference(asker, after, each))
  const hidden = new Map(
    differences
      .filter(each => !sees(asker, after, each.node) && sharesAbove(asker, each.node))
      .map(each => [each.node, each.nodes]),
  )
  return {
    at,
    differences: inOrder(known.map(each => differenceView(after, asker, each))),
    columns: columns
      .filter(each => maySeeColumn(asker, after, each))
      .map(each => columnDifferenceView(after, asker, each)),
    hiddenPlaces: [...hidden.values()].reduce((sum, each) => sum + each, 0),
    powers: powers
      .filter(each => maySeePowers(asker, after, each.person))
      .map(each => powerDifferenceView(asker, after, each)),
  }
}

/** One's own, of those whom the author looks after, or of all for who sees roles. */
function maySeePowers(asker: Asker, after: Moment, id: PersonId): boolean {
  if (id === asker.person) return true
  if (asks(asker, 'view roles') && knowsPerson(asker, id)) return true
  const person = rowOf(asker.moment.state.persons, id) ?? rowOf(after.state.persons, id)
  return person !== undefined && keeperOf(asker)(person)
}

const powerDifferenceView = (
  asker: Asker,
  after: Moment,
  { person, rungBefore, rungAfter, parts }: PowerDifference,
): PowerDifferenceView => ({
  person: { id: person, name: nameOf(after, person) },
  rungBefore,
  rungAfter,
  parts: parts.map(({ scope, gains, loses }) => ({ over: overWords(asker, scope), gains, loses })),
})

/** An instant at which only what is hidden changes is passed over: it would tell that something ends there. */
const withoutRepeats = (told: readonly ForeseenAt[]): ForeseenAt[] =>
  told.filter((each, index) => index === 0 || !isDeepStrictEqual({ ...told[index - 1], at: each.at }, each))

function maySeeDifference(
  asker: Asker,
  after: Moment,
  { person, node }: Pick<Difference, 'person' | 'node'>,
): boolean {
  if (node === rootOf(asker.moment.state).id || !sees(asker, after, node)) return false
  return (
    person === asker.person ||
    [asker.moment, after].some(each => has(check(each, asker.person, node), 'share'))
  )
}

/** Only where the author knows of the column, before or after, and may be told who has what there. */
const maySeeColumn = (asker: Asker, after: Moment, { person, at, column }: ColumnDifference): boolean =>
  maySeeDifference(asker, after, { person, node: at }) &&
  [asker.moment, after].some(each => checkColumn(each, asker.person, { at, column }) !== 'none')

const sees = (asker: Asker, after: Moment, node: NodeId): boolean =>
  [asker.moment, after].some(each => has(check(each, asker.person, node), 'see'))

const sharesAbove = (asker: Asker, node: NodeId): boolean =>
  pathOf(asker.moment.state, node).some(each => has(check(asker.moment, asker.person, each.id), 'share'))
