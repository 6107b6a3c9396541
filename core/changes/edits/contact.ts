import { isActive } from '../../access/subject.ts'
import { rowOf } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { Context, EditRule } from '../context.ts'
import { lacksOver } from './person.ts'

/** Names whom a guest turns to. */
export interface ChangeContact {
  readonly kind: 'person.contact'
  readonly person: PersonId
  readonly contact: PersonId
}

/** Names whom a guest turns to: by whoever invites guests, or handed on by the one they turn to now. */
export const changeContact: EditRule<ChangeContact> = {
  kind: 'person.contact',
  lacks: (context, { person }) =>
    rowOf(context.before.state.persons, person)?.contact === context.author
      ? undefined
      : lacksOver(context, person, 'invite guests'),
  apply: (context, { person, contact }) => {
    const before = rowOf(context.now.state.persons, person)
    if (before?.kind !== 'guest' || before.status === 'removed' || !isContact(context, contact))
      return refused({ code: 'unknown', what: 'person' })
    return ok([{ table: 'persons', id: person, before, after: { ...before, contact } }])
  },
}

/** Members who are here can be turned to. */
export function isContact({ now }: Context, id: PersonId): boolean {
  const person = rowOf(now.state.persons, id)
  return person?.kind === 'member' && isActive(now, person)
}
