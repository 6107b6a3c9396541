import type { PersonId } from '#core/base/ids.ts'
import { nameOf } from '../../viewer/asker.ts'
import type { NotificationKind } from '../kind.ts'

interface Data {
  readonly contact: PersonId
}

/** A guest turns to somebody else from now on. */
export const contact: NotificationKind<Data> = {
  kind: 'contact',
  when: 'my contact changes',
  preset: 'here only',
  reaches: reader => reader.subject.isGuest,
  find: ({ changes }) =>
    changes.flatMap(change => {
      if (change.table !== 'persons' || change.before === null || change.after === null) return []
      const { contact, status } = change.after
      const isNew = status === 'active' && contact !== null && contact !== change.before.contact
      return isNew ? [{ person: change.id, data: { contact } }] : []
    }),
  tell: ({ snapshot, subject }, { contact }) =>
    subject.person.contact === contact
      ? { text: `Your contact is now ${nameOf(snapshot, contact)}.`, place: null, revision: null }
      : undefined,
}
