import { rowOf } from '#core/base/collection.ts'
import type { PersonId, RequestId, TeamId } from '#core/base/ids.ts'
import { isActive, peopleIn, peopleOf } from '#core/access/subject.ts'
import { mayUse } from '#core/access/powers.ts'
import { knowsTeam } from '#core/changes/context.ts'
import type { JoinRequest } from '#core/people/person.ts'
import type { Moment } from '#core/state/state.ts'
import { type Asker, asks, nameOf } from '../../asker.ts'
import { whoDid } from '../words.ts'
import { isMember, type NoticeKind } from '../kind.ts'

interface Asked {
  readonly request: RequestId
}

/** Leads, and who manages any team. */
const decidesOnTeams = (reader: Asker): boolean =>
  asks(reader, 'manage any team') || [...reader.subject.principals].some(each => each.startsWith('leads:'))

/** Somebody asks to be let into a team that one leads; where nobody leads it, whoever manages any team is told. */
export const asked: NoticeKind<Asked> = {
  kind: 'asked',
  when: 'somebody requests to join a team that I lead',
  reaches: decidesOnTeams,
  find: ({ changes, after }) =>
    changes.flatMap(change => {
      if (change.table !== 'requests' || change.before !== null) return []
      return decidersOf(after, change.after?.team).map(person => ({ person, data: { request: change.id } }))
    }),
  tell: ({ moment }, { request: id }) => {
    const request = rowOf(moment.state.requests, id)
    const team = request === undefined ? undefined : rowOf(moment.state.teams, request.team)
    if (request?.declined !== null || team === undefined) return undefined
    const word = request.word === '' ? '' : `: “${request.word}”`
    const text = `${nameOf(moment, request.person)} requests to join ${team.name}${word}.`
    return { text, place: null, team: { id: team.id, name: team.name }, revision: null }
  },
}

function decidersOf(moment: Moment, id: TeamId | undefined): PersonId[] {
  const team = id === undefined ? undefined : rowOf(moment.state.teams, id)
  if (team === undefined) return []
  const leads = peopleIn(moment, team).filter(each => each.lead && isActive(moment, each.person))
  if (leads.length > 0) return leads.map(each => each.person.id)
  return [...peopleOf(moment)].map(each => each.id).filter(each => mayUse(moment, each, 'manage any team'))
}

interface Answered {
  readonly by: PersonId
  readonly team: TeamId
  /** `null` for who was let in. */
  readonly declined: string | null
}

/** One asked to be let into a team, and a lead has answered. */
export const answered: NoticeKind<Answered> = {
  kind: 'answered',
  when: 'my request to join a team is accepted or declined',
  reaches: isMember,
  find: ({ changes, author, after }) =>
    changes.flatMap(change => {
      if (change.table !== 'requests') return []
      const { person, team } = (change.after ?? change.before) as JoinRequest
      const isAnswered = change.before?.declined === null && person !== author
      const declined = change.after?.declined?.word ?? null
      const isIn = change.after === null && rowOf(after.state.teams, team) !== undefined
      return isAnswered && (declined !== null || isIn)
        ? [{ person, data: { by: author, team, declined } }]
        : []
    }),
  tell: (reader, { by, team: id, declined }) => {
    const team = rowOf(reader.moment.state.teams, id)
    if (team === undefined || !knowsTeam(reader.moment, reader.person, id)) return undefined
    const who = whoDid(reader, by)
    const text =
      declined === null
        ? `${who} accepted your request to join ${team.name}.`
        : `${who} declined your request to join ${team.name}${declined === '' ? '' : `: “${declined}”`}.`
    return { text, place: null, team: { id, name: team.name }, revision: null }
  },
}
