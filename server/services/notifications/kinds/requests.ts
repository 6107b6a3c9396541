import { check } from '#core/access/evaluate.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId, RequestId, TeamId } from '#core/base/ids.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { decidersOnAccess, isGiven, isOpen } from '#core/changes/requests/for-access.ts'
import { decidersOnRole } from '#core/changes/requests/for-role.ts'
import { decidersOnTeam } from '#core/changes/requests/to-join.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import {
  type AccessRequest,
  isForAccess,
  isForRole,
  isForTeam,
  type RequestFor,
  type RoleRequest,
} from '#core/people/request.ts'
import { wantedInWords } from '#core/words/request-events.ts'
import { type Asker, asks, nameOf } from '../../viewer/asker.ts'
import { eventNaming } from '../../oversight/audit-event.ts'
import { isMember, type NotificationKind, type Written } from '../kind.ts'
import { quoted, visiblePlaces, whoDid } from '../words.ts'

/** Requests, told to whoever may decide them; and their answers, told to whoever asked. */

interface Asked {
  readonly request: RequestId
}

/** Leads, and who manages any team. */
const decidesOnTeams = (reader: Asker): boolean =>
  asks(reader, 'manage any team') || [...reader.subject.principals].some(each => each.startsWith('leads:'))

/** Somebody asks to be let into a team that one leads; where nobody leads it, whoever manages any team is told. */
export const teamRequested: NotificationKind<Asked> = {
  kind: 'team requested',
  when: 'somebody requests to join a team that I lead',
  reaches: decidesOnTeams,
  find: written =>
    madeIn(written)
      .filter(isForTeam)
      .flatMap(each => telling(decidersOnTeam(written.after, each), { request: each.id })),
  tell: (reader, { request: id }) => {
    const request = openRequest(reader, id)
    if (request === undefined || !isForTeam(request)) return undefined
    const { team } = request.wants
    const name = rowOf(reader.snapshot.state.teams, team)?.name ?? ''
    return { text: asksWords(reader, request), place: null, team: { id: team, name }, revision: null }
  },
}

/** Somebody asks for a role that one may give. */
export const roleRequested: NotificationKind<Asked> = {
  kind: 'role requested',
  when: 'somebody requests a role that I can assign',
  reaches: reader => asks(reader, 'assign roles'),
  find: written =>
    madeIn(written)
      .filter(isForRole)
      .flatMap(each => telling(decidersOnRole(written.after, each), { request: each.id })),
  tell: (reader, { request: id }) => {
    const request = openRequest(reader, id)
    if (request === undefined) return undefined
    const to = { name: 'Decide', path: 'roles/requests' }
    return { text: asksWords(reader, request), place: null, to, revision: null }
  },
}

interface AccessAsked extends Asked {
  readonly step: 'new' | 'remind' | 'go on'
}

/** Whoever asks first reaches those who give access nearest to the place; unanswered, it reminds, then goes on to all who may. */
export const accessRequested: NotificationKind<AccessAsked> = {
  kind: 'access requested',
  when: 'somebody requests access that I can give',
  reaches: isMember,
  find: written => [
    ...madeIn(written)
      .filter(isForAccess)
      .flatMap(each => accessAskedOf(written, each, 'new')),
    ...written.waiting.flatMap(({ request, step }) => accessAskedOf(written, request, step)),
  ],
  tell: (reader, { request: id, step }) => {
    const { snapshot } = reader
    const request = openRequest(reader, id)
    if (request === undefined || !isForAccess(request) || !isOpen(request, snapshot.at)) return undefined
    const { node, actions } = request.wants
    if (!has(check(snapshot, reader.person, node), 'share') || isGiven(snapshot, request)) return undefined
    const what = `${eventNaming(reader).level(actions)} on ${rowOf(snapshot.state.nodes, node)?.name ?? ''}`
    const asks = step === 'remind' ? `still waits for an answer to their request for` : 'requests'
    const text = `${nameOf(snapshot, request.person)} ${asks} ${what}${quoted(request.reason)}.`
    return { text, place: null, to: { name: 'Decide', path: 'oversight/requests' }, revision: null }
  },
}

function accessAskedOf({ after }: Written, request: AccessRequest, step: AccessAsked['step']) {
  if (isGiven(after, request) || !isOpen(request, after.at)) return []
  const [near = [], others = []] = decidersOnAccess(after, request)
  // Those who were told before are not told again when it goes on; where nobody is near, all are told at once.
  const people = near.length === 0 ? (step === 'go on' ? [] : others) : step === 'go on' ? others : near
  return telling(people, { request: request.id, step })
}

