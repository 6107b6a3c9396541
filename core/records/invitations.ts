import type { PersonId } from '../base/ids.ts'
import { lacksInviting } from '../changes/edits/invitation.ts'
import { personNamed } from '../words/audit-event.ts'
import { personOf } from './coming.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const invitations: RecordKind<'invitations'> = {
  fields: {
    id: 'text',
    person: 'text',
    by: 'text',
    at: 'number',
    until: 'number',
    message: 'text',
    issue: 'number',
    welcome: 'text',
  },
  indexes: { person: row => row.person },
  references: [
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
    id('by', 'persons', { whenGone: 'stays' }),
    id('welcome', 'welcomeSets', {
      whenGone: 'stays',
      key: { none: 'what was offered with a set stays when the set is deleted' },
    }),
  ],
  rights: (context, before, after) => lacksInviting(context, personOf(context, (after ?? before)?.person)),
  about: ({ before, after }) => ({ category: 'people', person: (after ?? before)?.person }),
  isConsequence: ({ before, after }, { people }) => people.has((after ?? before)?.person as PersonId),
  people: ({ before, after }) => [(before ?? after)?.person as PersonId],
  words: ({ before, after }, naming) =>
    `sent ${personNamed((after ?? before)?.person, naming)} the invitation again`,
}
