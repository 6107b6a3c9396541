import { setImmediate } from 'node:timers/promises'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import type { PlaceHit } from '#contract/views/content.ts'
import type { PathView } from '#contract/views/names.ts'
import type { OfferView } from '#contract/views/onboarding.ts'
import type { MyAccessView } from '#contract/views/people.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { OfferPreviewRequest } from '#contract/requests.ts'
import { seatsTaken, takesSeat } from '#core/access/seats.ts'
import { givenTo } from '#core/access/matching.ts'
import { type Subject, subjectOf, teamsOf } from '#core/access/subject.ts'
import { isRoot } from '#core/access/side-by-side.ts'
import { visibleAt, visibleCount, type VisibleRows } from '#core/access/what.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { idOf } from '#core/base/numbering.ts'
import { type Instant, isLive } from '#core/base/instant.ts'
import { refused } from '#core/base/result.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { judge } from '#core/changes/judge.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { isAsleep, type Privilege } from '#core/levels/privilege.ts'
import { privilegesOf, type Role } from '#core/people/role.ts'
import { partsOf, personPrincipal } from '#core/rules/principal.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import type { Holding, Person } from '#core/people/person.ts'
import { applyChanges, type Snapshot, type State, workspaceOf } from '#core/state/state.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { type Asker, holdsAt, knowsPerson, nameOf, pathWords, readerAt } from './asker.ts'
import { mintingFor, problemFrom } from './change-set.ts'
import { editFrom } from './edits.ts'
import { findPlaces } from './place-search.ts'
import { unknownIn } from './known-ids.ts'
import { viewingSessionView } from './viewing-session.ts'
import { handoverView } from './owners.ts'
import { holdingView, personTeams } from './people.ts'
import { mayAskOf } from './questions.ts'
import { visibleSegments } from './visible.ts'

/** Where somebody has access, as far as the asker may be told: each place at which it differs from above. */
export async function accessiblePlaces(
  parts: Parts,
  asker: Asker,
  id: string,
): Promise<AccessiblePlaceView[]> {
  const subject = subjectOf(asker.snapshot, id as PersonId)
  if (subject === undefined || !knowsPerson(asker, subject.person.id)) throw problemOf('not-found')
  return reachedBy(asker, subject, {
    pieces: await visibleSegments(parts, asker, subject.person.id),
    mayTell: node => mayAskOf(asker, subject.person.id, node),
  })
}

/** Places by their name where the asker gives access: what can be offered to somebody. */
export const placesToOffer = (asker: Asker, find: string): Promise<PlaceHit[]> =>
  findPlaces(asker, {
    find,
    may: (_, actions) => has(actions, 'share'),
    fits: node => node.home?.of !== 'person',
  })

/** One's own roles, teams and places, and by what one has each. */
export async function myAccessView(parts: Parts, asker: Asker): Promise<MyAccessView> {
  const { snapshot, subject } = asker
  const { contact, invitedBy, from, until } = subject.person
  const reached = await reachedBy(asker, subject, {
    pieces: await visibleSegments(parts, asker, asker.person),
    mayTell: () => true,
  })
  return {
    roles: rowsBy(snapshot.state.holdings, 'person', asker.person)
      .filter(holding => isLive(holding, snapshot.at))
      .map(holding => {
        const role = rowOf(snapshot.state.roles, holding.role)
        return {
          ...holdingView(asker, holding),
          note: role?.note ?? '',
          ...(role === undefined ? { privileges: [], asleep: [] } : heldBy(role, holding)),
        }
      }),
    handovers: allRows(snapshot.state.handovers)
      .filter(each => each.to === asker.person)
      .map(each => handoverView(asker, each)),
    viewingSessions: rowsBy(snapshot.state.viewingSessions, 'through', asker.person)
      .sort((a, b) => b.at - a.at)
      .map(each => viewingSessionView(parts, asker, each)),
    teams: personTeams(asker, subject.person),
    places: reached.map(place => ({ ...place, until: ownEnd(asker, place.id as NodeId) })),
    contact: contact === null ? null : { id: contact, name: nameOf(snapshot, contact) },
    // The invitation told it.
    invitedBy: invitedBy === null ? null : nameOf(snapshot, invitedBy),
    from,
    until,
  }
}

/** When the last of what was given to the asker by name at a place ends; `null` where nothing is, or one has no end. */
function ownEnd({ snapshot, person }: Asker, node: NodeId): Instant | null {
  const ends = rowsBy(snapshot.state.grants, 'principal', personPrincipal(person))
    .filter(grant => grant.node === node && isLive(grant, snapshot.at))
    .map(grant => grant.until ?? Number.POSITIVE_INFINITY)
  const last = Math.max(...ends)
  return Number.isFinite(last) ? last : null
}

interface Reaching {
  readonly pieces: VisibleRows
  readonly mayTell: (node: NodeId) => boolean
}

/** So many are looked at between one turn of others and the next. */
const atOnce = 1000

/** Down the tree, parents first; a place that gives just what the one above gives is counted there. */
async function reachedBy(
  asker: Asker,
  subject: Subject,
  { pieces, mayTell }: Reaching,
): Promise<AccessiblePlaceView[]> {
  const { index, nodes } = asker.snapshot.state
  const found: { view: AccessiblePlaceView; alike: number }[] = []
  /** By the place of a piece in the list, under which view it is counted. */
  const toldIn: ((typeof found)[number] | undefined)[] = []
  for (let place = 0; place < visibleCount(pieces); place += 1) {
    const piece = visibleAt(pieces, place)
    const id = idOf(index.nodes, piece.node) as NodeId
    const above = toldIn[piece.within]
    if (isRoot(index, piece.node) || !mayTell(id)) {
      toldIn.push(undefined)
    } else if (above?.view.actions === piece.actions) {
      above.alike += piece.nodes
      toldIn.push(above)
    } else {
      const node = rowOf(nodes, id) as ContentNode
      const told = {
        view: reachedAt(asker, subject, { node, actions: piece.actions }),
        alike: piece.nodes - 1,
      }
      found.push(told)
      toldIn.push(told)
    }
    if (place % atOnce === atOnce - 1) await setImmediate()
  }
  return found.map(({ view, alike }) => ({ ...view, alike })).sort((a, b) => compareWords(wayTo(a), wayTo(b)))
}

