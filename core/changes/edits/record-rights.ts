import { rowOf } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { isSame } from '../../base/same.ts'
import type { Holding, JoinRequest, Membership, Person } from '../../people/person.ts'
import type { AccessRequest, Handover, RoleRequest } from '../../people/asking.ts'
import type { JoinLink } from '../../rules/offer.ts'
import { guestRole } from '../../people/role.ts'
import type { Limit } from '../../rules/entry.ts'
import type { Workspace } from '../../rules/workspace.ts'
import { type RecordChange, workspaceOf } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import {
  type Context,
  firstLack,
  lacksAction,
  lacksActionInArchive,
  lacksEditing,
  lacksFilling,
  lacksPrivilege,
  lacksSharing,
  lacksTeam,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { lacksDecidingAccess } from './access-request.ts'
import { lacksChannelChange } from './channel.ts'
import { lacksColumnChange } from './column.ts'
import { lacksGrantChange } from './grant.ts'
import { lacksInviting } from './invitation.ts'
import { lacksRoleFor } from './role.ts'
import { lacksRoleChange } from './role-made.ts'
import { lacksDeciding } from './role-request.ts'
import { lacksWithdrawingLink, offerOf } from './join-link.ts'
import { lacksLimitChange } from './limit.ts'
import { lacksTaking } from './member.ts'
import { lacksMoving } from './move.ts'
import { lacksInBin } from './node-state.ts'
import { lacksOrdering } from './node.ts'
import { lacksDescribing, lacksOver } from './person.ts'
import { lacksAnswering } from './request.ts'
import { lacksTeamChange } from './team.ts'
import { lacksKeeping, lacksOffering } from './welcome-set.ts'
import { lacksWatch } from './watch.ts'
import { isSetting, lacksSettings } from './workspace.ts'

/**
 * What a change of one record needs that comes without an edit of its own kind: the same as that edit
 * would. The context's later state has all the changes made, so that what is new can be stood on.
 */
export function lacksRecordChange(context: Context, change: RecordChange): Refusal | undefined {
  switch (change.table) {
    case 'grants':
      return lacksGrantChange(context, change.before, change.after)
    case 'limits':
      return lacksLimit(context, change.before, change.after)
    case 'memberships':
      return lacksMembership(context, change.before, change.after)
    case 'nodes':
      return lacksNode(context, change.before, change.after)
    case 'persons':
      return lacksPerson(context, change.before, change.after)
    case 'holdings':
      return lacksHolding(context, change.before, change.after)
    case 'invitations':
      return lacksInviting(context, personOf(context, (change.after ?? change.before)?.person))
    case 'teams':
      return lacksTeamChange(context, change.before, change.after)
    case 'levels':
      return lacksPrivilege(context, 'edit levels')
    case 'workspaces':
      return lacksWorkspace(context, change.before, change.after)
    case 'roles':
      return lacksRoleChange(context, change.before, change.after)
    case 'columns':
      return lacksColumnChange(context, change.before, change.after)
    case 'channels':
      return lacksChannelChange(context, change.before, change.after)
    case 'handles':
      return lacksHandle(context, (change.after ?? change.before)?.person)
    case 'requests':
      return lacksRequest(context, change.before ?? change.after)
    case 'roleRequests':
      return lacksRoleRequest(context, change.before ?? change.after)
    case 'handovers':
      return lacksHandover(context, change.before ?? change.after)
    case 'looks':
      return { code: 'never-undone' }
    case 'accessRequests':
      return lacksAccessRequest(context, change.before, change.after)
    case 'watches':
      return lacksWatch(context, change.before, change.after)
    case 'welcomeSets':
      return lacksKeeping(context, change.before ?? change.after ?? undefined, change.after?.offer)
    case 'joinLinks':
      return lacksLinkChange(context, change.before, change.after)
  }
}

type Change<Row> = readonly [before: Row | null, after: Row | null]

function lacksLimit(context: Context, ...[before, after]: Change<Limit>): Refusal | undefined {
  if (before !== null) return lacksLimitChange(context, before, after)
  return after === null ? undefined : lacksSharing(context, after.node)
}

/** Leads are named in the workspace, also where a directory keeps who is in. */
function lacksMembership(context: Context, ...[before, after]: Change<Membership>): Refusal | undefined {
  if (after === null) return before === null ? undefined : lacksTaking(context, before)
  const isNaming = before !== null && isSame(before, { ...after, lead: before.lead })
  return isNaming ? lacksTeam(context, after.team) : lacksFilling(context, after.team)
}

/** Where the person comes or goes with the invitation, so does the handle. */
const lacksHandle = (context: Context, person: PersonId | undefined): Refusal | undefined =>
  person === undefined || isInvited(context, person)
    ? lacksInviting(context, personOf(context, person))
    : lacksDescribing(context, person)

const isInvited = (context: Context, id: PersonId) => {
  const person = personOf(context, id)
  return person?.status === 'invited' || (person !== undefined && !isThere(context, person))
}

const lacksRequest = (context: Context, request: JoinRequest | null): Refusal | undefined =>
  request === null || request.person === context.author ? undefined : lacksAnswering(context, request.id)

const lacksHandover = (context: Context, handover: Handover | null): Refusal | undefined =>
  handover?.from === context.author ? lacksPrivilege(context, 'own') : { code: 'unknown', what: 'handover' }

const lacksRoleRequest = (context: Context, request: RoleRequest | null): Refusal | undefined =>
  request === null || request.person === context.author ? undefined : lacksDeciding(context, request.id)

function lacksAccessRequest(
  context: Context,
  ...[before, after]: Change<AccessRequest>
): Refusal | undefined {
  const request = before ?? after
  return request === null || request.person === context.author
    ? undefined
    : lacksDecidingAccess(context, request.id)
}

/** What one made oneself comes back as it was; a link is never another's to widen. */
function lacksLinkChange(context: Context, ...[before, after]: Change<JoinLink>): Refusal | undefined {
  if (after === null) return lacksWithdrawingLink(context, before ?? undefined)
  return after.by === context.author
    ? lacksOffering(context, offerOf(context.now.state, after))
    : { code: 'not-its-maker', what: 'link' }
}

/** Each setting that differs needs what changing it needs. */
function lacksWorkspace(context: Context, ...[before, after]: Change<Workspace>): Refusal | undefined {
  if (before === null || after === null) return lacksPrivilege(context, 'own')
  const fields = (Object.keys(after) as (keyof Workspace)[]).filter(
    field => !isSame(before[field], after[field]),
  )
  const settings = fields.filter(field => isSetting(field))
  return firstLack([
    [settings.length > 0, () => lacksSettings(context, settings, after)],
    [fields.length > settings.length, () => lacksPrivilege(context, 'change seats')],
  ])
}

/** The invited go and come back by inviting; who may invite them changes what they are offered. */
function lacksPerson(context: Context, ...[before, after]: Change<Person>): Refusal | undefined {
  if (before === null || after === null) return lacksInviting(context, before ?? after ?? undefined)
  const isOffer = before.status === 'invited' && after.status === 'invited'
  if (isOffer && lacksInviting(context, before) === undefined) return undefined
  return firstLack([
    [!isSame(standingOf(before), standingOf(after)), () => lacksOver(context, before.id, 'suspend')],
    [before.contact !== after.contact, () => lacksOver(context, before.id, 'invite guests')],
    [!isSame(profileOf(before), profileOf(after)), () => lacksDescribing(context, before.id)],
  ])
}

const standingOf = ({ status, from, until }: Person) => [status, from, until]

const profileOf = ({ name, handle, title, department, country, picture }: Person) => [
  name,
  handle,
  title,
  department,
  country,
  picture,
]

function lacksHolding(context: Context, ...[before, after]: Change<Holding>): Refusal | undefined {
  const holding = after ?? before
  const person = personOf(context, holding?.person)
  if (person === undefined || holding === null) return { code: 'unknown', what: 'person' }
  const usual = [guestRole, workspaceOf(context.before.state).defaultRole]
  // With an invitation goes the role that it offers.
  if (person.status === 'invited' || !isThere(context, person))
    return (
      lacksInviting(context, person) ??
      (usual.includes(holding.role) ? undefined : lacksRoleFor(context, holding, person))
    )
  return lacksRoleFor(context, holding, person)
}

const isThere = ({ before }: Context, { id }: Person) => rowOf(before.state.persons, id) !== undefined

const personOf = ({ before, now }: Context, id: PersonId | undefined): Person | undefined =>
  id === undefined ? undefined : (rowOf(before.state.persons, id) ?? rowOf(now.state.persons, id))

function lacksNode(context: Context, ...[before, after]: Change<ContentNode>): Refusal | undefined {
  if (before === null) return after === null ? undefined : lacksMaking(context, after)
  if (after === null) return lacksUnmaking(context, before)
  const { id } = before
  return (
    lacksState(context, before, after) ??
    firstLack([
      [before.parent !== after.parent, () => lacksMoving(context, id, after.parent ?? id)],
      [before.broken !== after.broken, () => lacksActionInArchive(context, id, 'seal')],
      [before.web !== after.web, () => lacksAction(context, id, 'publish')],
      [before.order !== after.order, () => lacksOrdering(context, id)],
      [isDescribed(before, after), () => lacksEditing(context, id)],
    ])
  )
}

const isDescribed = (before: ContentNode, after: ContentNode) =>
  before.name !== after.name || before.note !== after.note || before.draft !== after.draft

function lacksState(context: Context, before: ContentNode, after: ContentNode): Refusal | undefined {
  if (before.binned !== null && after.binned === null) return lacksInBin(context, before.id, 'remove')
  const isSame = (before.binned === null) === (after.binned === null) && before.archived === after.archived
  return isSame ? undefined : lacksActionInArchive(context, before.id, 'remove')
}

const lacksMaking = (context: Context, { home, parent }: ContentNode): Refusal | undefined =>
  home === null && parent !== null
    ? lacksAction(context, parent, 'add')
    : lacksPrivilege(context, home?.of === 'team' ? 'create teams' : 'create homes')

/** What one made oneself, with nothing in it yet, one may unmake; else it is deleting for good. */
const lacksUnmaking = (context: Context, { id, maker }: ContentNode): Refusal | undefined =>
  maker === context.author && lacksAction(context, id, 'add') === undefined
    ? undefined
    : lacksAction(context, id, 'seal')
