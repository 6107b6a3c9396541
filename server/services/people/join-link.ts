import type { JoinByLinkRequest } from '#contract/requests.ts'
import type { JoinLinkOfferView, JoinedByLinkView } from '#contract/views/onboarding.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { AccountId, JoinLinkId, WorkspaceId } from '#core/base/ids.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { ok, refused } from '#core/base/result.ts'
import type { Edit } from '#core/changes/edit.ts'
import { isLinkOpen, offerOf } from '#core/changes/edits/join-link.ts'
import { type ChangeSet, judge, type Refused } from '#core/changes/judge.ts'
import type { JoinLink } from '#core/rules/offer.ts'
import { type Snapshot, workspaceOf } from '#core/state/state.ts'
import { isTokenOfLink } from '../../mail/link.ts'
import { idIn } from '../../signature.ts'
import { snapshotAt } from '../../store/states.ts'
import { workspacesWith } from '../../store/whereabouts.ts'
import { snapshotsOf } from '../viewer/workspaces-of.ts'
import type { AccountRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { accountRow } from '../account/account-row.ts'
import { nameOf } from '../viewer/asker.ts'
import { mintingFor, problemInWords } from '../changes/change-set.ts'
import { type Failed, writeJudged } from '../changes/change.ts'
import { editFrom } from '../changes/edits.ts'
import { acceptMine, unnamed } from './invitation.ts'
import { welcomeDomain } from './offers.ts'

/** What a join link leads to, without a name of anything within: many may hold it. */
export async function joinLinkView(parts: Parts, token: string): Promise<JoinLinkOfferView> {
  const { snapshot, link } = await findLink(parts, token)
  const { as, role, teams, places, from, until } = offerOf(snapshot.state, link)
  const { name, houseRules, timeZone } = workspaceOf(snapshot.state)
  return {
    workspace: name,
    by: nameOf(snapshot, link.by),
    as,
    role: role === null ? null : (rowOf(snapshot.state.roles, role)?.name ?? null),
    teams: teams.length,
    places: places.length,
    from,
    until,
    timeZone,
    domains: link.domains,
    houseRules,
  }
}

/**
 * Somebody comes by a link: an invitation goes to the address that they say, made by the link's maker, on whose
 * rights it is judged. Who is signed in with a confirmed address comes in at once. An address that is here or
 * invited already is answered alike.
 */
export async function joinByLink(
  parts: Parts,
  { token, mail: typed }: JoinByLinkRequest,
  account: AccountId | undefined,
): Promise<JoinedByLinkView> {
  const { workspace } = await findLink(parts, token)
  const own = account === undefined ? undefined : await accountRow(parts, account)
  const comer = comerFor(own, typed)
  const result = await submit<number | null, Refused | Failed>(parts.writer, candidates => {
    const before = candidates.snapshotOf(workspace)
    const link = before === undefined ? undefined : openLink(before, parts.secret, token)
    if (before === undefined || link === undefined) return refused(over)
    const changeSet = comingBy(parts, before, { link, ...comer })
    const judged = judge(before, changeSet)
    if (judged.ok) return ok(writeJudged(parts, { workspace, before, changeSet, judged: judged.value }))
    const { code } = judged.error.refusal
    // That the address is known here already is nobody's to learn.
    if (code === 'already-there') return ok({ value: null })
    return refused(code === 'domain-not-welcome' ? judged.error : over)
  })
  if (!result.ok)
    throw 'problem' in result.error
      ? problemOf(result.error.problem)
      : new ProblemError(problemInWords(result.error, unnamed))
  const snapshot = snapshotAt(parts.writer.states, workspace, parts.clock())
  const invitation = snapshot === undefined ? undefined : invitationTo(snapshot, comer.mail)
  if (!comer.isOwn || account === undefined || snapshot === undefined || invitation === undefined)
    return { slug: null, invitation: null }
  // The house rules are read before one comes in.
  if (workspaceOf(snapshot.state).houseRules !== '') return { slug: null, invitation }
  const { slug } = await acceptMine(parts, { account, invitation, agrees: false })
  return { slug, invitation: null }
}

interface Comer {
  readonly mail: string
  readonly name: string
  /** Signed in, with this address, which was shown to be theirs. */
  readonly isOwn: boolean
}

function comerFor(own: AccountRow | undefined, typed: string | undefined): Comer {
  const mail = (typed ?? own?.mail ?? '').trim().toLowerCase()
  if (mail === '')
    throw problemOf('bad-input', {
      faults: [{ at: 'mail', message: 'Enter the address that the invitation is sent to.' }],
    })
  const isOwn = own !== undefined && own.provenAt !== null && own.mail === mail
  return { mail, isOwn, name: isOwn ? own.name : '' }
}

const over = { refusal: { code: 'link-over' }, edit: null } as const

function comingBy(
  parts: Parts,
  { state, at }: Snapshot,
  { link, mail, name }: { link: JoinLink; mail: string; name: string },
): ChangeSet {
  const offer = offerOf(state, link)
  const requests = invitingEdits(
    { ...offer, teams: [...offer.teams], places: offer.places.map(each => ({ ...each })) },
    { person: 'new:person', mail, name, welcome: link.welcome },
  )
  const minting = { ...mintingFor(parts, state, new Map()), now: at }
  const use: Edit = { kind: 'link.use', link: link.id, mail }
  return {
    author: link.by,
    reason: `Joined by the link “${link.name}”`,
    edits: [...requests.map(each => editFrom(each, minting)), use],
  }
}

/** Whether somebody who comes by a link would be let in as things are: not where its maker may not give what it offers. */
export function letsIn(parts: Parts, snapshot: Snapshot, link: JoinLink): boolean {
  if (!isLinkOpen(snapshot, link)) return false
  const domains =
    link.domains.length > 0 ? link.domains : [welcomeDomain(snapshot.state, offerOf(snapshot.state, link).as)]
  return domains.some(
    domain => judge(snapshot, comingBy(parts, snapshot, { link, mail: `somebody@${domain}`, name: '' })).ok,
  )
}

function invitationTo({ state }: Snapshot, mail: string): string | undefined {
  const person = rowsBy(state.persons, 'mail', mail).find(each => each.status === 'invited')
  return person === undefined ? undefined : rowsBy(state.invitations, 'person', person.id)[0]?.id
}

interface Found {
  readonly workspace: WorkspaceId
  readonly snapshot: Snapshot
  readonly link: JoinLink
}

async function findLink(parts: Parts, token: string): Promise<Found> {
  const workspaces = await workspacesWith(parts.writer.tables, 'joinLinks', idIn(token))
  for (const kept of await snapshotsOf(parts, workspaces)) {
    const snapshot = { ...kept, at: parts.clock() }
    const link = openLink(snapshot, parts.secret, token)
    if (link !== undefined) return { workspace: workspaceOf(snapshot.state).id, snapshot, link }
  }
  throw problemOf('dead-link')
}

function openLink(snapshot: Snapshot, secret: string, token: string): JoinLink | undefined {
  const link = rowOf(snapshot.state.joinLinks, idIn(token) as JoinLinkId)
  const signing = { secret, workspace: workspaceOf(snapshot.state).id }
  return link !== undefined && isTokenOfLink(token, signing, link) && isLinkOpen(snapshot, link)
    ? link
    : undefined
}
