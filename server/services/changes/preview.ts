import { createHash } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { ChangeSetRequest } from '#contract/requests.ts'
import type { ImpactAtView, PowerDifferenceView, PreviewView } from '#contract/views/impact.ts'
import type { PathView, PlaceName } from '#contract/views/names.ts'
import type { ColumnDifference } from '#core/access/column-differences.ts'
import { checkColumn } from '#core/access/columns.ts'
import { check } from '#core/access/evaluate.ts'
import { rowOf } from '#core/base/collection.ts'
import { ok, type Result } from '#core/base/result.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { conductOf } from '#core/changes/conduct.ts'
import { knownUndoing } from '#core/changes/edits/undo.ts'
import { auditEventsOf } from '#core/changes/audit-event.ts'
import { type ChangeSet, judging, type Judged, type Refused, proposedOf } from '#core/changes/judge.ts'
import { nodeIn, type WhyLeft } from '#core/changes/ground.ts'
import { type Steps, within } from '#core/changes/steps.ts'
import { isPolicy } from '#core/changes/affected-scope.ts'
import type { ImpactAt } from '#core/impact/impact.ts'
import { differencesIn } from '#core/impact/bulk.ts'
import type { PowerDifference } from '#core/impact/powers.ts'
import { has } from '#core/levels/action.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { type Snapshot, type RecordChange, rootOf, type State } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import type { Patience } from '../../worker/asking.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { type Asker, asks, knowsPerson, nameOf, readerAt } from '../viewer/asker.ts'
import { columnDifferenceView, countedView, differenceView, inOrder } from '../oversight/difference.ts'
import { changeSetFrom, problemFrom } from './change-set.ts'
import { auditEventView, mayReadEvent } from '../oversight/audit-event.ts'
import { overWords } from '../viewer/managing.ts'
import { managerOf } from '../viewer/managing.ts'
import { inTurns } from '../viewer/turns.ts'

/** Judges a change set without applying it, and tells its author what it would do. */
export async function preview(
  parts: Parts,
  asker: Asker,
  { request, patience = {} }: { readonly request: ChangeSetRequest; readonly patience?: Patience },
): Promise<PreviewView> {
  return inTurns(parts, { asker, patience }, async turn => {
    const { changeSet, made } = await changeSetFrom(parts, asker, { request, turn })
    const before = snapshotOf(asker.snapshot.state, parts.clock())
    const preview = await turn.run(previewing(asker, before, { changeSet, made }))
    if (!preview.ok) throw new ProblemError(problemFrom(preview.error, asker))
    return preview.value
  })
}

function* previewing(
  asker: Asker,
  before: Snapshot,
  { changeSet, made }: Pick<Previewable, 'changeSet' | 'made'>,
): Steps<Result<PreviewView, Refused>> {
  const judged = yield* within(judging(before, changeSet), 0, 0.6)
  if (!judged.ok) return judged
  const proposed = proposedOf(before, changeSet, judged.value)
  const impacts = yield* within(differencesIn(proposed, asker.person), 0.6, 0.9)
  return ok(
    yield* within(previewOf(asker, before, { changeSet, made, judged: judged.value, impacts }), 0.9, 1),
  )
}

export interface Previewable {
  readonly changeSet: ChangeSet
  /** The ids made for `new:x`: others each time, so what is seen is compared without them. */
  readonly made: ReadonlyMap<string, string>
  readonly judged: Judged
  /** As the author may know them. */
  readonly impacts: readonly ImpactAt[]
}

/** What a judged change set does, as far as its author may know, at the moment of asking. */
export function* previewOf(
  { workspace, person }: Asker,
  before: Snapshot,
  { changeSet, made, judged, impacts }: Previewable,
): Steps<PreviewView> {
  const asker = readerAt(workspace, before, person)
  if (asker === undefined) throw problemOf('not-found')
  const after = snapshotOf(judged.state, before.at)
  const views: ImpactAtView[] = []
  for (const each of impacts) {
    yield 0
    views.push(impactAtView(asker, after, each))
  }
  const impact = withoutRepeats(views)
  const digests = impacts.map(({ counted }) => counted?.digest ?? null)
  return {
    revision: before.state.revision,
    digest: `${before.state.revision}.${digestOf({ impact, digests }, made, before.state)}`,
    impact,
    isWhole: yield* isWholeWithin(asker, after, judged.changes),
    leftOut: leftOutBy(asker, changeSet),
  }
}

function* isWholeWithin(asker: Asker, after: Snapshot, changes: readonly RecordChange[]): Steps<boolean> {
  for (const [index, change] of changes.entries()) {
    if (index % 50 === 0) yield index / changes.length
    if (!isWithinShared(asker, after, change)) return false
  }
  return true
}

