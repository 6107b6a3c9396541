import type { WorkspaceId } from '#core/base/ids.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { ChangeSet } from '#core/changes/judge.ts'
import { type Snapshot, workspaceOf } from '#core/state/state.ts'
import { throughDay } from '#contract/dates.ts'
import type { MailRow } from '../store/tables.ts'
import type { Parts } from '../parts.ts'
import { letter } from './template.ts'
import { invitationLink } from './link.ts'

interface Written {
  readonly workspace: WorkspaceId
  readonly changeSet: ChangeSet
  readonly after: Snapshot
}

/** The mails that a change set causes: one for each invitation made or renewed in it. */
export function invitationMails(parts: Parts, { workspace, changeSet, after }: Written): MailRow[] {
  return changeSet.edits.flatMap(edit => {
    if (edit.kind !== 'person.invite' && edit.kind !== 'invitation.renew') return []
    if (edit.kind === 'person.invite' && !edit.mailed) return []
    const person = rowOf(after.state.persons, edit.person)
    const [invitation] = rowsBy(after.state.invitations, 'person', edit.person)
    if (person === undefined || invitation === undefined) return []
    const { name, timeZone } = workspaceOf(after.state)
    const by = rowOf(after.state.persons, invitation.by)?.name ?? name
    const lines = [
      `${by} invites you to ${name} as a ${person.kind}.`,
      ...(invitation.message === '' ? [] : [invitation.message]),
      ...(person.from === null || person.from <= after.at
        ? []
        : [`Your access starts on ${throughDay(person.from + 1, timeZone, after.at)}.`]),
      'Open this link to see the invitation and to accept it:',
      {
        address: invitationLink({ ...parts.config, secret: parts.secret, workspace }, invitation, 'by mail'),
      },
      `The link works until ${throughDay(invitation.until, timeZone, after.at)}. If you did not expect this mail, ignore it: nothing happens unless you accept.`,
    ]
    const subject = `${by} invites you to ${name}`
    return [letter(parts, { workspace, to: person.mail, subject, lines, at: after.at })]
  })
}
