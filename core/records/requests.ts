import type { Instant } from '../base/instant.ts'
import type { Context } from '../changes/context.ts'
import type { About } from '../changes/conduct.ts'
import type { LeadingChanges } from '../changes/consequences.ts'
import type { Refusal } from '../changes/refusal.ts'
import { lacksDeciding } from '../changes/requests/rules.ts'
import {
  goesOnAfter,
  isForAccess,
  isForRole,
  remindAfter,
  type RequestFor,
  requestKey,
  wantedId,
} from '../people/request.ts'
import { requestWords } from '../words/request-events.ts'
import type { RecordKind } from './kind.ts'
import { id, within } from './references.ts'

export const requests: RecordKind<'requests'> = {
  fields: { id: 'text', person: 'text', wants: 'json', at: 'number', reason: 'text', declined: 'json' },
  indexes: { person: row => row.person, wanted: row => wantedId(row.wants) },
  references: [
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
    within('wants', 'teams', {
      ids: ({ wants }) => (wants.of === 'team' ? [wants.team] : []),
      whenGone: 'goes along',
    }),
    within('wants', 'roles', {
      ids: ({ wants }) => (wants.of === 'role' ? [wants.role] : []),
      whenGone: 'goes along',
    }),
    // A place is asked for by its address, whether or not there is one.
    within('wants', 'nodes', {
      ids: ({ wants }) => (wants.of === 'access' ? [wants.node] : []),
      whenGone: 'stays',
    }),
  ],
  dates: { reminders: unansweredFor(remindAfter), goingsOn: unansweredFor(goesOnAfter) },
  rights: (context, before, after) => lacksRequest(context, before ?? after),
  about: ({ before, after }) => aboutRequest((after ?? before) as RequestFor),
  isConsequence: ({ before, after }, leading) => before !== null && after === null && isLed(before, leading),
  words: requestWords,
}

/** Of a request for access that nobody has answered. */
function unansweredFor(time: Instant) {
  return (request: RequestFor): Instant | null =>
    isForAccess(request) && request.declined === null ? request.at + time : null
}

const lacksRequest = (context: Context, request: RequestFor | null): Refusal | undefined =>
  request === null || request.person === context.author ? undefined : lacksDeciding(context, request.id)

function aboutRequest({ person, wants }: RequestFor): About {
  switch (wants.of) {
    case 'team':
      return { category: 'teams', team: wants.team, person }
    case 'role':
    case 'privilege':
      return { category: 'roles', person }
    case 'access':
      return { category: 'sharing', place: wants.node, person, byAddress: true }
  }
}

/** Whoever asked left, came by it, or asks anew; a role that somebody was given is told, not what they had asked for. */
const isLed = (request: RequestFor, { leavers, answered, given, goneTeams }: LeadingChanges): boolean =>
  leavers.has(request.person) ||
  answered.has(requestKey(request)) ||
  (isForRole(request) && given.has(request.person)) ||
  (request.wants.of === 'team' && goneTeams.has(request.wants.team))
