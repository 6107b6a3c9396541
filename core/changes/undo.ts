import { allRows, rowOf, rowsBy } from '../base/collection.ts'
import type { HandleId, NodeId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { isSame } from '../base/same.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import {
  applyChanges,
  inverseOf,
  pathOf,
  type RecordChange,
  type State,
  type TableName,
} from '../state/state.ts'
import type { UndoChangeSet } from './intents/places.ts'
import { membershipOf } from './edits/member.ts'
import { isRoleUsed } from './edits/role-made.ts'

/** Why a part of a change set is not taken back. */
export type WhyLeft = 'changed since' | 'over' | 'in use' | 'gone'

export interface LeftOut {
  /** As the change set made it. */
  readonly change: RecordChange
  readonly why: WhyLeft
}

export interface Undoing {
  readonly changes: readonly RecordChange[]
  readonly leftOut: readonly LeftOut[]
}

/**
 * What taking back a change set comes to on the state as it is. A field goes back to what it was if
 * nobody set it again; a record goes or returns whole. What was changed since, ends that have passed,
 * and what could not stand (something hangs on it, or what it hung on is gone) are left out and told.
 */
export function undoingOf(state: State, at: Instant, undone: Omit<UndoChangeSet, 'kind'>): Undoing {
  const leftOut: LeftOut[] = []
  let kept = undone.changes.toReversed().flatMap(change => {
    const turned = turnedRound(state, at, change)
    if (turned.why !== undefined) leftOut.push({ change, why: turned.why })
    return turned.back === undefined ? [] : [{ change, back: turned.back }]
  })
  // Leaving one part out can take the ground from under another: until none falls any more.
  for (let before = -1; before !== kept.length;) {
    before = kept.length
    const after = applyChanges(
      state,
      kept.map(each => each.back),
    )
    kept = kept.filter(({ change, back }) => {
      const why = cannotStand(after, back, undone.written)
      if (why !== undefined) leftOut.push({ change, why })
      return why === undefined
    })
  }
  return { changes: kept.map(each => each.back), leftOut }
}

interface Turned {
  readonly back?: RecordChange
  readonly why?: WhyLeft
}

function turnedRound(state: State, at: Instant, change: RecordChange): Turned {
  const current = rowOf(state[change.table] as State['nodes'], change.id as NodeId) as Fields | undefined
  const [back] = inverseOf([change])
  const before = change.before as Fields | null
  const after = change.after as Fields | null
  if (back === undefined) return {}
  if (before === null) {
    if (current === undefined) return { why: 'gone' }
    return isSame(current, after) ? { back: { ...back, before: current } as never } : { why: 'changed since' }
  }
  if (after === null) {
    if (current !== undefined) return { why: 'changed since' }
    return isPast(before.until, at) ? { why: 'over' } : { back }
  }
  if (current === undefined) return { why: 'gone' }
  return fieldsBack(change, { current, before, after, at })
}

type Fields = Readonly<Record<string, unknown>>

/** Who set something last, and when: goes back with the rest, and is not worth telling alone. */
const incidental = new Set(['by', 'at'])

function fieldsBack(
  { table, id }: RecordChange,
  { current, before, after, at }: { current: Fields; before: Fields; after: Fields; at: Instant },
): Turned {
  const changed = Object.keys(after).filter(field => !isSame(before[field], after[field]))
  const untouched = changed.filter(field => isSame(current[field], after[field]))
  const returning = untouched.filter(field => field !== 'until' || !isPast(before.until, at))
  const told = (fields: readonly string[]) => fields.filter(field => !incidental.has(field)).length
  const fields = Object.fromEntries(returning.map(field => [field, before[field]]))
  const why =
    told(changed) > told(untouched)
      ? ('changed since' as const)
      : told(untouched) > told(returning)
        ? ('over' as const)
        : undefined
  return {
    ...(told(returning) === 0 && told(changed) > 0
      ? {}
      : {
          back: { table, id, before: current, after: { ...current, ...fields } } as unknown as RecordChange,
        }),
    ...(why === undefined ? {} : { why }),
  }
}

const isPast = (until: unknown, at: Instant) => typeof until === 'number' && until <= at

/** Whether a record that went is still needed, or one that came back has nothing to stand on. */
function cannotStand(
  state: State,
  { table, id, after, before }: RecordChange,
  written: readonly NodeId[],
): WhyLeft | undefined {
  if (after === null) return isNeeded(state, { table, id } as RecordChange, written) ? 'in use' : undefined
  if (table === 'nodes') {
    if (before !== null && before.parent === after.parent) return undefined
    const path = pathOf(state, id)
    return path.at(-1)?.parent === null && !path.slice(1).some(each => each.binned !== null)
      ? undefined
      : 'gone'
  }
  return before !== null || hasItsGround(state, { table, after } as RecordChange) ? undefined : 'gone'
}

/** What it refers to is there, and nothing has taken its place. */
function hasItsGround(state: State, change: RecordChange): boolean {
  const isThere = refersTo(change).every(([table, id]) => rowOf(state[table] as State['nodes'], id as NodeId))
  const { table, after } = change
  if (!isThere || after === null) return false
  if (table === 'memberships') return membershipOf(state, after.team, after.person)?.id === after.id
  return table !== 'persons' || rowsBy(state.persons, 'mail', after.mail.toLowerCase()).length === 1
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
      return [['nodes', after.board]]
    case 'channels':
      return [['teams', after.team]]
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
