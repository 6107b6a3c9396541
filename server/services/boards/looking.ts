import { localOf } from '#contract/clock.ts'
import {
  type Condition,
  everyCondition,
  isNested,
  type NestedConditions,
  plainView,
  type ViewState,
} from '#core/boards/view.ts'
import { dayLength } from '#core/boards/days.ts'
import { visibleColumns } from '#core/access/columns.ts'
import { ownPlacesBelow } from '#core/access/by-id.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { isLive } from '#core/base/instant.ts'
import type { NodeId, PersonId, TeamId } from '#core/base/ids.ts'
import { knowsTeam } from '#core/changes/context.ts'
import type { Section } from '#core/rules/board.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import { type State, workspaceOf } from '#core/state/state.ts'
import { askBoard } from '../../boards/asking.ts'
import type { Looking } from '../../boards/question.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, knowsPerson, maySee, visiblePlace } from '../viewer/asker.ts'
import { upToDate } from './held-boards.ts'
import { knownName } from './usage.ts'

/** A board as one who asks may look at it, ready to be asked about. */
export interface LookedAt {
  readonly board: NodeId
  readonly place: Place
  readonly columns: readonly BoardColumn[]
  readonly looking: Looking
}

/** A board that the asker sees, or the one of a row that they see. */
export function boardOf(asker: Asker, id: string): Place {
  const { place } = visiblePlace(asker, id)
  const board = place.node.kind === 'row' ? placeOf(asker.snapshot, place.node.parent as NodeId) : place
  if (board?.node.kind !== 'board') throw problemOf('not-found')
  return board
}

/** What an asker sees of a board, read from the place by which they see it: the board, or one of its rows. */
export async function lookAt(
  parts: Parts,
  asker: Asker,
  { id, view = plainView }: { readonly id: string; readonly view?: ViewState },
): Promise<LookedAt> {
  const place = boardOf(asker, id)
  const { workspace, snapshot } = asker
  const board = place.node.id
  const columns = visibleColumnsAt(asker, id)
  const held = await upToDate(parts, { workspace, snapshot, board })
  const hidden = await hiddenBelow(parts, asker, { board, columns, version: held.version })
  return {
    board,
    place,
    columns,
    looking: {
      view,
      columns: columns.map(({ id, kind, settings }) => ({ id, kind, settings })),
      sections: sectionsOf(snapshot.state, board).map(each => each.id),
      ...hidden,
      names: await namesFor(parts, asker, { board, columns, view }),
      me: asker.person,
      ...todayOf(parts, asker),
      teams: teamsIn(asker, view),
    },
  }
}

export const visibleColumnsAt = (asker: Asker, id: string): BoardColumn[] => {
  const { place } = visiblePlace(asker, id)
  return visibleColumns(asker.snapshot, asker.subject, place)
}

export const sectionsOf = (state: State, board: NodeId): Section[] =>
  rowsBy(state.sections, 'board', board).sort(
    (a, b) => a.order - b.order || compareWords(a.name, b.name) || (a.id < b.id ? -1 : 1),
  )

/** Days are those of the workspace, for everybody alike: a link shows each of them the same. */
export function todayOf({ clock }: Parts, { snapshot }: Asker): Pick<Looking, 'today' | 'timeZone'> {
  const { timeZone } = workspaceOf(snapshot.state)
  return { timeZone, today: Math.floor(localOf(clock(), timeZone) / dayLength) }
}

interface Held {
  readonly board: NodeId
  readonly columns: readonly BoardColumn[]
  readonly version: number
}

type Hidden = Pick<Looking, 'hidden' | 'unknown'>

const hiddenOf = new WeakMap<State, Map<string, Hidden>>()

/** Rows and files that the asker does not see, and whom of those in cells they may not know. Kept for a state. */
async function hiddenBelow(parts: Parts, asker: Asker, { board, columns, version }: Held): Promise<Hidden> {
  const { state } = asker.snapshot
  const kept = hiddenOf.get(state) ?? new Map<string, Hidden>()
  hiddenOf.set(state, kept)
  const key = `${asker.person} ${board} ${version} ${asker.snapshot.at}`
  const known = kept.get(key)
  if (known !== undefined) return known
  const hidden = [...ownPlacesBelow(state, board)].map(each => each.id).filter(id => !maySee(asker, id))
  const naming = columns.filter(each => each.kind === 'person' || each.kind === 'place').map(each => each.id)
  const named =
    naming.length === 0
      ? []
      : await askBoard<'named'>(parts.boards.thread, board, { kind: 'named', columns: naming })
  const unknown = named.filter(id => !mayKnow(asker, id))
  const found = { hidden, unknown: [...hidden, ...unknown] }
  kept.set(key, found)
  return found
}

const mayKnow = (asker: Asker, id: string): boolean =>
  rowOf(asker.snapshot.state.persons, id as PersonId) === undefined
    ? maySee(asker, id as NodeId)
    : knowsPerson(asker, id as PersonId)

interface Viewed {
  readonly board: NodeId
  readonly columns: readonly BoardColumn[]
  readonly view: ViewState
}

/** Names by which rows are sorted or grouped: they are not the board's own. */
async function namesFor(
  parts: Parts,
  asker: Asker,
  { board, columns, view }: Viewed,
): Promise<Looking['names']> {
  const used = new Set([...view.sort.map(each => each.column), view.group])
  const naming = columns.filter(({ id, kind }) => used.has(id) && ['person', 'place', 'file'].includes(kind))
  if (naming.length === 0) return []
  const ids = await askBoard<'named'>(parts.boards.thread, board, {
    kind: 'named',
    columns: naming.map(each => each.id),
  })
  return ids.flatMap(id => {
    const name = knownName(asker, id)
    return name === undefined ? [] : [[id, name] as const]
  })
}

/** The people of the teams that a view asks for, where the asker knows the team. */
function teamsIn({ snapshot, person }: Asker, view: ViewState): Looking['teams'] {
  const takingTeam = everyCondition(view.where).filter(
    ({ word }) => word === 'is in team' || word === 'by team',
  )
  return Object.fromEntries(
    takingTeam.flatMap(({ given: [team = ''] }) =>
      knowsTeam(snapshot, person, team as TeamId)
        ? [
            [
              team,
              rowsBy(snapshot.state.memberships, 'team', team)
                .filter(each => isLive(each, snapshot.at))
                .map(each => each.person),
            ],
          ]
        : [],
    ),
  )
}

/** A view as its reader may know it: conditions, sorts and columns by what they do not see are left out of it. */
export function viewSeen(view: ViewState, columns: readonly BoardColumn[]): ViewState {
  const seen = new Set(['name', 'section', ...columns.map(each => each.id)])
  return {
    ...view,
    by: view.by !== null && seen.has(view.by) ? view.by : null,
    group: view.group !== null && seen.has(view.group) ? view.group : null,
    sort: view.sort.filter(each => seen.has(each.column)),
    columns: view.columns?.filter(each => seen.has(each.column)) ?? null,
    where: {
      ...view.where,
      of: view.where.of.flatMap((each): (Condition | NestedConditions)[] => {
        if (!isNested(each)) return seen.has(each.column) ? [each] : []
        const of = each.of.filter(one => seen.has(one.column))
        return of.length === 0 ? [] : [{ ...each, of }]
      }),
    },
  }
}
