import type { PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { workspaceOf } from '#core/state/state.ts'
import { subjectOf } from '#core/access/subject.ts'
import { throughDay } from '#contract/dates.ts'
import { whoDid } from '../words.ts'
import type { NotificationKind } from '../kind.ts'

interface Data {
  readonly by: PersonId
  /** The entry that was undone, and when it was made. */
  readonly revision: number
  readonly at: Instant
}

/** Somebody took back what one had done. */
export const undone: NotificationKind<Data> = {
  kind: 'undone',
  when: 'somebody undoes what I did',
  preset: 'here only',
  find: ({ undone, author, after }) =>
    undone === null || undone.author === author || subjectOf(after, undone.author)?.isActive !== true
      ? []
      : [{ person: undone.author, data: { by: author, revision: undone.revision, at: undone.at } }],
  tell: (reader, { by, revision, at }) => {
    const day = throughDay(at + 1, workspaceOf(reader.snapshot.state).timeZone, reader.snapshot.at)
    return { text: `${whoDid(reader, by)} undid your change of ${day}.`, place: null, revision }
  },
}
