import type { HistoryQuery } from '#contract/requests.ts'
import type { AuditEntryDetailView, AuditEntryView, CountView, HistoryView } from '#contract/views/history.ts'
import { theWeb } from '#core/access/public.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { isForGood } from '#core/changes/edits/undo.ts'
import { type AuditEvent, auditEventsOf } from '#core/changes/audit-event.ts'
import { type Steps, toEnd } from '#core/changes/steps.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import type { Difference } from '#core/access/diff-rows.ts'
import type { Counted } from '#core/access/totals.ts'
import type { RecordedImpact } from '#core/impact/bulk.ts'
import { beyond } from '#core/levels/action.ts'
import { pathOf, type RecordChange } from '#core/state/state.ts'
import { createBreath } from '../../breath.ts'
import type { ChangeSetRow } from '../../store/tables.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, holdsAt, knowsPerson, nameOf } from '../viewer/asker.ts'
import { auditEventView, isPlaceKnown, mayReadEvent } from './audit-event.ts'
import { countedView, differenceView, inOrder } from './difference.ts'
import { newestFirst } from './audit-entries.ts'
import { formerNamesSince, type NamesThen } from './former-names.ts'
import { readImpact } from './stored-impact.ts'
import { inTurns, readsAtOnce, type Turn } from '../viewer/turns.ts'

const entriesAtOnce = 50
/** So many of the things that an entry did are told in a list, and where it is looked at. */
const eventsInList = 20
const eventsInDetail = 200

/** The newest entries that the reader may know and that fit the filters. */
export function historyView(parts: Parts, asker: Asker, query: HistoryQuery): Promise<HistoryView> {
  return inTurns(parts, { asker, patience: {}, atOnce: readsAtOnce }, async turn => {
    const found: Read[] = []
    const below = query.before === undefined ? undefined : Number(query.before)
    let last = 0
    for await (const row of newestFirst(parts, asker, { below, attributes: entryColumns })) {
      if (found.length === entriesAtOnce)
        return { entries: await entriesIn(parts, { asker, turn, found }), next: last }
      last = row.revision
      const read = await turn.run(readable(asker, row))
      if (read !== undefined && (await turn.run(fits(asker, read, query)))) found.push(read)
    }
    return { entries: await entriesIn(parts, { asker, turn, found }), next: null }
  })
}

interface Found {
  readonly asker: Asker
  readonly turn: Turn
  /** The newest first. */
  readonly found: readonly Read[]
}

async function entriesIn(parts: Parts, { asker, turn, found }: Found): Promise<AuditEntryView[]> {
  const namesAt = await formerNamesSince(parts, asker, found.at(-1)?.row.revision ?? 0)
  const entries: AuditEntryView[] = []
  for (const read of found)
    entries.push(
      await turn.run(entryIn(asker, read, { most: eventsInList, then: namesAt(read.row.revision) })),
    )
  return withUndone(parts, asker, entries)
}

/** One entry with its effect; what may not be known of answers like what does not exist. */
export function auditEntryDetailView(
  parts: Parts,
  asker: Asker,
  revision: number,
): Promise<AuditEntryDetailView> {
  return inTurns(parts, { asker, patience: {}, atOnce: readsAtOnce }, async turn => {
    const row = await rowOfEntry(parts, asker.workspace, revision)
    const read = row && (await turn.run(readable(asker, row)))
    if (read === undefined) throw problemOf('not-found')
    const namesAt = await formerNamesSince(parts, asker, revision)
    const telling = { most: eventsInDetail, then: namesAt(revision) }
    const view = await turn.run(entryIn(asker, read, telling))
    const [entry] = await withUndone(parts, asker, [view])
    if (entry === undefined) throw problemOf('not-found')
    return { ...entry, ...impactView(asker, await turn.run(impactKnown(asker, read.row))) }
  })
}

/** The entry that is to be undone, for somebody who may know of it. */
export async function entryToUndo(parts: Parts, asker: Asker, revision: number): Promise<ChangeSetRow> {
  const row = await rowOfEntry(parts, asker.workspace, revision)
  if (row === undefined || toEnd(readable(asker, row)) === undefined) throw problemOf('not-found')
  return row
}

