import { allRows, rowOf } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { Person } from '../../people/person.ts'
import { consequencesOf } from '../../state/naming.ts'
import type { RecordChange } from '../../state/state.ts'
import type { Context, EditRule } from '../context.ts'
import { isContact } from './contact.ts'
import { lacksOver } from './person.ts'

export interface RemovePerson {
  readonly kind: 'person.remove'
  readonly person: PersonId
  /** Whom the guests turn to who turned to this person; the author if nobody is named. */
  readonly contact: PersonId | null
}

/**
 * Ends somebody's time here for good: what hangs on them by name goes, what they made stays theirs. Guests
 * who turned to them get another contact: who is named, or else the author. Leaving oneself needs nothing.
 */
export const removePerson: EditRule<RemovePerson> = {
  kind: 'person.remove',
  lacks: (context, edit) =>
    edit.person === context.author ? undefined : lacksOver(context, edit.person, 'remove'),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.persons, edit.person)
    if (before?.status !== 'active' && before?.status !== 'suspended')
      return refused({ code: 'unknown', what: 'person' })
    if (edit.contact !== null && !isContact(context, edit.contact))
      return refused({ code: 'unknown', what: 'person' })
    const after: Person = { ...before, status: 'removed' }
    return ok([
      ...consequencesOf(state, 'persons', before.id),
      ...withNewContact(context, before, edit.contact),
      { table: 'persons', id: before.id, before, after },
    ])
  },
}

function withNewContact({ author, now }: Context, leaver: Person, named: PersonId | null): RecordChange[] {
  const contact = named ?? (author === leaver.id ? null : author)
  return allRows(now.state.persons)
    .filter(each => each.contact === leaver.id && each.status !== 'removed')
    .map(before => ({ table: 'persons', id: before.id, before, after: { ...before, contact } }))
}