const telling = <Data>(people: readonly PersonId[], data: Data) => people.map(person => ({ person, data }))

const madeIn = ({ changes }: Written): RequestFor[] =>
  changes.flatMap(change =>
    change.table === 'requests' && change.before === null && change.after !== null ? [change.after] : [],
  )

const openRequest = ({ snapshot }: Asker, id: RequestId): RequestFor | undefined => {
  const request = rowOf(snapshot.state.requests, id)
  return request?.declined === null ? request : undefined
}

const asksWords = (reader: Asker, { person, wants, reason }: RequestFor): string =>
  `${nameOf(reader.snapshot, person)} requests ${wantedInWords(wants, eventNaming(reader))}${quoted(reason)}.`

interface Answered {
  readonly by: PersonId
  /** `null` for what was given. */
  readonly declined: string | null
}

/** Requests that somebody else than who asked has answered, or that went another way. */
const answeredIn = ({ changes, author }: Written) =>
  changes.flatMap(change => {
    if (change.table !== 'requests' || change.before === null) return []
    const { before, after } = change
    if (before.declined !== null || before.person === author) return []
    const answer: Answered = { by: author, declined: after?.declined?.comment ?? null }
    return [{ request: before, isGone: after === null, answer }]
  })

/** One asked to be let into a team, and a lead has answered. */
export const teamAnswered: NotificationKind<Answered & { readonly team: TeamId }> = {
  kind: 'team answered',
  when: 'my request to join a team is accepted or declined',
  reaches: isMember,
  find: written =>
    answeredIn(written).flatMap(({ request, isGone, answer }) => {
      if (!isForTeam(request)) return []
      const { team } = request.wants
      const isIn = isGone && rowOf(written.after.state.teams, team) !== undefined
      return answer.declined !== null || isIn ? telling([request.person], { ...answer, team }) : []
    }),
  tell: (reader, { by, team: id, declined }) => {
    const team = rowOf(reader.snapshot.state.teams, id)
    if (team === undefined || !knowsTeam(reader.snapshot, reader.person, id)) return undefined
    const text = `${answerWords(reader, by, declined)} your request to join ${team.name}${quoted(declined ?? '')}.`
    return { text, place: null, team: { id, name: team.name }, revision: null }
  },
}

/** What one asked for was given or declined. */
export const roleAnswered: NotificationKind<Answered & { readonly wants: RoleRequest['wants'] }> = {
  kind: 'role answered',
  when: 'my request for a role is accepted or declined',
  reaches: isMember,
  find: written =>
    answeredIn(written).flatMap(({ request, answer }) =>
      isForRole(request) ? telling([request.person], { ...answer, wants: request.wants }) : [],
    ),
  tell: (reader, { by, wants, declined }) => {
    const wanted = wantedInWords(wants, eventNaming(reader))
    const text = `${answerWords(reader, by, declined)} your request for ${wanted}${quoted(declined ?? '')}.`
    return { text, place: null, to: { name: 'Your roles', path: 'me' }, revision: null }
  },
}

const answerWords = (reader: Asker, by: PersonId, declined: string | null): string =>
  `${whoDid(reader, by)} ${declined === null ? 'accepted' : 'declined'}`

interface AccessAnswered extends Answered {
  readonly node: NodeId
  readonly wants: ActionSet
  /** What was said to it besides, where it was accepted. */
  readonly comment: string
}

/** What one asked for at a place was given, or declined. */
export const accessAnswered: NotificationKind<AccessAnswered> = {
  kind: 'access answered',
  when: 'my request for access is accepted or declined',
  find: written =>
    answeredIn(written).flatMap(({ request, isGone, answer }) => {
      if (!isForAccess(request)) return []
      const { id, person, wants } = request
      if (isGone && rowOf(written.after.state.persons, person)?.status !== 'active') return []
      const comment = written.answers.get(id) ?? ''
      return telling([person], { ...answer, node: wants.node, wants: wants.actions, comment })
    }),
  tell: (reader, { by, node, wants, declined, comment }) => {
    const [place] = visiblePlaces(reader, [node])
    // That something was declined would tell that there is such a place.
    if (place === undefined) return undefined
    const { level } = eventNaming(reader)
    if (declined !== null) {
      const text = `${answerWords(reader, by, declined)} your request for ${level(wants)} on ${place.name}${quoted(declined)}.`
      return { text, place, to: { name: 'Your requests', path: 'oversight/requests' }, revision: null }
    }
    const has = level(check(reader.snapshot, reader.person, node))
    const text = `${answerWords(reader, by, null)} your request. You now have ${has} on ${place.name}${quoted(comment)}.`
    return { text, place, revision: null }
  },
}
