import type { PersonId } from '../base/ids.ts'
import { openedKey } from '../changes/along.ts'
import type { Context } from '../changes/context.ts'
import { lacksDecidingAccess } from '../changes/edits/access-request.ts'
import type { Refusal } from '../changes/refusal.ts'
import { type AccessRequest, goesOnAfter, remindAfter } from '../people/asking.ts'
import { accessRequestWords } from '../words/content-fact.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const accessRequests: RecordKind<'accessRequests'> = {
  fields: {
    id: 'text',
    person: 'text',
    node: 'text',
    wants: 'number',
    at: 'number',
    word: 'text',
    declined: 'json',
  },
  indexes: { person: row => row.person, node: row => row.node },
  references: [
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
    id('node', 'nodes', {
      whenGone: 'stays',
      key: { none: 'a place is asked for by its address, whether or not there is one' },
    }),
  ],
  dates: { reminders: unansweredFor(remindAfter), goingsOn: unansweredFor(goesOnAfter) },
  rights: lacksAccessRequest,
  about: ({ before, after }) => {
    const { node: place, person } = (after ?? before) as AccessRequest
    return { act: 'sharing', place, person, byAddress: true }
  },
  goesAlong: ({ before, after }, { leavers, opened }) =>
    after === null && (leavers.has(before?.person as PersonId) || opened.has(openedKey(before))),
  words: accessRequestWords,
}

function unansweredFor(time: number) {
  return ({ at, declined }: AccessRequest): number | null => (declined === null ? at + time : null)
}

function lacksAccessRequest(
  context: Context,
  before: AccessRequest | null,
  after: AccessRequest | null,
): Refusal | undefined {
  const request = before ?? after
  return request === null || request.person === context.author
    ? undefined
    : lacksDecidingAccess(context, request.id)
}
