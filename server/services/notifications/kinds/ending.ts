import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId, TeamId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { check } from '#core/access/evaluate.ts'
import { peopleIn, subjectOf } from '#core/access/subject.ts'
import type { Edit } from '#core/changes/edit.ts'
import { judge } from '#core/changes/judge.ts'
import type { Nearing } from '#core/changes/scheduled.ts'
import { has } from '#core/levels/action.ts'
import { partsOf, personPrincipal } from '#core/rules/principal.ts'
import { type Snapshot, workspaceOf } from '#core/state/state.ts'
import { throughDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NotificationView } from '#contract/views/notifications.ts'
import { type Asker, maySee, nameOf, namingFor } from '../../viewer/asker.ts'
import { principalName } from '../../viewer/principal.ts'
import type { NotificationKind, Written } from '../kind.ts'

interface Data {
  readonly table: Nearing['table']
  readonly id: string
  readonly until: Instant
}

/** A week before access, a membership or one's time here ends: told to those whose it is, and to who could lengthen it. */
export const ending: NotificationKind<Data> = {
  kind: 'ending',
  when: 'an end date is near',
  find: written =>
    written.nearing.flatMap(({ table, id, after }) =>
      peopleConcerned(written, { table, after } as Nearing).map(person => ({
        person,
        data: { table, id, until: after?.until ?? 0 },
      })),
    ),
  tell: (reader, data) => {
    const { state, at } = reader.snapshot
    const row = rowOf(state[data.table] as typeof state.grants, data.id as never) as
      Nearing['after'] | undefined
    // Lengthened or ended meanwhile: there is nothing to tell any more.
    if (row == null || row.until !== data.until) return undefined
    const nearing = { ...data, after: row } as unknown as Nearing
    const text = tellOf(reader, nearing, throughDay(data.until, workspaceOf(state).timeZone, at))
    return text === undefined ? undefined : { ...text, offer: offerOf(reader, nearing) }
  },
}

/** For how long an end is put off in one act. */
const longer: Instant = 30 * 86_400_000

/** Whoever may lengthen it does so in one act. */
function offerOf(reader: Asker, { table, after }: Nearing): NotificationView['offer'] {
  const { snapshot, person: author } = reader
  if (after?.until == null || after.until <= snapshot.at) return null
  const until = after.until + longer
  const edit: Edit =
    table === 'grants'
      ? { kind: 'grant.change', grant: after.id, until }
      : table === 'memberships'
        ? { kind: 'member.change', team: after.team, person: after.person, until }
        : { kind: 'person.end', person: after.id, until }
  if (!judge(snapshot, { author, reason: '', edits: [edit] }).ok) return null
  const day = throughDay(until, workspaceOf(snapshot.state).timeZone, snapshot.at)
  return {
    label: `Extend until ${day}`,
    confirmation: `Extended until ${day}.`,
    edits: [edit as EditRequest],
  }
}

function peopleConcerned({ after: snapshot }: Written, { table, after }: Nearing): PersonId[] {
  if (after === null) return []
  const people = new Set<PersonId>()
  switch (table) {
    case 'grants':
      for (const person of peopleMeant(snapshot, after)) people.add(person)
      if (has(check(snapshot, after.by, after.node), 'share')) people.add(after.by)
      break
    case 'memberships':
      people.add(after.person)
      for (const lead of leadsOf(snapshot, after.team)) people.add(lead)
      break
    case 'persons':
      people.add(after.id)
      if (after.contact !== null) people.add(after.contact)
  }
  return [...people].filter(person => subjectOf(snapshot, person)?.isActive === true)
}

function peopleMeant(
  snapshot: Snapshot,
  { principal }: NonNullable<Extract<Nearing, { table: 'grants' }>['after']>,
): PersonId[] {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return [parts.person]
  const team =
    parts.kind === 'team' || parts.kind === 'leads' ? rowOf(snapshot.state.teams, parts.team) : undefined
  return team === undefined
    ? []
    : peopleIn(snapshot, team)
        .filter(each => each.lead || parts.kind === 'team')
        .map(each => each.person.id)
}

function leadsOf(snapshot: Snapshot, id: TeamId): PersonId[] {
  const team = rowOf(snapshot.state.teams, id)
  return team === undefined
    ? []
    : peopleIn(snapshot, team).flatMap(each => (each.lead ? [each.person.id] : []))
}

function tellOf(reader: Asker, { table, after }: Nearing, through: string) {
  if (after === null) return undefined
  switch (table) {
    case 'grants': {
      const place = placeSeen(reader, after.node)
      if (place === undefined) return undefined
      const isMine = after.principal === personPrincipal(reader.person)
      const whose = isMine ? 'Your access' : `The access of ${principalName(reader, after.principal).name}`
      return {
        text: `${whose} to ${place.name} ends after ${through}.`,
        place,
        revision: null,
      }
    }
    case 'memberships': {
      const team = namingFor(reader).team(after.team)
      if (team === undefined) return undefined
      const isMine = after.person === reader.person
      const whose = isMine ? 'Your membership' : `The membership of ${nameOf(reader.snapshot, after.person)}`
      return { text: `${whose} in ${team} ends after ${through}.`, place: null, revision: null }
    }
    case 'persons': {
      const isMine = after.id === reader.person
      const whose = isMine ? 'Your access' : `The access of ${nameOf(reader.snapshot, after.id)}`
      return { text: `${whose} to this workspace ends after ${through}.`, place: null, revision: null }
    }
  }
}

const placeSeen = (reader: Asker, node: NodeId) =>
  maySee(reader, node) ? { id: node, name: rowOf(reader.snapshot.state.nodes, node)?.name ?? '' } : undefined
