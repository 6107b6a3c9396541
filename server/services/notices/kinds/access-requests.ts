import { rowOf } from '#core/base/collection.ts'
import type { AccessRequestId, NodeId, PersonId } from '#core/base/ids.ts'
import { check } from '#core/access/evaluate.ts'
import { decidersOfAccess, isOpen } from '#core/changes/edits/access-request.ts'
import { type ActionSet, has, holds } from '#core/levels/action.ts'
import type { AccessRequest } from '#core/people/asking.ts'
import { factNaming } from '../../fact.ts'
import { nameOf } from '../../asker.ts'
import { quoted, visiblePlaces, whoDid } from '../words.ts'
import { isMember, type NoticeKind, type Written } from '../kind.ts'

interface Asked {
  readonly request: AccessRequestId
  readonly step: 'new' | 'remind' | 'go on'
}

/** Whoever asks first reaches those who give access nearest to the place; unanswered, it reminds, then goes on to all who may. */
export const accessAsked: NoticeKind<Asked> = {
  kind: 'access asked',
  when: 'somebody requests access that I can give',
  reaches: isMember,
  find: written => [
    ...written.changes.flatMap(change =>
      change.table === 'accessRequests' && change.before === null && change.after !== null
        ? askedOf(written, change.after, 'new')
        : [],
    ),
    ...written.waiting.flatMap(({ request, step }) => askedOf(written, request, step)),
  ],
  tell: (reader, { request: id, step }) => {
    const { state, at } = reader.moment
    const request = rowOf(state.accessRequests, id)
    if (request === undefined || !isOpen(request, at)) return undefined
    if (!has(check(reader.moment, reader.person, request.node), 'share') || isGiven(reader.moment, request))
      return undefined
    const who = nameOf(reader.moment, request.person)
    const what = `${factNaming(reader).level(request.wants)} on ${rowOf(state.nodes, request.node)?.name ?? ''}`
    const text =
      step === 'remind'
        ? `${who} still waits for an answer to their request for ${what}${quoted(request.word)}.`
        : `${who} requests ${what}${quoted(request.word)}.`
    return { text, place: null, to: { name: 'Decide', path: 'oversight/asked' }, revision: null }
  },
}

function askedOf({ after }: Written, request: AccessRequest, step: Asked['step']) {
  if (isGiven(after, request) || !isOpen(request, after.at)) return []
  const [near = [], others = []] = decidersOfAccess(after, request)
  // Those who were told before are not told again when it goes on; where nobody is near, all are told at once.
  const told = near.length === 0 ? (step === 'go on' ? [] : others) : step === 'go on' ? others : near
  return told.map(person => ({ person, data: { request: request.id, step } }))
}

const isGiven = (moment: Written['after'], { person, node, wants }: AccessRequest): boolean =>
  holds(check(moment, person, node), wants)

interface Answered {
  readonly by: PersonId
  readonly node: NodeId
  readonly wants: ActionSet
  /** `null` for what was given. */
  readonly declined: string | null
  readonly word: string
}

/** What one asked for at a place was given, or declined. */
export const accessAnswered: NoticeKind<Answered> = {
  kind: 'access answered',
  when: 'my request for access is accepted or declined',
  find: ({ changes, author, after, answers }) =>
    changes.flatMap(change => {
      if (change.table !== 'accessRequests' || change.before === null) return []
      const { id, person, node, wants } = change.before
      const isGone = change.after === null && rowOf(after.state.persons, person)?.status !== 'active'
      if (change.before.declined !== null || person === author || isGone) return []
      const declined = change.after?.declined?.word ?? null
      const word = answers.get(id) ?? ''
      return [{ person, data: { by: author, node, wants, declined, word } }]
    }),
  tell: (reader, { by, node, wants, declined, word }) => {
    const [place] = visiblePlaces(reader, [node])
    const who = whoDid(reader, by)
    const asked = factNaming(reader).level(wants)
    // That something was declined would tell that there is such a place.
    if (place === undefined) return undefined
    if (declined !== null) {
      const text = `${who} declined your request for ${asked} on ${place.name}${quoted(declined)}.`
      return { text, place, to: { name: 'Your requests', path: 'oversight/asked' }, revision: null }
    }
    const level = factNaming(reader).level(check(reader.moment, reader.person, node))
    const text = `${who} accepted your request. You now have ${level} on ${place.name}${quoted(word)}.`
    return { text, place, revision: null }
  },
}