/** What others did after a revision, the newest first, told as far as the reader may know it. */
export async function doneSince(parts: Parts, asker: Asker, revision: number): Promise<string[]> {
  const done: string[] = []
  const breathe = createBreath()
  // Later than what the asker's snapshot knows of: that is what is told.
  const newest = parts.writer.states.published.get(asker.workspace)?.snapshot.state.revision ?? 0
  for await (const row of newestFirst(parts, asker, { below: newest + 1, attributes: entryColumns })) {
    if (row.revision <= revision || done.length >= eventsInList) break
    await breathe()
    const read = toEnd(readable(asker, row))
    if (read === undefined || row.author === asker.person) continue
    const author = row.author === theWorkspace ? 'The workspace' : authorView(asker, row.author).name
    const events = read.events.slice(0, eventsInList)
    done.push(...events.map(event => `${author} ${auditEventView(asker, event).text}.`))
  }
  return done
}

async function rowOfEntry(
  { writer }: Parts,
  workspace: WorkspaceId,
  revision: number,
): Promise<ChangeSetRow | undefined> {
  const row = await writer.tables.changeSets.findOne({ where: { workspace, revision }, raw: true })
  return (row as unknown as ChangeSetRow | null) ?? undefined
}

/** What is read of an entry to tell of it. */
const entryColumns = ['at', 'author', 'reason', 'changes', 'impact', 'undoes'] as const

type EntryRow = Pick<ChangeSetRow, (typeof entryColumns)[number] | 'revision'>

interface Read {
  readonly row: EntryRow
  readonly events: readonly AuditEvent[]
  /** Whether there is more in the entry than its reader may know. */
  readonly isPart: boolean
}

function* readable(asker: Asker, row: EntryRow): Steps<Read | undefined> {
  const all = auditEventsOf(asker.snapshot.state, JSON.parse(row.changes) as RecordChange[])
  const events: AuditEvent[] = []
  for (const [done, event] of all.entries()) {
    if (mayReadEvent(asker, event, row.author)) events.push(event)
    yield done / all.length
  }
  return events.length === 0 ? undefined : { row, events, isPart: events.length < all.length }
}

const isAt = (asker: Asker, event: AuditEvent, place: string | undefined) =>
  event.place !== null && isPlaceWithin(asker, event.place, place)

function* fits(
  asker: Asker,
  { row, events }: Read,
  { person, place, category: act }: HistoryQuery,
): Steps<boolean> {
  let isAct = act === undefined
  let isPerson = person === undefined || (person === row.author && knowsPerson(asker, row.author))
  let isPlace = place === undefined
  for (const [done, event] of events.entries()) {
    isAct ||= event.category === act
    isPerson ||= event.person === person
    isPlace ||= isAt(asker, event, place)
    if (isAct && isPerson && isPlace) break
    yield done / events.length
  }
  return isAct && isPerson && isPlace
}

/** Whether a place is another one or lies in it. What lies in a place that the asker does not know of lies nowhere. */
export const isPlaceWithin = (asker: Asker, node: NodeId, place: string | undefined): boolean =>
  node === place ||
  (place !== undefined &&
    isPlaceKnown(asker, place as NodeId) &&
    pathOf(asker.snapshot.state, node).some(each => each.id === place))

interface Telling {
  readonly most: number
  readonly then: NamesThen
}

function* entryIn(
  asker: Asker,
  { row, events, isPart }: Read,
  { most, then }: Telling,
): Steps<AuditEntryView> {
  const { differences, counted } = yield* impactKnown(asker, row)
  const isMine = row.author === asker.person
  return {
    revision: row.revision,
    at: row.at,
    author: row.author === theWorkspace ? null : authorView(asker, row.author),
    isMine,
    // What its author wrote may speak of what the reader may not know.
    reason: isPart && !isMine ? '' : row.reason,
    events: events.slice(0, most).map(event => auditEventView(asker, event, then)),
    eventCount: events.length,
    gains: countIn(
      counted?.gains,
      differences.filter(each => beyond(each.after, each.before).length > 0),
    ),
    losses: countIn(
      counted?.losses,
      differences.filter(each => beyond(each.before, each.after).length > 0),
    ),
    undoes: row.undoes,
    undoneBy: null,
    mayUndo: row.author !== theWorkspace && !events.some(event => isForGood(event.change)),
  }
}

