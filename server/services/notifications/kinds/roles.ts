import { rowOf } from '#core/base/collection.ts'
import type { HandoverId, ViewingSessionId, PersonId, RoleId } from '#core/base/ids.ts'
import type { RecordChange } from '#core/state/state.ts'
import { nameOf } from '../../viewer/asker.ts'
import { quoted, whoDid } from '../words.ts'
import { isMember, isOwner, type NotificationKind, type Written } from '../kind.ts'

type Of<T extends RecordChange['table']> = Extract<RecordChange, { table: T }>
const changesOf = <T extends RecordChange['table']>({ changes }: Written, table: T) =>
  changes.filter(change => change.table === table) as Of<T>[]

interface Held {
  readonly by: PersonId
  readonly role: RoleId
  readonly isGiven: boolean
}

/** Another person gave one a role, or took it. */
export const roleHeld: NotificationKind<Held> = {
  kind: 'role held',
  when: 'I get a role or lose one',
  preset: 'here only',
  reaches: isMember,
  find: written =>
    changesOf(written, 'holdings').flatMap(({ before, after }) => {
      const holding = after ?? before
      const isHere =
        holding !== null && rowOf(written.after.state.persons, holding.person)?.status === 'active'
      if (!isHere || holding.person === written.author || (before === null) === (after === null)) return []
      return [
        { person: holding.person, data: { by: written.author, role: holding.role, isGiven: after !== null } },
      ]
    }),
  tell: (reader, { by, role, isGiven }) => {
    const name = rowOf(reader.snapshot.state.roles, role)?.name ?? 'a deleted role'
    const text = isGiven
      ? `${whoDid(reader, by)} gave you the role ${name}.`
      : `${whoDid(reader, by)} removed the role ${name} from you.`
    return { text, place: null, to: { name: 'Your roles', path: 'me' }, revision: null }
  },
}

/** An Owner offers one to be Owner instead. */
export const handoverOffered: NotificationKind<{ readonly handover: HandoverId }> = {
  kind: 'handover offered',
  when: 'an owner offers to hand over the workspace to me',
  reaches: isMember,
  find: written =>
    changesOf(written, 'handovers').flatMap(({ before, after }) =>
      before === null && after !== null ? [{ person: after.to, data: { handover: after.id } }] : [],
    ),
  tell: (reader, { handover: id }) => {
    const handover = rowOf(reader.snapshot.state.handovers, id)
    if (handover === undefined) return undefined
    const text = `${nameOf(reader.snapshot, handover.from)} offers to hand over the workspace to you${quoted(handover.reason)}.`
    return { text, place: null, to: { name: 'Decide', path: 'me' }, revision: null }
  },
}

/** What one offered was taken or declined. */
export const handoverAnswered: NotificationKind<{ readonly to: PersonId; readonly isTaken: boolean }> = {
  kind: 'handover answered',
  when: 'my offer to hand over the workspace is accepted or declined',
  reaches: isOwner,
  find: written =>
    changesOf(written, 'handovers').flatMap(({ before, after }) => {
      if (before === null || after !== null || written.author !== before.to) return []
      const isTaken = changesOf(written, 'holdings').some(each => each.after?.person === before.to)
      return [{ person: before.from, data: { to: before.to, isTaken } }]
    }),
  tell: (reader, { to, isTaken }) => ({
    text: `${whoDid(reader, to)} ${isTaken ? 'accepted your offer and is now the owner' : 'declined your offer to hand over the workspace'}.`,
    place: null,
    revision: null,
  }),
}

/** Somebody looks through one's eyes. */
export const seenAs: NotificationKind<{ readonly session: ViewingSessionId }> = {
  kind: 'seen as',
  when: 'somebody sees the workspace as me',
  find: written =>
    changesOf(written, 'viewingSessions').flatMap(({ after }) =>
      after === null || after.through === null
        ? []
        : [{ person: after.through, data: { session: after.id } }],
    ),
  tell: (reader, { session: id }) => {
    const session = rowOf(reader.snapshot.state.viewingSessions, id)
    if (session === undefined) return undefined
    const text = `${whoDid(reader, session.by)} saw the workspace as you${quoted(session.reason)}.`
    return { text, place: null, to: { name: 'Who did this', path: 'me' }, revision: null }
  },
}
