import type { PersonId } from '#core/base/ids.ts'
import { quoted, whoDid } from '../words.ts'
import { isMember, type NotificationKind } from '../kind.ts'

/** What the kind of a notification is told of that no change set makes. */
export interface Handed {
  readonly by: PersonId
  readonly comment: string
}

/** Somebody handed a change set over to one: written by the handing itself, which the history does not know. */
export const handed: NotificationKind<Handed> = {
  kind: 'handed',
  when: 'somebody hands over draft changes to me',
  reaches: isMember,
  find: () => [],
  tell: (reader, { by, comment }) => ({
    text: `${whoDid(reader, by)} handed over draft changes to you, to preview and apply${quoted(comment)}.`,
    place: null,
    to: { name: 'Preview', path: 'oversight/draft' },
    revision: null,
  }),
}

/** What one handed over was applied. */
export const handedApplied: NotificationKind<{ readonly by: PersonId; readonly revision: number }> = {
  kind: 'handed applied',
  when: 'draft changes that I handed over are applied',
  preset: 'here only',
  reaches: isMember,
  find: ({ handedBy, author, revision }) =>
    handedBy === null || handedBy === author ? [] : [{ person: handedBy, data: { by: author, revision } }],
  tell: (reader, { by, revision }) => ({
    text: `${whoDid(reader, by)} applied the draft changes that you handed over.`,
    place: null,
    revision,
  }),
}
