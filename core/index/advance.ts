import { noActions } from '../levels/action.ts'
import type { OwnLevel } from '../levels/level.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import type { Grant, Limit } from '../rules/access-entry.ts'
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'
import { addEntry, removeEntry } from './entries.ts'
import type { AccessIndex } from './layout.ts'
import { type Changed, made, type Making, makingFrom } from './making.ts'
import { changeNodes } from './nodes.ts'
import {
  addMembership,
  dropPerson,
  dropTeam,
  putPerson,
  putTeam,
  removeMembership,
  setPolicies,
} from './people.ts'

/** The records that access hangs on. */
interface Indexed {
  workspaces: Workspace
  levels: OwnLevel
  persons: Person
  teams: Team
  memberships: Membership
  nodes: ContentNode
  grants: Grant
  limits: Limit
}

/** For each table what makes a difference to access. */
const fields = {
  workspaces: ['guestCeiling', 'allowsPublishing'],
  levels: ['actions'],
  persons: ['kind', 'status', 'from', 'until'],
  teams: ['archived', 'welcomesGuests', 'allowsPublishing', 'joining'],
  memberships: ['person', 'team', 'lead', 'from', 'until'],
  nodes: ['parent', 'home', 'broken', 'draft', 'archived', 'binned', 'web', 'maker'],
  grants: ['node', 'principal', 'gives', 'from', 'until'],
  limits: ['node', 'principal', 'allows', 'sparesStewards', 'from', 'until'],
} as const satisfies { [T in keyof Indexed]: readonly (keyof Indexed[T])[] }

export const isIndexed = (table: string): table is keyof Indexed => table in fields

/** Whether access can be different by a change of a record: how something is called makes no difference. */
export function isOfAccess(table: keyof Indexed, { before, after }: Changed<object>): boolean {
  if (before === null || after === null) return before !== after
  return fields[table].some(field => before[field as never] !== after[field as never])
}

/**
 * The index after some changes of records, in whatever order they are told. The same one back if none makes a
 * difference. Costs what the segments cost that begin, end or move, and the way up from each node that does.
 */
export function advanced(
  index: AccessIndex,
  changes: readonly (Changed<object> & { readonly table: string })[],
): AccessIndex {
  const ofAccess = changes.filter(change => isIndexed(change.table) && isOfAccess(change.table, change))
  if (ofAccess.length === 0) return index
  const making = makingFrom(index)
  const of = <T extends keyof Indexed>(table: T) =>
    ofAccess.filter(each => each.table === table) as unknown as Changed<Indexed[T]>[]
  const was = <T extends keyof Indexed>(table: T, act: (making: Making, row: Indexed[T]) => void) => {
    for (const { before } of of(table)) if (before !== null) act(making, before)
  }
  const becomes = <T extends keyof Indexed>(table: T, act: (making: Making, row: Indexed[T]) => void) => {
    for (const { after } of of(table)) if (after !== null) act(making, after)
  }
  const goes = <T extends keyof Indexed>(table: T, act: (making: Making, row: Indexed[T]) => void) => {
    for (const { before, after } of of(table)) if (before !== null && after === null) act(making, before)
  }
  // What hangs on something goes before it, and comes after it.
  was('grants', removeEntry)
  was('limits', removeEntry)
  was('memberships', removeMembership)
  becomes('workspaces', setPolicies)
  becomes('levels', setLevel)
  goes('levels', endLevel)
  becomes('persons', putPerson)
  becomes('teams', putTeam)
  changeNodes(making, of('nodes'))
  goes('teams', dropTeam)
  goes('persons', dropPerson)
  becomes('memberships', addMembership)
  becomes('grants', addEntry)
  becomes('limits', addEntry)
  return made(making)
}

function setLevel(making: Making, { id, actions }: Pick<OwnLevel, 'id' | 'actions'>): void {
  const { levels } = making.index
  const isKnown = levels.some(each => each.id === id)
  making.index.levels = isKnown
    ? levels.map(each => (each.id === id ? { id, actions } : each))
    : [...levels, { id, actions }]
}

/** A level keeps its number after it is gone: no entry holds it then, and one that comes back finds its place. */
const endLevel = (making: Making, { id }: OwnLevel): void => setLevel(making, { id, actions: noActions })
