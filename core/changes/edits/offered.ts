import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import type { Holding } from '../../people/person.ts'
import type { RecordChange } from '../../state/state.ts'
import { type EditOf, type EditRule, wrongSpan } from '../context.ts'
import { lacksInviting, openInvitation } from './invitation.ts'
import { lacksRoleFor } from './role.ts'
import type { PersonId, RoleId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'

/** What was offered to somebody who has not come in yet; teams and places are changed where they are. */
export interface ChangeInvitation {
  readonly kind: 'invitation.change'
  readonly person: PersonId
  readonly name?: string | undefined
  readonly role?: RoleId | undefined
  readonly from?: Instant | null | undefined
  readonly until?: Instant | null | undefined
  readonly message?: string | undefined
}

/** Changes what was offered to somebody who has not come in yet. The link that they have goes on working. */
export const changeInvitation: EditRule<ChangeInvitation> = {
  kind: 'invitation.change',
  lacks: (context, edit) => {
    const person = rowOf(context.before.state.persons, edit.person)
    const lacks = lacksInviting(context, person)
    if (lacks !== undefined || person === undefined || edit.role === undefined) return lacks
    return lacksRoleFor(context, { role: edit.role, scope: { over: 'workspace' } }, person)
  },
  apply: (context, edit) => {
    const { state } = context.now
    const open = openInvitation(state, edit.person)
    if (open === undefined) return refused({ code: 'unknown', what: 'invitation' })
    const { person, invitation } = open
    const { name = person.name, message = invitation.message } = edit
    const from = edit.from === undefined ? person.from : edit.from
    const until = edit.until === undefined ? person.until : edit.until
    const wrong = wrongSpan(context, from, until)
    if (wrong !== undefined) return refused(wrong)
    const after = { ...person, name, from, until }
    const changes: RecordChange[] = [
      { table: 'persons', id: person.id, before: person, after },
      { table: 'invitations', id: invitation.id, before: invitation, after: { ...invitation, message } },
    ]
    return ok([...changes, ...withRole(state, edit)])
  },
}

/** The one role that was offered becomes another. */
function withRole(
  state: Parameters<typeof openInvitation>[0],
  { person, role }: EditOf<'invitation.change'>,
): RecordChange[] {
  const [before] = rowsBy(state.holdings, 'person', person)
  if (role === undefined || before === undefined || rowOf(state.roles, role) === undefined) return []
  const after: Holding = { ...before, role }
  return [{ table: 'holdings', id: before.id, before, after }]
}