const authorView = (asker: Asker, author: PersonId) =>
  knowsPerson(asker, author)
    ? { id: author, name: nameOf(asker.snapshot, author) }
    : { id: '', name: 'Somebody' }

/** A difference is the reader's to know where the reader sees the place, and shares there or reads the history. */
export function* impactKnown(
  asker: Asker,
  row: Pick<ChangeSetRow, 'impact'>,
): Steps<Pick<RecordedImpact, 'differences' | 'counted'>> {
  const kept = readImpact(row.impact)
  const reads = asks(asker, 'read the history')
  // Thousands of differences are about the same places: what is known of each is asked once.
  const places = new Map<NodeId, 'hidden' | 'own' | 'all'>()
  const knownOf = (node: NodeId) => {
    const known =
      places.get(node) ??
      (!isPlaceKnown(asker, node) ? 'hidden' : reads || holdsAt(asker, node, 'share') ? 'all' : 'own')
    places.set(node, known)
    return known
  }
  const differences: Difference[] = []
  for (const each of kept.differences) {
    const known = knownOf(each.node)
    const isTold = known !== 'hidden' && (known === 'all' || each.person === asker.person)
    if (isTold && isHere(asker, each.person)) differences.push(each)
    yield 0
  }
  return { differences, counted: yield* countedKnown(asker, kept) }
}

const isHere = ({ snapshot }: Asker, person: PersonId) =>
  person === theWeb || rowOf(snapshot.state.persons, person) !== undefined

/**
 * Counts are told whole to who gives access at all places at which they begin: then what they do not see below is counted
 * to them anyway. Who only reads the history is told of how many people, and of those places.
 */
function* countedKnown(asker: Asker, { counted, roots }: RecordedImpact): Steps<RecordedImpact['counted']> {
  if (counted === null || !(yield* every(roots, node => isPlaceKnown(asker, node)))) return null
  if (yield* every(roots, node => holdsAt(asker, node, 'share')))
    return {
      ...counted,
      mostPeople: counted.mostPeople.filter(each => isHere(asker, each.person)),
      mostPlaces: counted.mostPlaces.filter(each => isPlaceKnown(asker, each.node)),
    }
  if (!asks(asker, 'read the history')) return null
  const atRoots = (sum: Counted['gains']) => ({ ...sum, places: Math.min(sum.places, roots.length) })
  return {
    ...counted,
    gains: atRoots(counted.gains),
    losses: atRoots(counted.losses),
    places: roots.length,
    turns: [],
    mostPeople: [],
    mostPlaces: [],
  }
}

function* every(nodes: readonly NodeId[], holds: (node: NodeId) => boolean): Steps<boolean> {
  for (const node of nodes) {
    if (!holds(node)) return false
    yield 0
  }
  return true
}

function impactView(
  asker: Asker,
  { differences, counted }: Pick<RecordedImpact, 'differences' | 'counted'>,
): Pick<AuditEntryDetailView, 'differences' | 'counted'> {
  const { snapshot } = asker
  if (counted !== null) return { differences: [], counted: countedView(snapshot, asker, counted) }
  return {
    differences: inOrder(differences.map(each => differenceView(snapshot, asker, each))),
    counted: null,
  }
}

/** Counted when it was written, or now. */
const countIn = (counted: CountView | undefined, differences: readonly Difference[]): CountView =>
  counted === undefined ? countOf(differences) : { people: counted.people, places: counted.places }

const countOf = (differences: readonly Difference[]): CountView => ({
  people: new Set(differences.map(each => each.person)).size,
  places: [...new Map(differences.map(each => [each.node, each.nodes])).values()].reduce(
    (sum, each) => sum + each,
    0,
  ),
})

/** Tells which of some entries were undone since, by which. */
async function withUndone(
  parts: Parts,
  asker: Asker,
  entries: readonly AuditEntryView[],
): Promise<AuditEntryView[]> {
  const rows = (await parts.writer.tables.changeSets.findAll({
    attributes: ['revision', 'undoes'],
    where: { workspace: asker.workspace, undoes: entries.map(entry => entry.revision) },
    order: [['revision', 'ASC']],
    raw: true,
  })) as unknown as Pick<ChangeSetRow, 'revision' | 'undoes'>[]
  return entries.map(entry => ({
    ...entry,
    undoneBy: rows.find(row => row.undoes === entry.revision)?.revision ?? null,
  }))
}
