import type { PersonId, TeamId } from '../base/ids.ts'
import { joinKey } from '../changes/along.ts'
import type { Context } from '../changes/context.ts'
import { lacksAnswering } from '../changes/edits/request.ts'
import type { Refusal } from '../changes/refusal.ts'
import type { JoinRequest } from '../people/person.ts'
import { requestWords } from '../words/people-fact.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const requests: RecordKind<'requests'> = {
  fields: { id: 'text', team: 'text', person: 'text', at: 'number', word: 'text', declined: 'json' },
  indexes: { team: row => row.team, person: row => row.person },
  references: [
    id('team', 'teams', { whenGone: 'goes along', index: 'team' }),
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
  ],
  rights: (context, before, after) => lacksRequest(context, before ?? after),
  about: ({ before, after }) => {
    const { team, person } = (after ?? before) as JoinRequest
    return { act: 'teams', team, person }
  },
  goesAlong: ({ before, after }, { joined, leavers, goneTeams }) =>
    after === null &&
    (leavers.has(before?.person as PersonId) ||
      goneTeams.has(before?.team as TeamId) ||
      joined.has(joinKey(before))),
  words: requestWords,
}

const lacksRequest = (context: Context, request: JoinRequest | null): Refusal | undefined =>
  request === null || request.person === context.author ? undefined : lacksAnswering(context, request.id)
