import type { AccountId, GrantId, HandleId, HoldingId, NodeId, PersonId, WorkspaceId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { builtInRoles, ownerRole } from '../people/role.ts'
import { blankProfile, type Person } from '../people/person.ts'
import { usualPolicies, type Workspace } from '../rules/workspace.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, type RecordChange, type State } from '../state/state.ts'
import type { Judged } from './judge.ts'
import { privateFolder } from './edits/invitation.ts'
import { createdNode } from './edits/node.ts'

/** All that a new workspace starts from. The ids are made outside the core. */
export interface Provisioning {
  readonly workspace: WorkspaceId
  readonly name: string
  readonly slug: string
  readonly timeZone: string
  readonly at: Instant
  readonly root: NodeId
  readonly owner: {
    readonly person: PersonId
    readonly account: AccountId
    readonly holding: HoldingId
    readonly name: string
    readonly handle: HandleId
    readonly mail: string
    readonly folder: NodeId
    readonly grant: GrantId
  }
}

/** The first change set of a workspace, on nothing: its policies, the built-in roles, the root, its Owner. Nothing to judge. */
export function provisionWorkspace(nothing: State, founding: Provisioning): Judged {
  const { owner, at } = founding
  const workspace: Workspace = {
    id: founding.workspace,
    name: founding.name,
    slug: founding.slug,
    timeZone: founding.timeZone,
    madeAt: at,
    ...usualPolicies,
  }
  const person: Person = {
    id: owner.person,
    account: owner.account,
    name: owner.name,
    mail: owner.mail,
    ...blankProfile,
    handle: owner.handle,
    kind: 'member',
    status: 'active',
    contact: null,
    invitedBy: null,
    joinedAt: at,
    agreedAt: null,
    from: null,
    until: null,
  }
  const holding = {
    id: owner.holding,
    person: owner.person,
    role: ownerRole,
    scope: { over: 'workspace' },
    from: null,
    until: null,
  } as const
  const root = createdNode(
    { id: founding.root, parent: null, kind: 'root', name: founding.name },
    { maker: owner.person, madeAt: at },
  )
  const first: RecordChange[] = [
    { table: 'workspaces', id: workspace.id, before: null, after: workspace },
    ...builtInRoles.map(role => ({ table: 'roles', id: role.id, before: null, after: role }) as const),
    { table: 'persons', id: person.id, before: null, after: person },
    {
      table: 'handles',
      id: owner.handle,
      before: null,
      after: { id: owner.handle, person: person.id, since: at },
    },
    { table: 'holdings', id: holding.id, before: null, after: holding },
    { table: 'nodes', id: root.id, before: null, after: root },
  ]
  const withRoot = snapshotOf(applyChanges(nothing, first), at)
  const folder = privateFolder(
    { author: owner.person, before: withRoot, now: withRoot },
    { person: owner.person, folder: owner.folder, grant: owner.grant },
  )
  return { changes: [...first, ...folder], state: applyChanges(withRoot.state, folder), copies: [] }
}
