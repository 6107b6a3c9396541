import type { EditRequest } from '#contract/edit-requests.ts'
import { rowOf } from '#core/base/collection.ts'
import type {
  GrantId,
  HoldingId,
  LevelId,
  LimitId,
  NodeId,
  PersonId,
  RoleId,
  TeamId,
} from '#core/base/ids.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { partsOf, type Principal } from '#core/rules/principal.ts'
import { rootOf } from '#core/state/state.ts'
import { type Asker, asks, knowsPerson, maySee } from './asker.ts'

/**
 * Whether the asker knows of everything that a gathered edit names. What is not there is known to nobody, so that it
 * is told like what is hidden; what the change set makes itself (`new:x`) is known.
 */
export const knowsAll = (asker: Asker, edit: EditRequest): boolean =>
  Object.entries(namesIn(edit)).every(([field, value]) => {
    const knows = known[field]
    return knows === undefined || typeof value !== 'string' || isNew(value) || knows(asker, value)
  })

/** What an edit names; the team of a role's scope with the rest. */
const namesIn = (edit: EditRequest): object => (edit.kind === 'role.give' ? { ...edit, ...edit.scope } : edit)

const isNew = (id: string) => id.includes('new:')

const known: Readonly<Record<string, (asker: Asker, id: string) => boolean>> = {
  node: (asker, id) => knowsNode(asker, id as NodeId),
  parent: (asker, id) => knowsNode(asker, id as NodeId),
  grant: (asker, id) => knowsNode(asker, rowOf(asker.moment.state.grants, id as GrantId)?.node),
  limit: (asker, id) => knowsNode(asker, rowOf(asker.moment.state.limits, id as LimitId)?.node),
  principal: (asker, id) => knowsPrincipal(asker, id as Principal),
  team: (asker, id) => knowsTeam(asker.moment, asker.person, id as TeamId),
  person: (asker, id) => isThere(asker, id as PersonId) && knowsPerson(asker, id as PersonId),
  holding: (asker, id) => {
    const holding = rowOf(asker.moment.state.holdings, id as HoldingId)
    return holding !== undefined && knowsPerson(asker, holding.person)
  },
  role: (asker, id) => rowOf(asker.moment.state.roles, id as RoleId) !== undefined,
  level: (asker, id) => rowOf(asker.moment.state.levels, id as LevelId) !== undefined,
}

function knowsNode(asker: Asker, id: NodeId | undefined): boolean {
  if (id === undefined) return false
  return id === rootOf(asker.moment.state).id ? asks(asker, 'security') : maySee(asker, id)
}

function knowsPrincipal(asker: Asker, principal: Principal): boolean {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return isThere(asker, parts.person) && knowsPerson(asker, parts.person)
  return !('team' in parts) || knowsTeam(asker.moment, asker.person, parts.team)
}

const isThere = ({ moment }: Asker, id: PersonId) => rowOf(moment.state.persons, id) !== undefined