/** Nothing that it does is beyond the author's knowledge: it opens and closes no place, or one at which the author shares. */
function isWithinShared(asker: Asker, after: Snapshot, change: RecordChange): boolean {
  if (conductOf(after.state, change.table).places === undefined) return true
  if (change.table === 'workspaces') return !isPolicy(change)
  const node = nodeIn(after.state, change)
  return (
    node !== undefined && [asker.snapshot, after].some(each => has(check(each, asker.person, node), 'share'))
  )
}

/**
 * The same for the same effect, whenever it is asked: what is new gets another id each time, so it is
 * called by its placeholder, or by what it is named and where it stands.
 */
function digestOf(
  {
    impact,
    digests,
  }: { readonly impact: readonly ImpactAtView[]; readonly digests: readonly (string | null)[] },
  made: ReadonlyMap<string, string>,
  before: State,
): string {
  const names = new Map([...made].map(([placeholder, id]) => [id, placeholder]))
  const placeOf = ({ id, name, path }: PathView) =>
    names.get(id) ??
    (rowOf(before.nodes, id as NodeId) === undefined ? JSON.stringify(['new', path, name]) : id)
  const columnOf = ({ id, name }: PlaceName) =>
    names.get(id) ??
    (rowOf(before.columns, id as ColumnId) === undefined ? JSON.stringify(['new', name]) : id)
  const plain = impact.map(({ at, differences, columns, powers, hiddenPlaces }, index) => [
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
  return createHash('sha256')
    .update(JSON.stringify([plain, digests]))
    .digest('base64url')
}

/** What undoing leaves out, in words, as far as its author may know of it. */
function leftOutBy(asker: Asker, { author, edits }: ChangeSet): string[] {
  const { snapshot } = asker
  return edits.flatMap(edit => {
    if (edit.kind !== 'undo') return []
    const { leftOut } = knownUndoing({ author, before: snapshot, now: snapshot }, edit)
    return leftOut.flatMap(({ change, why }) =>
      auditEventsOf(snapshot.state, [change])
        .filter(event => mayReadEvent(asker, event, author))
        .map(event => `Somebody ${auditEventView(asker, event).text}: ${whyLeft[why]}`),
    )
  })
}

const whyLeft: Readonly<Record<WhyLeft, string>> = {
  'changed since': 'this was changed again.',
  over: 'this has ended.',
  'in use': 'something else uses it now.',
  gone: 'it, or the place it belongs to, was deleted.',
  'in the bin': 'it is in the bin now.',
  'stays withdrawn': 'it left the web when it was archived or moved to the bin, and is not published again.',
  'within itself': 'it would be inside itself.',
}

/** What differs at places comes as the author may know it; the rest is looked at here. */
function impactAtView(
  asker: Asker,
  after: Snapshot,
  { at, differences, hiddenPlaces, counted, columns, powers }: ImpactAt,
): ImpactAtView {
  return {
    at,
    differences: inOrder(differences.map(each => differenceView(after, asker, each))),
    counted: counted === null ? null : countedView(after, asker, counted),
    columns: columns
      .filter(each => maySeeColumn(asker, after, each))
      .map(each => columnDifferenceView(after, asker, each)),
    hiddenPlaces,
    powers: powers
      .filter(each => maySeePowers(asker, after, each.person))
      .map(each => powerDifferenceView(asker, after, each)),
  }
}

/** One's own, of those whom the author looks after, or of all for who sees roles. */
function maySeePowers(asker: Asker, after: Snapshot, id: PersonId): boolean {
  if (id === asker.person) return true
  if (asks(asker, 'view roles') && knowsPerson(asker, id)) return true
  const person = rowOf(asker.snapshot.state.persons, id) ?? rowOf(after.state.persons, id)
  return person !== undefined && managerOf(asker)(person)
}

const powerDifferenceView = (
  asker: Asker,
  after: Snapshot,
  { person, rankBefore, rankAfter, parts }: PowerDifference,
): PowerDifferenceView => ({
  person: { id: person, name: nameOf(after, person) },
  rankBefore,
  rankAfter,
  parts: parts.map(({ scope, gains, loses }) => ({ over: overWords(asker, scope), gains, loses })),
})

/** An instant at which only what is hidden changes is passed over: it would tell that something ends there. */
const withoutRepeats = (views: readonly ImpactAtView[]): ImpactAtView[] =>
  views.filter((each, index) => index === 0 || !isDeepStrictEqual({ ...views[index - 1], at: each.at }, each))

/** Only where the author knows of the column, before or after, and may be told who has what there. */
function maySeeColumn(
  asker: Asker,
  after: Snapshot,
  { person, at: node, column }: ColumnDifference,
): boolean {
  const snapshots = [asker.snapshot, after]
  if (node === rootOf(asker.snapshot.state).id || !sees(asker, after, node)) return false
  const isTold =
    person === asker.person || snapshots.some(each => has(check(each, asker.person, node), 'share'))
  return isTold && snapshots.some(each => checkColumn(each, asker.person, { at: node, column }) !== 'none')
}

const sees = (asker: Asker, after: Snapshot, node: NodeId): boolean =>
  [asker.snapshot, after].some(each => has(check(each, asker.person, node), 'see'))
