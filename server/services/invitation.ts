import type { AcceptRequest } from '#contract/requests.ts'
import type { InvitationView } from '#contract/views.ts'
import type { AccountId, GrantId, InvitationId, NodeId, WorkspaceId } from '#core/base/ids.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { isOver } from '#core/base/instant.ts'
import { ok, refused } from '#core/base/result.ts'
import { valuesOf } from '#core/base/table.ts'
import { actionsAsIfActive } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { subjectOf, teamsOf } from '#core/access/subject.ts'
import { judge } from '#core/changes/judge.ts'
import type { Invitation, Person } from '#core/people/person.ts'
import { personPrincipal } from '#core/rules/principal.ts'
import { type Moment, workspaceOf } from '#core/state/state.ts'
import { invitationIdIn, isTokenOf } from '../mail/link.ts'
import { momentAt } from '../store/states.ts'
import { submit } from '../store/writer.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { accountByMail, newAccount } from './account.ts'
import { nameOf } from './asker.ts'
import { writeJudged } from './change.ts'
import { fits } from './password.ts'

interface Found {
  readonly workspace: WorkspaceId
  readonly moment: Moment
  readonly invitation: Invitation
  readonly person: Person
}

/** What somebody is invited to: shown to whoever holds the link. */
export async function invitationView(parts: Parts, token: string): Promise<InvitationView> {
  const { moment, invitation, person } = findInvitation(parts, token)
  const [holding] = rowsBy(moment.state.holdings, 'person', person.id)
  return {
    workspace: workspaceOf(moment.state).name,
    by: nameOf(moment, invitation.by),
    mail: person.mail,
    name: person.name,
    as: person.kind,
    role: holding === undefined ? '' : (rowOf(moment.state.roles, holding.role)?.name ?? ''),
    message: invitation.message,
    until: invitation.until,
    teams: teamsOf(moment, person).map(each => rowOf(moment.state.teams, each.team)?.name ?? ''),
    places: placesOffered(moment, person),
    hasAccount: (await accountByMail(parts, person.mail)) !== undefined,
  }
}

/** Accepting is an act of the invited: a new account with a password, or the password of the one they have. */
export async function acceptInvitation(parts: Parts, request: AcceptRequest): Promise<AccountId> {
  const { person, workspace } = findInvitation(parts, request.token)
  const existing = await accountByMail(parts, person.mail)
  if (existing !== undefined && !(await fits(request.password, existing.passwordHash)))
    throw problemOf('wrong-sign-in')
  const name = request.name?.trim() ?? existing?.name ?? person.name
  if (name === '')
    throw problemOf('bad-input', { faults: [{ at: 'name', message: 'tell how colleagues should call you' }] })
  const account =
    existing ?? (await newAccount(parts, { name, mail: person.mail, password: request.password }))
  const edit = {
    kind: 'invitation.accept',
    person: person.id,
    account: account.id,
    name,
    folder: parts.newId() as NodeId,
    grant: parts.newId() as GrantId,
  } as const
  const result = await submit(parts.writer, candidates => {
    const before = candidates.momentOf(workspace)
    // Looked up again: it may have been withdrawn or renewed while the password was worked on.
    if (before === undefined || openInvitation(before, parts.secret, request.token) === undefined)
      return refused('dead-link' as const)
    const changeSet = { author: person.id, reason: '', edits: [edit] }
    const judged = judge(before, changeSet)
    if (!judged.ok) return refused('dead-link' as const)
    const written = writeJudged(parts, { workspace, before, changeSet, judged: judged.value })
    return ok({
      ...written,
      write: async transaction => {
        if (existing === undefined) await parts.writer.tables.accounts.create({ ...account }, { transaction })
        await written.write(transaction)
      },
    })
  })
  if (!result.ok) throw problemOf(result.error)
  return account.id
}

function findInvitation(parts: Parts, token: string): Found {
  for (const workspace of parts.writer.states.published.keys()) {
    const moment = momentAt(parts.writer.states, workspace, parts.clock())
    const open =
      moment === undefined ? undefined : openInvitation({ ...moment, at: parts.clock() }, parts.secret, token)
    if (moment !== undefined && open !== undefined) return { workspace, moment, ...open }
  }
  throw problemOf('dead-link')
}

/** The invitation that a token opens now; `undefined` for a forged, renewed, withdrawn or ended one. */
function openInvitation({ state, at }: Moment, secret: string, token: string) {
  const invitation = rowOf(state.invitations, invitationIdIn(token) as InvitationId)
  if (invitation === undefined || !isTokenOf(token, secret, invitation) || invitation.until <= at)
    return undefined
  const person = rowOf(state.persons, invitation.person)
  return person === undefined || isOver(person, at) ? undefined : { invitation, person }
}

function placesOffered(moment: Moment, person: Person): InvitationView['places'] {
  const subject = subjectOf(moment, person.id)
  const own = personPrincipal(person.id)
  return [...valuesOf(moment.state.grants.rows)].flatMap(grant => {
    const place = grant.principal === own ? placeOf(moment, grant.node) : undefined
    if (subject === undefined || place === undefined) return []
    const actions = actionsAsIfActive(moment, subject, place)
    return actions === 0 ? [] : [{ name: place.node.name, actions, until: grant.until }]
  })
}
