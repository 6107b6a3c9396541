import type { CheckRequest, PageQuery } from '#contract/requests.ts'
import type { CheckedView, PageView, PlaceReachView } from '#contract/oversight-views.ts'
import type { FoundPlaceView } from '#contract/people-views.ts'
import type { ReachView } from '#contract/views.ts'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { checkColumn, type ColumnAccess } from '#core/access/columns.ts'
import { actionsAt, check } from '#core/access/evaluate.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { whatBelow } from '#core/access/what.ts'
import { who } from '#core/access/who.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { type Moment, pathOf, rootOf } from '#core/state/state.ts'
import type { Person } from '#core/people/person.ts'
import { problemOf } from '../problem-error.ts'
import { type Asker, asks, knowsPerson, mayName, maySee, nameOf, pathWords, seenPlace } from './asker.ts'

/** What an answer is given about: the present moment, or the same workspace at a past one. */
export interface Asked {
  readonly asker: Asker
  readonly moment: Moment
}

/** A place that the asker sees, or whose title is told while they look at the outline to check access. */
export function askedPlace(asker: Asker, id: string): { place: Place; actions: ActionSet } {
  const place = placeOf(asker.moment, id as NodeId)
  const isChecked = place !== undefined && asks(asker, 'check access') && mayName(asker, place.node.id)
  if (!isChecked || place.node.kind === 'root') return seenPlace(asker, id)
  return { place, actions: actionsAt(asker.moment, asker.subject, place) }
}

/**
 * Whether the asker may be told what a person may do at a place: one's own always, that of others where one
 * shares, or with the privilege to check anyone's, at places that the asker sees or has the outline of.
 */
export function mayAskOf(asker: Asker, person: PersonId, node: NodeId): boolean {
  if (!mayName(asker, node)) return false
  if (person === asker.person) return maySee(asker, node)
  if (has(check(asker.moment, asker.person, node), 'share')) return true
  return asks(asker, 'check access') && knowsPerson(asker, person)
}

/** The actions of people at places; what may not be asked answers like what is not there. */
export function checkView(asker: Asker, { questions }: CheckRequest): CheckedView {
  return {
    revision: asker.moment.state.revision,
    answers: questions.map(({ person, place, column }) => {
      const isAllowed =
        rowOf(asker.moment.state.persons, person as PersonId) !== undefined &&
        mayAskOf(asker, person as PersonId, place as NodeId)
      if (!isAllowed) return null
      const actions = check(asker.moment, person as PersonId, place as NodeId)
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
  const isKnown = checkColumn(asker.moment, asker.person, where) !== 'none'
  return isKnown ? checkColumn(asker.moment, person as PersonId, where) : 'none'
}

/** Everybody with access at a place, the highest first; to whoever shares there or may check anyone. */
export function whoView({ asker, moment }: Asked, id: string, page: PageQuery): PageView<ReachView> {
  const { place, actions } = askedPlace(asker, id)
  if (!has(actions, 'share') && !asks(asker, 'check access')) throw problemOf('not-found')
  const reached = who(moment, place.node.id)
    .filter(each => has(actions, 'share') || knowsPerson(asker, each.person.id))
    .map(({ person, actions }) => reachView(moment, person, actions))
    .sort((a, b) => b.actions - a.actions || a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))
  return paged(moment, reached, page)
}

function reachView(moment: Moment, person: Person, actions: ActionSet): ReachView {
  const { id, kind, status } = person
  return { id, name: nameOf(moment, id), kind, status, actions }
}

/** Every place that a person sees, as far as the asker may be told: parents before what is in them. */
export function whatView(
  { asker, moment }: Asked,
  person: string,
  page: PageQuery,
): PageView<PlaceReachView> {
  const subject = subjectOf(moment, person as PersonId)
  if (subject === undefined || !knowsPerson(asker, subject.person.id)) throw problemOf('not-found')
  const root = rootOf(moment.state).id
  const found = whatBelow(moment, subject.person.id, root).filter(({ node }) =>
    mayAskOf(asker, subject.person.id, node.id),
  )
  const { items, ...told } = paged(moment, found, page)
  return {
    ...told,
    items: items.map(({ node, actions }) => ({
      id: node.id,
      name: rowOf(asker.moment.state.nodes, node.id)?.name ?? '',
      path: pathWords(asker, pathOf(asker.moment.state, node.id).slice(1)),
      actions,
    })),
  }
}

const shownAtMost = 200

export function paged<Item>(moment: Moment, items: readonly Item[], { from }: PageQuery): PageView<Item> {
  const start = from === undefined ? 0 : Number(from)
  const end = start + shownAtMost
  return {
    revision: moment.state.revision,
    total: items.length,
    items: items.slice(start, end),
    next: end < items.length ? end : null,
  }
}

/** Places that one may ask about, by a part of their name, or by their id; the homes where nothing is looked for yet. */
export function placesToAsk(asker: Asker, find: string): FoundPlaceView[] {
  const { moment } = asker
  const wanted = find.trim().toLowerCase()
  const found: FoundPlaceView[] = []
  for (const node of allRows(moment.state.nodes)) {
    const isMeant =
      wanted === '' ? node.home !== null : node.id === wanted || node.name.toLowerCase().includes(wanted)
    if (node.parent === null || !isMeant || !mayName(asker, node.id)) continue
    const place = placeOf(moment, node.id)
    if (place === undefined || place.binnedAt !== undefined) continue
    const actions = actionsAt(moment, asker.subject, place)
    found.push({ id: node.id, name: node.name, path: pathWords(asker, place.path.slice(1)), actions })
    if (found.length === foundAtMost) break
  }
  return found.sort((a, b) => a.name.localeCompare(b.name) || a.path.localeCompare(b.path))
}

const foundAtMost = 50