function reachedAt(
  asker: Asker,
  subject: Subject,
  { node, actions }: { readonly node: ContentNode; readonly actions: ActionSet },
): AccessiblePlaceView {
  const place = placeOf(asker.snapshot, node.id)
  return {
    id: node.id,
    name: node.name,
    kind: node.home === null ? node.kind : 'home',
    path: pathWords(asker, place?.path.slice(1) ?? []),
    actions,
    through: place === undefined ? [] : throughWords(asker, subject, place),
    alike: 0,
  }
}

/** The whole way down, by which places are ordered as one would meet them. */
export const wayTo = ({ path, name }: PathView) => (path === '' ? name : `${path} › ${name}`)

/** By name, as one of all members, through which team: each once. */
export function throughWords(asker: Asker, subject: Subject, { node, grants }: Place): string[] {
  const { snapshot, person } = asker
  const sharesThere = holdsAt(asker, node.id, 'share')
  const matching = grants.filter(({ grant }) => subject.principals.has(grant.principal))
  const words = matching
    .filter(each => has(givenTo(subject, [each]), 'see'))
    .map(({ grant }) => {
      const parts = partsOf(grant.principal)
      if (parts.kind === 'person') return 'by name'
      if (!('team' in parts)) return 'all members'
      if (!sharesThere && !knowsTeam(snapshot, person, parts.team)) return 'a team that you do not know'
      const name = rowOf(snapshot.state.teams, parts.team)?.name ?? ''
      return parts.kind === 'leads' ? `lead of ${name}` : name
    })
  return [...new Set(words)]
}

/** What somebody who takes an offer could see and do, put together as if they were here. */
export async function offerView(
  parts: Parts,
  asker: Asker,
  { offer, scope }: OfferPreviewRequest,
): Promise<OfferView> {
  const before = snapshotOf(asker.snapshot.state, parts.clock())
  const made = new Map<string, string>()
  const workspace = workspaceOf(before.state)
  const minting = mintingFor(parts, before.state, made)
  const mail = `somebody@${welcomeDomain(before.state, offer.as)}`
  const somebody = { person: 'new:somebody', mail, name: 'Somebody' }
  const requests = invitingEdits(offer, { ...somebody, ...(scope === undefined ? {} : { scope }) })
  const edits = requests.map(each => editFrom(each, minting))
  const unknown = requests.flatMap(each => unknownIn(asker, each) ?? [])[0]
  const judged =
    unknown === undefined
      ? judge(before, { author: asker.person, reason: '', edits })
      : refused({ refusal: unknown, edit: null })
  const bought = workspace.seats
  if (!judged.ok)
    return {
      places: [],
      privileges: [],
      asleep: [],
      role: '',
      teams: [],
      seats: { taken: seatsTaken(before), bought, each: 0 },
      problem: problemFrom(judged.error, asker),
    }
  const id = made.get('new:somebody') as PersonId
  const { snapshot, subject } = asIfHere(snapshotOf(judged.value.state, before.at), id)
  const reader = readerAt(asker.workspace, snapshot, asker.person) ?? asker
  return {
    places: await reachedBy(reader, subject, {
      pieces: await visibleSegments(parts, reader, id),
      mayTell: node => mayAskOf(reader, id, node),
    }),
    ...roleOf(snapshot, id),
    teams: teamsOf(snapshot, subject.person).map(each => rowOf(snapshot.state.teams, each.team)?.name ?? ''),
    seats: { taken: seatsTaken(snapshot), bought, each: takesSeat(snapshot, subject.person) ? 1 : 0 },
    problem: null,
  }
}

/** A mail domain from which such people may come. */
export function welcomeDomain(state: State, as: Person['kind']): string {
  const { guestDomains, memberDomains } = workspaceOf(state)
  return (as === 'guest' ? guestDomains : memberDomains)[0] ?? 'newcomer.invalid'
}

function asIfHere({ state, at }: Snapshot, id: PersonId): { snapshot: Snapshot; subject: Subject } {
  const before = rowOf(state.persons, id)
  if (before === undefined) throw problemOf('not-found')
  const after = { ...before, status: 'active', from: null } as const
  const snapshot = snapshotOf(applyChanges(state, [{ table: 'persons', id, before, after }]), at)
  const subject = subjectOf(snapshot, id)
  if (subject === undefined) throw problemOf('not-found')
  return { snapshot, subject }
}

function roleOf({ state }: Snapshot, person: PersonId): Pick<OfferView, 'role' | 'privileges' | 'asleep'> {
  const [holding] = rowsBy(state.holdings, 'person', person)
  const role = holding === undefined ? undefined : rowOf(state.roles, holding.role)
  if (holding === undefined || role === undefined) return { role: '', privileges: [], asleep: [] }
  return { role: role.name, ...heldBy(role, holding) }
}

/** What a role lets one do, and what of it has no effect over the scope in which it is held. */
function heldBy(role: Role, { scope }: Holding): { privileges: Privilege[]; asleep: Privilege[] } {
  const privileges = [...privilegesOf(role)]
  return { privileges, asleep: privileges.filter(each => isAsleep(each, scope.over)) }
}
