import type { CheckRequest, PageQuery } from '#contract/requests.ts'
import type { PersonAccessView, PlaceAccessView } from '#contract/views/access.ts'
import type { PlaceHit } from '#contract/views/content.ts'
import type { CheckedView } from '#contract/views/explanation.ts'
import type { PageView } from '#contract/views/page.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { checkColumn, type ColumnAccess } from '#core/access/columns.ts'
import { actionsAt, check } from '#core/access/evaluate.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { who } from '#core/access/who.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { type Snapshot, pathOf, rootOf } from '#core/state/state.ts'
import type { Person } from '#core/people/person.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { listedPlaces } from '../../worker/by-id.ts'
import { type Asker, asks, knowsPerson, mayName, maySee, nameOf, pathWords, visiblePlace } from './asker.ts'
import { findPlaces, placeHit } from './place-search.ts'

/** What an answer is given about: the present, or the same workspace at a past one. */
export interface Asked {
  readonly asker: Asker
  readonly snapshot: Snapshot
}

/** A place that the asker sees, or whose title is told while they look at the outline to check access. */
export function askedPlace(asker: Asker, id: string): { place: Place; actions: ActionSet } {
  const place = placeOf(asker.snapshot, id as NodeId)
  const isChecked = place !== undefined && asks(asker, 'check access') && mayName(asker, place.node.id)
  if (!isChecked || place.node.kind === 'root') return visiblePlace(asker, id)
  return { place, actions: actionsAt(asker.snapshot, asker.subject, place) }
}

/**
 * Whether the asker may be told what a person may do at a place: one's own always, that of others where one
 * shares, or with the privilege to check anyone's, at places that the asker sees or has the outline of.
 */
export function mayAskOf(asker: Asker, person: PersonId, node: NodeId): boolean {
  if (!mayName(asker, node)) return false
  if (person === asker.person) return maySee(asker, node)
  if (has(check(asker.snapshot, asker.person, node), 'share')) return true
  return asks(asker, 'check access') && knowsPerson(asker, person)
}

/** The actions of people at places; what may not be asked answers like what is not there. */
export function checkView(asker: Asker, { questions }: CheckRequest): CheckedView {
  return {
    revision: asker.snapshot.state.revision,
    answers: questions.map(({ person, place, column }) => {
      const isAllowed =
        rowOf(asker.snapshot.state.persons, person as PersonId) !== undefined &&
        mayAskOf(asker, person as PersonId, place as NodeId)
      if (!isAllowed) return null
      const actions = check(asker.snapshot, person as PersonId, place as NodeId)
      return column === undefined
        ? { actions }
        : { actions, column: columnAnswer(asker, person, { at: place, column }) }
    }),
  }
}

/** A column that the asker may not know of answers like one that is not there. */
function columnAnswer(
  asker: Asker,
  person: string,
  at: { readonly at: string; readonly column: string },
): ColumnAccess {
  const where = { at: at.at as NodeId, column: at.column as ColumnId }
  const isKnown = checkColumn(asker.snapshot, asker.person, where) !== 'none'
  return isKnown ? checkColumn(asker.snapshot, person as PersonId, where) : 'none'
}

/** Everybody with access at a place, the highest first; to whoever shares there or may check anyone. */
export function peopleWithAccessView(
  { asker, snapshot }: Asked,
  id: string,
  page: PageQuery,
): PageView<PersonAccessView> {
  const { place, actions } = askedPlace(asker, id)
  if (!has(actions, 'share') && !asks(asker, 'check access')) throw problemOf('not-found')
  const reached = who(snapshot, place.node.id)
    .filter(each => has(actions, 'share') || knowsPerson(asker, each.person.id))
    .map(({ person, actions }) => reachView(snapshot, person, actions))
    .sort((a, b) => b.actions - a.actions || compareWords(a.name, b.name) || (a.id < b.id ? -1 : 1))
  return paged(snapshot, reached, page)
}

function reachView(snapshot: Snapshot, person: Person, actions: ActionSet): PersonAccessView {
  const { id, kind, status } = person
  return { id, name: nameOf(snapshot, id), kind, status, actions }
}

/** Every place that a person sees, as far as the asker may be told: parents before what is in them. */
export async function placesOfPersonView(
  { thread }: Parts,
  { asker, snapshot }: Asked,
  { id, page }: { readonly id: string; readonly page: PageQuery },
): Promise<PageView<PlaceAccessView>> {
  const subject = subjectOf(snapshot, id as PersonId)
  if (subject === undefined || !knowsPerson(asker, subject.person.id)) throw problemOf('not-found')
  const from = page.from === undefined ? 0 : Number(page.from)
  const { total, listed } = await listedPlaces(thread, {
    workspace: asker.workspace,
    person: subject.person.id,
    asker: asker.person,
    mayCheck: asks(asker, 'check access'),
    outlinesBut: outlinesBut({ asker, snapshot }),
    then: snapshot,
    // Of a past instant, too, an asker is told no more than now: only of places that they see now.
    now: asker.snapshot,
    from,
    count: shownAtMost,
  })
  const behind = from + listed.length
  const { nodes } = asker.snapshot.state
  return {
    revision: snapshot.state.revision,
    total,
    next: behind < total ? behind : null,
    items: listed.map(({ id: node, actions }) => ({
      id: node,
      name: rowOf(nodes, node)?.name ?? '',
      path: pathWords(asker, pathOf(asker.snapshot.state, node).slice(1)),
      actions,
    })),
  }
}

/** What is not named though a look at the outline is open; `null` where none is. */
function outlinesBut({ asker, snapshot: { state } }: Asked): NodeId[] | null {
  const isOpen = state === asker.snapshot.state && asker.outlines === true && asks(asker, 'see the outline')
  return isOpen
    ? rowsBy(state.nodes, 'parent', rootOf(state).id).flatMap(({ id, home }) =>
        home?.of === 'person' ? [id] : [],
      )
    : null
}

const shownAtMost = 200

export function paged<Item>(snapshot: Snapshot, items: readonly Item[], { from }: PageQuery): PageView<Item> {
  const start = from === undefined ? 0 : Number(from)
  const end = start + shownAtMost
  return {
    revision: snapshot.state.revision,
    total: items.length,
    items: items.slice(start, end),
    next: end < items.length ? end : null,
  }
}

/** Places that one may ask about, by a part of their name, or by their id; the homes where nothing is looked for yet. */
export async function placesToCheck(asker: Asker, find: string): Promise<PlaceHit[]> {
  const { snapshot, person } = asker
  const { nodes } = snapshot.state
  const wanted = find.trim().toLowerCase()
  const fits = (node: ContentNode) =>
    mayName(asker, node.id) && placeOf(snapshot, node.id)?.binnedAt === undefined
  const exact = rowOf(nodes, wanted as NodeId)
  const known =
    wanted === '' ? rowsBy(nodes, 'parent', rootOf(snapshot.state).id) : exact === undefined ? [] : [exact]
  if (known.length > 0)
    return known
      .filter(node => node.parent !== null && fits(node))
      .map(node => placeHit(asker, node, check(snapshot, person, node.id)))
      .sort((a, b) => compareWords(a.name, b.name))
      .slice(0, shownAtMost)
  return findPlaces(asker, { find, may: id => mayName(asker, id), fits })
}
