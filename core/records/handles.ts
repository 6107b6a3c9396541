import type { PersonId } from '../base/ids.ts'
import type { Context } from '../changes/context.ts'
import { lacksInviting } from '../changes/edits/invitation.ts'
import { lacksDescribing } from '../changes/edits/person.ts'
import type { Refusal } from '../changes/refusal.ts'
import { personNamed } from '../words/audit-event.ts'
import { isThere, personOf } from './coming.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const handles: RecordKind<'handles'> = {
  fields: { id: 'text', person: 'text', since: 'number' },
  indexes: { person: row => row.person },
  // It leads to its person for ever, who does not leave without it.
  references: [id('person', 'persons', { whenGone: 'forbids', index: 'person' })],
  rights: (context, before, after) => lacksHandle(context, (after ?? before)?.person),
  about: ({ before, after }) => ({ category: 'people', person: (after ?? before)?.person }),
  isConsequence: ({ before, after }, { people }) => people.has((after ?? before)?.person as PersonId),
  words: ({ before, after }, naming) =>
    `changed the profile of ${personNamed((after ?? before)?.person, naming)}`,
}

/** Where the person comes or goes with the invitation, so does the handle. */
const lacksHandle = (context: Context, person: PersonId | undefined): Refusal | undefined =>
  person === undefined || isInvited(context, person)
    ? lacksInviting(context, personOf(context, person))
    : lacksDescribing(context, person)

function isInvited(context: Context, id: PersonId): boolean {
  const person = personOf(context, id)
  return person?.status === 'invited' || (person !== undefined && !isThere(context, person))
}
