import type { AcceptRequest } from '#contract/requests.ts'
import type { InvitationView } from '#contract/views/account.ts'
import type { AccountId, GrantId, InvitationId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { isOver } from '#core/base/instant.ts'
import { ok, refused } from '#core/base/result.ts'
import { actionsAsIfActive } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { subjectOf, teamsOf } from '#core/access/subject.ts'
import { freeHandle } from '#core/changes/edits/handle.ts'
import { judge, type Refused } from '#core/changes/judge.ts'
import type { Invitation, Person } from '#core/people/person.ts'
import { personPrincipal } from '#core/rules/principal.ts'
import { type Snapshot, workspaceOf } from '#core/state/state.ts'
import type { Naming } from '#core/words/refusal.ts'
import { type Passed, passedBy } from '../../mail/link.ts'
import { idIn } from '../../signature.ts'
import { withAccount, writeAccount } from '../../store/accounts.ts'
import { workspacesWith } from '../../store/whereabouts.ts'
import { snapshotsOf } from '../viewer/workspaces-of.ts'
import type { AccountRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { checkPassword, checkTwoStep, newAccount } from '../account/account.ts'
import { accountByMail, accountRow } from '../account/account-row.ts'
import { nameOf } from '../viewer/asker.ts'
import { type Failed, writeJudged } from '../changes/change.ts'
import { problemInWords } from '../changes/change-set.ts'
import type { Whence } from '../account/throttle.ts'

interface Found {
  readonly workspace: WorkspaceId
  readonly snapshot: Snapshot
  readonly invitation: Invitation
  readonly person: Person
  readonly passed: Passed
}

/** What somebody is invited to: shown to whoever holds the link. */
export async function invitationView(parts: Parts, token: string): Promise<InvitationView> {
  const { snapshot, invitation, person } = await findInvitation(parts, token)
  const [holding] = rowsBy(snapshot.state.holdings, 'person', person.id)
  return {
    workspace: workspaceOf(snapshot.state).name,
    by: nameOf(snapshot, invitation.by),
    mail: person.mail,
    name: person.name,
    as: person.kind,
    role: holding === undefined ? '' : (rowOf(snapshot.state.roles, holding.role)?.name ?? ''),
    message: invitation.message,
    until: invitation.until,
    teams: teamsOf(snapshot, person).map(each => rowOf(snapshot.state.teams, each.team)?.name ?? ''),
    places: placesOffered(snapshot, person),
    houseRules: workspaceOf(snapshot.state).houseRules,
    accessFrom: person.from,
    accessUntil: person.until,
    timeZone: workspaceOf(snapshot.state).timeZone,
    hasAccount: (await accountByMail(parts, person.mail)) !== undefined,
  }
}

interface Accepting {
  readonly whence: Whence
  /** Who is signed in to the account that the address has shows nothing more. */
  readonly signedInAs: AccountId | undefined
}

/** Accepting is an act of the invited: a new account with a password, or the password of the one they have. */
export async function acceptInvitation(
  parts: Parts,
  request: AcceptRequest,
  { whence, signedInAs }: Accepting,
): Promise<AccountRow> {
  const { person, workspace, passed, snapshot } = await findInvitation(parts, request.token)
  const { mail } = person
  const { password = '', code } = request
  const existing = await accountByMail(parts, mail)
  if (existing !== undefined && existing.id !== signedInAs)
    await signInTo(parts, existing, { password, code, whence })
  const name = nameGiven(request, existing ?? person)
  if (name === '') throw problemOf('bad-input', { faults: [{ at: 'name', message: 'Enter your name.' }] })
  const isProven = passed === 'by mail'
  const here = workspaceOf(snapshot.state).name
  const account = existing ?? (await newAccount(parts, { name, mail, password, workspace: here, isProven }))
  await comeIn(parts, {
    workspace,
    person: person.id,
    account,
    isNew: existing === undefined,
    name,
    agrees: request.agrees === true,
    // Looked up again: it may have been withdrawn or renewed while the password was worked on.
    isOpen: snapshot => openInvitation(snapshot, parts.secret, request.token) !== undefined,
  })
  if (existing?.provenAt === null && isProven) {
    await writeAccount(parts.writer, existing.id, { provenAt: parts.clock() })
  }
  return account
}

const nameGiven = (request: AcceptRequest, known: { readonly name: string }): string =>
  request.name?.trim() ?? known.name

interface SigningIn {
  readonly password: string
  readonly code: string | undefined
  readonly whence: Whence
}

async function signInTo(
  parts: Parts,
  account: AccountRow,
  { password, code, whence }: SigningIn,
): Promise<void> {
  await checkPassword(parts, { account, mail: account.mail, password, whence })
  await checkTwoStep(parts, account, { code, whence })
}

/** The same by somebody who is signed in, for an invitation to the address that is shown to be theirs. */
export async function acceptMine(
  parts: Parts,
  { account: id, invitation, agrees }: { account: AccountId; invitation: string; agrees: boolean },
): Promise<{ readonly slug: string }> {
  const account = await accountRow(parts, id)
  if (account.provenAt === null) throw problemOf('address-not-confirmed')
  for (const snapshot of await snapshotsWith(parts, invitation)) {
    const row = rowOf(snapshot.state.invitations, invitation as InvitationId)
    const person = row === undefined ? undefined : rowOf(snapshot.state.persons, row.person)
    if (person === undefined || person.mail.toLowerCase() !== account.mail) continue
    const isOpen = ({ state, at }: Snapshot) => {
      const now = rowOf(state.invitations, invitation as InvitationId)
      return now !== undefined && now.until > at
    }
    await comeIn(parts, {
      workspace: workspaceOf(snapshot.state).id,
      person: person.id,
      account,
      isNew: false,
      name: account.name,
      agrees,
      isOpen,
    })
    return { slug: workspaceOf(snapshot.state).slug }
  }
  throw problemOf('dead-link')
}

interface Coming {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly account: AccountRow
  /** The account comes with it. */
  readonly isNew: boolean
  readonly name: string
  readonly agrees: boolean
  readonly isOpen: (snapshot: Snapshot) => boolean
}

async function comeIn(
  parts: Parts,
  { workspace, person, account, isNew, name, agrees, isOpen }: Coming,
): Promise<void> {
  const result = await submit<number, 'dead-link' | Refused | Failed>(parts.writer, candidates => {
    const before = candidates.snapshotOf(workspace)
    if (before === undefined || !isOpen(before)) return refused('dead-link' as const)
    const edit = {
      kind: 'invitation.accept',
      person,
      account: account.id,
      name,
      handle: freeHandle(before.state, name),
      agrees,
      folder: parts.newId() as NodeId,
      grant: parts.newId() as GrantId,
    } as const
    const changeSet = { author: person, reason: '', edits: [edit] }
    const judged = judge(before, changeSet)
    if (!judged.ok)
      return refused(judged.error.refusal.code === 'house-rules' ? judged.error : ('dead-link' as const))
    const written = writeJudged(parts, { workspace, before, changeSet, judged: judged.value })
    return ok(isNew ? withAccount(written, account) : written)
  })
  if (result.ok) return
  throw result.error === 'dead-link'
    ? problemOf('dead-link')
    : 'problem' in result.error
      ? problemOf(result.error.problem)
      : new ProblemError(problemInWords(result.error, unnamed))
}

/** Whoever is not in yet is told no names. */
export const unnamed: Naming = { place: () => undefined, person: () => undefined, team: () => undefined }

const snapshotsWith = async (parts: Parts, invitation: string): Promise<Snapshot[]> =>
  snapshotsOf(parts, await workspacesWith(parts.writer.tables, 'invitations', invitation))

async function findInvitation(parts: Parts, token: string): Promise<Found> {
  for (const snapshot of await snapshotsWith(parts, idIn(token))) {
    const open = openInvitation({ ...snapshot, at: parts.clock() }, parts.secret, token)
    if (open !== undefined) return { workspace: workspaceOf(snapshot.state).id, snapshot, ...open }
  }
  throw problemOf('dead-link')
}

/** The invitation that a token opens now; `undefined` for a forged, renewed, withdrawn or ended one. */
function openInvitation({ state, at }: Snapshot, secret: string, token: string) {
  const invitation = rowOf(state.invitations, idIn(token) as InvitationId)
  const passed =
    invitation === undefined
      ? undefined
      : passedBy(token, { secret, workspace: workspaceOf(state).id }, invitation)
  if (invitation === undefined || passed === undefined || invitation.until <= at) return undefined
  const person = rowOf(state.persons, invitation.person)
  return person === undefined || isOver(person, at) ? undefined : { invitation, person, passed }
}

function placesOffered(snapshot: Snapshot, person: Person): InvitationView['places'] {
  const subject = subjectOf(snapshot, person.id)
  const own = personPrincipal(person.id)
  return rowsBy(snapshot.state.grants, 'principal', own).flatMap(grant => {
    const place = placeOf(snapshot, grant.node)
    if (subject === undefined || place === undefined) return []
    const actions = actionsAsIfActive(snapshot, subject, place)
    return actions === 0 ? [] : [{ name: place.node.name, actions, until: grant.until }]
  })
}
