import type { AccountId, NodeId, WorkspaceId } from '#core/base/ids.ts'
import { actionsAt, check, heldBeforeStates } from '#core/access/evaluate.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { mayUse, rankFor } from '#core/access/powers.ts'
import { type Subject, subjectOf } from '#core/access/subject.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { type Instant, isLive } from '#core/base/instant.ts'
import { type Action, type ActionSet, has } from '#core/levels/action.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { Naming } from '#core/words/refusal.ts'
import { type Snapshot, pathOf, rootOf, workspaceOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { PersonId } from '#core/base/ids.ts'
import type { ServerProblem } from '#contract/problem.ts'
import type { Person } from '#core/people/person.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { need, snapshotAt } from '../../store/states.ts'
import { isSomebodyIn } from '../../store/whereabouts.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'

/** Who is asking, in which workspace, about which state. Every answer is given to an asker. */
export interface Asker {
  readonly workspace: WorkspaceId
  readonly snapshot: Snapshot
  readonly subject: Subject
  readonly person: PersonId
  /** Asks with a look at the outline open: titles of places that are not seen may be told, and nothing else of them. */
  readonly outlines?: boolean
}

/**
 * The same of a workspace that may have to be read first: for whoever is, or was, somebody in it, and for nobody else, so
 * that one that is not theirs answers like none.
 */
export async function arrive(parts: Parts, account: AccountId, slug: string): Promise<Asker> {
  const { states, tables } = parts.writer
  const workspace = states.bySlug.get(slug)
  if (workspace === undefined || !states.published.has(workspace)) {
    const isTheirs = await isSomebodyIn(tables, account, workspace ?? '')
    if (workspace !== undefined && isTheirs) await need(states, workspace)
  }
  return askerOf(parts, account, slug)
}

/**
 * The active person of an account in a workspace. Who is in it and not let in now is told why: it is their own. Anything
 * else, also who was removed, is answered as if there were no such workspace.
 */
export function askerOf(parts: Parts, account: AccountId, slug: string): Asker {
  const workspace = parts.writer.states.bySlug.get(slug)
  const snapshot =
    workspace === undefined ? undefined : snapshotAt(parts.writer.states, workspace, parts.clock())
  if (workspace === undefined || snapshot === undefined) throw problemOf('not-found')
  const persons = rowsBy(snapshot.state.persons, 'account', account)
  const subject = persons.map(person => subjectOf(snapshot, person.id)).find(each => each?.isActive === true)
  if (subject === undefined) throw problemOf(whyNotLetIn(persons, snapshot.at))
  if (!parts.secured.has(account) && needsTwoStep(snapshot, subject.person.id))
    throw problemOf('two-step-needed')
  return { workspace, snapshot, subject, person: subject.person.id }
}

function whyNotLetIn(persons: readonly Person[], now: Instant): ServerProblem {
  const person = persons.find(each => each.status === 'active' || each.status === 'suspended')
  if (person === undefined) return 'not-found'
  if (person.status === 'suspended') return 'access-suspended'
  return person.until !== null && person.until <= now ? 'access-ended' : 'access-not-started'
}

/** Whether somebody holds a role that the workspace lets nobody use without a second step at sign-in. */
export function needsTwoStep(snapshot: Snapshot, person: PersonId): boolean {
  const { twoStepFor } = workspaceOf(snapshot.state)
  if (twoStepFor.length === 0) return false
  return rowsBy(snapshot.state.holdings, 'person', person).some(
    holding => twoStepFor.includes(holding.role) && isLive(holding, snapshot.at),
  )
}

/** The same person asking about another state or time; nobody, if there is no such person in it. */
export function readerAt(workspace: WorkspaceId, snapshot: Snapshot, person: PersonId): Asker | undefined {
  const subject = subjectOf(snapshot, person)
  return subject === undefined ? undefined : { workspace, snapshot, subject, person }
}

export const asks = (asker: Asker, privilege: Privilege): boolean =>
  mayUse(asker.snapshot, asker.person, privilege)

/** A place that the asker sees; the root and what is hidden answer like what does not exist. */
export function visiblePlace(asker: Asker, node: string): { place: Place; actions: ActionSet } {
  const place = placeOf(asker.snapshot, node as NodeId)
  if (place === undefined || place.node.kind === 'root') throw problemOf('not-found')
  const actions = actionsAt(asker.snapshot, asker.subject, place)
  if (!has(actions, 'see')) throw problemOf('not-found')
  return { place, actions }
}

export const maySee = ({ snapshot, person }: Asker, node: NodeId): boolean =>
  has(check(snapshot, person, node), 'see') && node !== rootOf(snapshot.state).id

/** Titles and kinds of all places but what lies in somebody's private folder. */
export const mayOutline = (asker: Asker, node: NodeId): boolean =>
  asks(asker, 'see the outline') &&
  !pathOf(asker.snapshot.state, node).some(each => each.home?.of === 'person')

/** Whether the title of a place may be told: it is seen, or a look at the outline is open. */
export const mayName = (asker: Asker, node: NodeId): boolean =>
  maySee(asker, node) ||
  (asker.outlines === true && node !== rootOf(asker.snapshot.state).id && mayOutline(asker, node))

/** The same asker, who is told titles besides while a look of theirs at the outline is open. */
export function checking({ clock }: Parts, asker: Asker): Asker {
  const { snapshot, person } = asker
  // A snapshot is kept while nothing starts or ends in it: the end of a viewing session is read by the clock.
  const now = clock()
  const isLooking = rowsBy(snapshot.state.viewingSessions, 'by', person).some(
    each => each.through === null && each.until > now,
  )
  return isLooking && asks(asker, 'see the outline') ? { ...asker, outlines: true } : asker
}

/** Whether the asker holds an action at a place, read before archives and the bin. */
export const holdsAt = (reader: Asker, node: NodeId, action: Action): boolean =>
  has(heldBeforeStates(reader.snapshot, reader.person, node), action)

/** The ancestors as far up as they are seen without a gap, topmost first. */
export function visiblePath(asker: Asker, ancestors: readonly ContentNode[]): { id: string; name: string }[] {
  const gap = ancestors.findIndex(node => !mayName(asker, node.id))
  const seen = gap === -1 ? ancestors : ancestors.slice(0, gap)
  return seen.map(({ id, name }) => ({ id, name })).toReversed()
}

/** The same in words: "Sites › North Spit". */
export const pathWords = (asker: Asker, ancestors: readonly ContentNode[]): string =>
  visiblePath(asker, ancestors)
    .map(each => each.name)
    .join(' › ')

/** Members know their colleagues; a guest knows itself and whom it turns to. */
export function knowsPerson(asker: Asker, person: PersonId): boolean {
  if (person === asker.person || person === asker.subject.person.contact) return true
  return asks(asker, 'view people') || seesOver(asker, person)
}

/** Whether the asker sees people over a scope that the person is in. */
function seesOver({ snapshot, person: asker }: Asker, id: PersonId): boolean {
  const person = rowOf(snapshot.state.persons, id)
  if (person === undefined) return false
  const teams = rowsBy(snapshot.state.memberships, 'person', id).map(each => each.team)
  const target = { over: person.kind, teams } as const
  return rankFor(snapshot, asker, { privilege: 'view people', target }) !== undefined
}

/** The names that the asker may read in a refusal. */
export const namingFor = (asker: Asker): Naming => ({
  place: node => (maySee(asker, node) ? rowOf(asker.snapshot.state.nodes, node)?.name : undefined),
  person: person => (knowsPerson(asker, person) ? nameOf(asker.snapshot, person) : undefined),
  team: team =>
    knowsTeam(asker.snapshot, asker.person, team) ? rowOf(asker.snapshot.state.teams, team)?.name : undefined,
})

/** The name somebody goes by; before they have one, their address. */
export function nameOf(snapshot: Snapshot, id: PersonId): string {
  const person = rowOf(snapshot.state.persons, id)
  return person === undefined ? 'somebody who is no longer here' : person.name || person.mail
}

/** Where something is set, as far as the asker may know: the root is called the whole workspace. */
export function placeName(asker: Asker, node: NodeId): { id: string; name: string } | null {
  if (node === rootOf(asker.snapshot.state).id)
    return { id: '', name: `the whole of ${workspaceOf(asker.snapshot.state).name}` }
  return mayName(asker, node) ? { id: node, name: rowOf(asker.snapshot.state.nodes, node)?.name ?? '' } : null
}
