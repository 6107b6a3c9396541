import type {
  GrantId,
  LevelId,
  LimitId,
  MembershipId,
  NodeId,
  PersonId,
  RoleId,
  TeamId,
  WorkspaceId,
} from '../base/ids.ts'
import { always, type Instant } from '../base/instant.ts'
import { type ActionSet, noActions } from '../levels/action.ts'
import type { Privilege } from '../levels/privilege.ts'
import { blankProfile, type Membership, type Person, type Scope, type Team } from '../people/person.ts'
import { builtInRoles } from '../people/role.ts'
import type { Gives, Grant, Limit } from '../rules/access-entry.ts'
import type { Principal } from '../rules/principal.ts'
import { usualPolicies, type Workspace } from '../rules/workspace.ts'
import { emptyState } from '../records/all.ts'
import type { Rows } from '../state/kinds.ts'
import { applyChanges, type RecordChange, type State } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/** Small worlds for tests: only what differs from the plain case is written down. */

export const now: Instant = 1_000_000

export type Part = { [T in keyof Rows]: { table: T; row: Rows[T] } }[keyof Rows]

const part = <T extends keyof Rows>(table: T, row: Rows[T]) => ({ table, row }) as Part

export const person = (id: string, more: Partial<Person> = {}): Part =>
  part('persons', {
    id: id as PersonId,
    account: null,
    name: id,
    mail: `${id}@test.example`,
    ...blankProfile,
    kind: 'member',
    status: 'active',
    contact: null,
    invitedBy: null,
    joinedAt: 0,
    agreedAt: null,
    ...always,
    ...more,
  })

/** A role of the workspace's own: `role-` and its name. */
export const role = (name: string, rank: number, ...privileges: readonly Privilege[]): Part =>
  part('roles', {
    id: `role-${name}` as RoleId,
    name,
    note: '',
    rank,
    privileges,
    addressable: false,
    builtIn: false,
    seatExempt: false,
    madeAt: 0,
    madeBy: 'owner' as PersonId,
  })

export const holding = (id: string, role: string, scope: Scope = { over: 'workspace' }): Part =>
  part('holdings', {
    id: `${id} ${role}` as never,
    person: id as PersonId,
    role: role as RoleId,
    scope,
    ...always,
  })

export const team = (id: string, more: Partial<Team> = {}): Part =>
  part('teams', {
    id: id as TeamId,
    name: id,
    note: '',
    picture: null,
    joining: 'request',
    welcomesGuests: false,
    archived: false,
    archivedAt: null,
    allowsPublishing: true,
    posting: 'everyone',
    addressing: 'leads',
    keptByDirectory: false,
    madeAt: 0,
    ...more,
  })

export const member = (teamId: string, personId: string, more: Partial<Membership> = {}): Part =>
  part('memberships', {
    id: `${teamId} ${personId}` as MembershipId,
    team: teamId as TeamId,
    person: personId as PersonId,
    lead: false,
    since: 0,
    ...always,
    ...more,
  })

export const node = (id: string, parent: string | null, more: Partial<ContentNode> = {}): Part =>
  part('nodes', {
    id: id as NodeId,
    parent: parent as NodeId | null,
    kind: parent === null ? 'root' : 'folder',
    name: id,
    note: '',
    maker: 'owner' as PersonId,
    madeAt: 0,
    order: 0,
    section: null,
    serial: more.kind === 'board' ? 0 : null,
    home: parent === 'root' ? { of: 'shared' } : null,
    broken: null,
    draft: false,
    archived: false,
    archivedAt: null,
    binned: null,
    web: null,
    ...more,
  })

export const broken = { broken: { by: 'owner' as PersonId, at: 0 } }

/** A grant's or limit's id is where it is and for whom; a second one there says its own. */
export const grant = (at: string, principal: Principal, gives: Gives, more: Partial<Grant> = {}): Part =>
  part('grants', {
    id: `${at} ${principal}` as GrantId,
    node: at as NodeId,
    principal,
    gives,
    by: 'owner' as PersonId,
    at: 0,
    copiedFrom: null,
    ...always,
    ...more,
  })

export const limit = (
  at: string,
  principal: Principal,
  allows = noActions,
  more: Partial<Limit> = {},
): Part =>
  part('limits', {
    id: `${at} ${principal}` as LimitId,
    node: at as NodeId,
    principal,
    allows,
    sparesStewards: true,
    by: 'owner' as PersonId,
    at: 0,
    ...always,
    ...more,
  })

export const level = (id: string, actions: ActionSet): Part =>
  part('levels', { id: id as LevelId, name: id, note: '', actions })

export const workspace = (more: Partial<Workspace> = {}): Part =>
  part('workspaces', {
    id: 'workspace' as WorkspaceId,
    name: 'Test',
    slug: 'test',
    timeZone: 'UTC',
    madeAt: 0,
    ...usualPolicies,
    ...more,
  })

const base: readonly Part[] = [
  workspace(),
  ...builtInRoles.map(role => part('roles', role)),
  person('owner'),
  holding('owner', 'role-owner'),
  node('root', null),
]

/** A workspace with its root, an owner called `owner`, and these parts. */
export const world = (...parts: readonly Part[]): State => worldOn(emptyState, ...parts)

/** The same with other kinds of records than there are. */
export function worldOn(empty: State, ...parts: readonly Part[]): State {
  const changes = [...base, ...parts].map(
    ({ table, row }) => ({ table, id: row.id, before: null, after: row }) as RecordChange,
  )
  return applyChanges(empty, changes)
}
