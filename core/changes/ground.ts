import { allRows, rowOf, rowsBy } from '../base/collection.ts'
import type { HandleId, NodeId, PersonId } from '../base/ids.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import { pathOf, type RecordChange, type State, type TableName } from '../state/state.ts'
import { membershipOf } from './edits/member.ts'
import { isRoleUsed } from './edits/role-made.ts'

/** Why a part of a change set is not taken back. */
export type WhyLeft =
  'changed since' | 'over' | 'in use' | 'gone' | 'in the bin' | 'stays withdrawn' | 'within itself'

/** Whether a record that went is still needed, or one that came back has nothing to stand on. */
export function cannotStand(
  state: State,
  back: RecordChange,
  written: readonly NodeId[],
): WhyLeft | undefined {
  if (back.after === null) return isNeeded(state, back, written) ? 'in use' : undefined
  if (back.table === 'nodes' && back.before?.parent === back.after.parent) return undefined
  return lacksPlace(state, back) ?? (hasItsGround(state, back) ? undefined : 'gone')
}

/** Whether what a place would stand in, or where a record that comes back would hang, is in the bin or gone. */
function lacksPlace(state: State, back: RecordChange): WhyLeft | undefined {
  const node = back.table === 'nodes' || back.before === null ? nodeIn(back) : undefined
  if (node === undefined) return undefined
  const path = pathOf(state, node)
  if (path.at(-1)?.parent !== null) return 'gone'
  const above = back.table === 'nodes' ? path.slice(1) : path
  return above.some(each => each.binned !== null) ? 'in the bin' : undefined
}

/** The place that a record is, or hangs on. */
export function nodeIn({ table, id, before, after }: RecordChange): NodeId | undefined {
  if (table === 'nodes') return id
  if (table === 'grants' || table === 'limits') return (after ?? before)?.node
  return table === 'columns' ? (after ?? before)?.board : undefined
}

/** What it refers to is there, and nothing has taken its place. */
function hasItsGround(state: State, change: RecordChange): boolean {
  const { table, before, after } = change
  if (after === null || !refersTo(change).every(each => isThere(state, each))) return false
  if (before !== null) return true
  if (table === 'memberships') return membershipOf(state, after.team, after.person)?.id === after.id
  return table !== 'persons' || rowsBy(state.persons, 'mail', after.mail.toLowerCase()).length === 1
}

/** Nothing hangs on who was removed. */
function isThere(state: State, [table, id]: readonly [TableName, string]): boolean {
  if (table === 'persons') return (rowOf(state.persons, id as PersonId)?.status ?? 'removed') !== 'removed'
  return rowOf(state[table] as State['nodes'], id as NodeId) !== undefined
}

function refersTo({ table, after }: RecordChange): readonly (readonly [TableName, string])[] {
  if (after === null) return []
  switch (table) {
    case 'grants':
    case 'limits':
      return [['nodes', after.node], ...namedBy(after.principal)]
    case 'memberships':
      return [
        ['teams', after.team],
        ['persons', after.person],
      ]
    case 'holdings':
      return [
        ['roles', after.role],
        ['persons', after.person],
      ]
    case 'invitations':
      return [['persons', after.person]]
    case 'handles':
      return [['persons', after.person]]
    case 'requests':
      return [
        ['teams', after.team],
        ['persons', after.person],
      ]
    case 'roleRequests':
      return [
        ['persons', after.person],
        ...('role' in after.wants ? [['roles', after.wants.role] as const] : []),
      ]
    case 'accessRequests':
      return [['persons', after.person]]
    case 'watches':
      return [
        ['persons', after.person],
        ['nodes', after.node],
      ]
    case 'handovers':
      return [
        ['persons', after.from],
        ['persons', after.to],
        ['roles', after.keeps],
      ]
    case 'joinLinks':
      return after.welcome === null ? [] : [['welcomeSets', after.welcome]]
    case 'columns':
      return [
        ['nodes', after.board],
        ...[...(after.viewers ?? []), ...(after.editors ?? [])].flatMap(each => namedBy(each)),
      ]
    case 'channels':
      return [['teams', after.team], ...(after.only ?? []).flatMap(each => namedBy(each))]
    default:
      return []
  }
}

function namedBy(principal: Principal): (readonly [TableName, string])[] {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return [['persons', parts.person]]
  return 'team' in parts ? [['teams', parts.team]] : []
}

/** Whether anything that stays refers to a record that went. */
function isNeeded(state: State, { table, id }: RecordChange, written: readonly NodeId[]): boolean {
  switch (table) {
    case 'nodes':
      return (
        written.includes(id) ||
        rowsBy(state.nodes, 'parent', id).length > 0 ||
        [...rowsBy(state.grants, 'node', id), ...rowsBy(state.limits, 'node', id)].length > 0 ||
        rowsBy(state.columns, 'board', id).length > 0 ||
        rowsBy(state.watches, 'node', id).length > 0
      )
    case 'persons':
      return (
        [
          ...rowsBy(state.memberships, 'person', id),
          ...rowsBy(state.holdings, 'person', id),
          ...rowsBy(state.invitations, 'person', id),
          ...rowsBy(state.requests, 'person', id),
          ...rowsBy(state.roleRequests, 'person', id),
          ...rowsBy(state.accessRequests, 'person', id),
          ...rowsBy(state.watches, 'person', id),
          ...rowsBy(state.handles, 'person', id),
        ].length > 0 || isNamed(state, [`person:${id}`])
      )
    case 'teams':
      return (
        rowsBy(state.memberships, 'team', id).length > 0 ||
        rowsBy(state.requests, 'team', id).length > 0 ||
        rowsBy(state.channels, 'team', id).length > 0 ||
        rowsBy(state.nodes, 'home', `team:${id}`).length > 0 ||
        isNamed(state, [`team:${id}`, `leads:${id}`])
      )
    case 'roles':
      return isRoleUsed(state, id)
    case 'levels':
      return allRows(state.grants).some(each => each.gives === id)
    case 'welcomeSets':
      return allRows(state.joinLinks).some(each => each.welcome === id)
    case 'handles':
      return isCalled(state, id)
    default:
      return false
  }
}

/** Whether somebody goes by a handle now. */
const isCalled = (state: State, id: HandleId) => allRows(state.persons).some(person => person.handle === id)

const isNamed = (state: State, principals: readonly Principal[]) =>
  principals.some(
    each =>
      rowsBy(state.grants, 'principal', each).length + rowsBy(state.limits, 'principal', each).length > 0,
  )
