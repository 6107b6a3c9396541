import type { AuditEventView } from '#contract/views/history.ts'
import { throughDay } from '#contract/dates.ts'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId, RoleId, TeamId } from '#core/base/ids.ts'
import { check } from '#core/access/evaluate.ts'
import { actionsGiven } from '#core/access/place.ts'
import { knowsTeam, leadsTeam } from '#core/changes/context.ts'
import type { AuditEvent, AuditSubject } from '#core/changes/audit-event.ts'
import { has } from '#core/levels/action.ts'
import { nameOfActions } from '#core/levels/level.ts'
import { partsOf, type Principal } from '#core/rules/principal.ts'
import type { TableName } from '#core/state/kinds.ts'
import { rootOf, workspaceOf } from '#core/state/state.ts'
import { eventInWords, type EventNaming } from '#core/words/audit-event.ts'
import { type Asker, asks, holdsAt, knowsPerson, mayName, maySee, namingFor } from '../viewer/asker.ts'
import type { NamesThen } from './former-names.ts'
import { principalName } from '../viewer/principal.ts'

/**
 * Whether a reader may know that something was done. The place, team and person that it is about must be
 * known to the reader; and it must be the reader's own act, about the reader, at a place where the reader
 * shares, in a team that the reader leads, or the reader may read the history.
 */
export function mayReadEvent(reader: Asker, event: AuditEvent, author: PersonId): boolean {
  const isOwn = author === reader.person
  if (!knowsOf(reader, event, isOwn)) return false
  if (isOwn || event.person === reader.person || asks(reader, 'read the history')) return true
  if (event.place !== null && holdsAt(reader, event.place, 'share')) return true
  return event.place === null && event.team !== null && leadsTeam(reader.snapshot, reader.person, event.team)
}

/**
 * Whether a reader knows the place, team and person that something is about: then it can show on the
 * reader's pages. What is no more cannot be seen by anybody: who did it still knows it, and a place
 * that is gone those know of who know the place that it stood in.
 */
export function knowsOf(reader: Asker, event: AuditSubject, isOwn = false): boolean {
  const { place, person, team, category: act } = event
  if (act === 'workspace') return asks(reader, 'read the history')
  // What the outline shows is nobody's in particular; roles are known to who sees roles, or is concerned.
  if (act === 'looking' && person === null) return isOwn || asks(reader, 'read the history')
  if (act === 'roles' && person === null)
    return isOwn || asks(reader, 'read the history') || asks(reader, 'view roles')
  const sharesThere = place !== null && holdsAt(reader, place, 'share')
  const parts: [TableName, string | null, (id: never) => boolean][] = [
    [
      'nodes',
      isOwnAddress(event, isOwn) ? null : place,
      id => isPlaceKnown(reader, id) || stoodInKnown(reader, event),
    ],
    ['teams', team, id => knowsTeam(reader.snapshot, reader.person, id)],
    ['persons', person, id => knowsPerson(reader, id) || sharesThere],
  ]
  return parts.every(
    ([table, id, knows]) => id === null || knows(id as never) || (isOwn && isGone(reader, table, id)),
  )
}

/** One's own request is told alike whether its place is there or not. */
const isOwnAddress = ({ byAddress }: AuditSubject, isOwn: boolean) => isOwn && byAddress

const stoodInKnown = (reader: Asker, { place, parent }: AuditSubject): boolean =>
  place !== null && parent !== null && isGone(reader, 'nodes', place) && isPlaceKnown(reader, parent)

const isGone = ({ snapshot }: Asker, table: TableName, id: string): boolean =>
  rowOf(snapshot.state[table] as typeof snapshot.state.nodes, id as NodeId) === undefined

/** The root, whose entries are told to those who read the history; what is in the bin, to those who could bring it back. */
export function isPlaceKnown(reader: Asker, node: NodeId): boolean {
  if (node === rootOf(reader.snapshot.state).id) return asks(reader, 'read the history')
  return has(check(reader.snapshot, reader.person, node), 'see') || holdsAt(reader, node, 'remove')
}

/** Told with the names of its day, where the reader may know them; with those of today where none are given. */
export function auditEventView(reader: Asker, event: AuditEvent, then?: NamesThen): AuditEventView {
  const naming = eventNaming(reader, then)
  const { state } = reader.snapshot
  const place = event.place === null ? undefined : rowOf(state.nodes, event.place)
  const person = event.person === null ? undefined : rowOf(state.persons, event.person)
  return {
    category: event.category,
    text: eventInWords(state, event, naming),
    place: place === undefined || !maySee(reader, place.id) ? null : { id: place.id, name: place.name },
    person: person === undefined ? null : { id: person.id, name: naming.person(person.id) ?? '' },
  }
}

/** Names for telling what was or would be done, as far as a reader may know them. */
export function eventNaming(reader: Asker, then: NamesThen = () => undefined): EventNaming {
  const { state, at } = reader.snapshot
  const { timeZone, name } = workspaceOf(state)
  const root = rootOf(state).id
  const former = formerFor(reader, then)
  const place = (node: NodeId) =>
    node === root
      ? `the whole of ${name}`
      : isPlaceKnown(reader, node) || mayName(reader, node)
        ? (former.place(node) ?? rowOf(state.nodes, node)?.name)
        : undefined
  const today = namingFor(reader)
  return {
    person: person => today.person(person) && (former.person(person) ?? today.person(person)),
    team: team => today.team(team) && (former.team(team) ?? today.team(team)),
    place,
    where: node => {
      const parent = rowOf(state.nodes, node)?.parent ?? root
      const within = parent === root || place(node) === undefined ? undefined : place(parent)
      return within === undefined ? place(node) : `${place(node)} in ${within}`
    },
    principal: principal => former.principal(principal) ?? principalName(reader, principal).name,
    level: gives => nameOfActions(actionsGiven(state, gives), allRows(state.levels)).name,
    role: role => former.role(role) ?? rowOf(state.roles, role)?.name ?? 'a role that is no more',
    through: until => throughDay(until, timeZone, at),
    since: from => (from === null ? 'at once' : `on ${throughDay(from + 1, timeZone, at)}`),
  }
}

/**
 * What things were called then, for whoever could have read that they were renamed: somebody who sees a thing only since
 * does not learn what it was called before.
 */
function formerFor(reader: Asker, then: NamesThen) {
  const reads = asks(reader, 'read the history')
  const place = (node: NodeId) => (reads || holdsAt(reader, node, 'share') ? then('nodes', node) : undefined)
  const person = (id: PersonId) => (reads || id === reader.person ? then('persons', id) : undefined)
  const team = (id: TeamId) =>
    reads || leadsTeam(reader.snapshot, reader.person, id) ? then('teams', id) : undefined
  const role = (id: RoleId) => (reads || asks(reader, 'view roles') ? then('roles', id) : undefined)
  const principal = (principal: Principal) => {
    const parts = partsOf(principal)
    if (parts.kind === 'person') return person(parts.person)
    if (parts.kind === 'team') return team(parts.team)
    const name = parts.kind === 'leads' ? team(parts.team) : undefined
    return name === undefined ? undefined : `Leads of ${name}`
  }
  return { place, person, team, role, principal }
}
