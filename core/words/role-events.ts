import type { ChangeOf } from '../changes/conduct.ts'
import type { Privilege } from '../levels/privilege.ts'
import type { Handover, ViewingSession } from '../people/asking.ts'
import type { Holding, Scope } from '../people/person.ts'
import type { Role } from '../people/role.ts'
import { changedFields, roleFields } from './changed-fields.ts'
import { type EventNaming, personNamed } from './audit-event.ts'
import { privilegesListed } from './privilege.ts'

/** What was done about roles, ownership and looking, told after its author's name. */

/** “ over the people of Volunteers”; nothing for the whole workspace. */
function overWords(scope: Scope, naming: EventNaming): string {
  if (scope.over === 'workspace') return ''
  return scope.over === 'guests'
    ? ' over guests'
    : ` over the people of ${naming.team(scope.team) ?? 'a deleted team'}`
}

export function holdingWords({ before, after }: ChangeOf<'holdings'>, naming: EventNaming): string {
  const row = (after ?? before) as Holding
  const who = personNamed(row.person, naming)
  const role = `the role ${naming.role(row.role)}${overWords(row.scope, naming)}`
  const end = row.until === null ? '' : ` until ${naming.through(row.until)}`
  if (before === null) return `gave ${who} ${role}${end}`
  return after === null ? `removed ${role} from ${who}` : `started ${role} of ${who}`
}

export function roleWords({ before, after }: ChangeOf<'roles'>): string {
  if (before === null) {
    const { name = '', privileges = [] } = after ?? {}
    const may = privileges.length === 0 ? '' : `, which may ${privilegesListed(privileges)}`
    return `created the role ${name}${may}`
  }
  if (after === null) return `deleted the role ${before.name}`
  const acts = [
    ...(before.name === after.name ? [] : [`renamed the role ${before.name} to ${after.name}`]),
    ...privilegeActs(before, after),
    ...(before.rank === after.rank ? [] : [`moved the role ${after.name} ${directionOf(before, after)}`]),
  ]
  return acts.join(', ') || `changed the role ${after.name}${changedFields(before, after, roleFields)}`
}

const directionOf = (before: Role, after: Role) =>
  `${after.rank > before.rank ? 'up' : 'down'} from rank ${before.rank} to ${after.rank}`

function privilegeActs(before: Role, after: Role): string[] {
  const more = missingIn(before.privileges, after.privileges)
  const fewer = missingIn(after.privileges, before.privileges)
  return [
    ...(more.length === 0 ? [] : [`allowed the role ${after.name} to ${privilegesListed(more)}`]),
    ...(fewer.length === 0 ? [] : [`no longer allowed the role ${after.name} to ${privilegesListed(fewer)}`]),
  ]
}

const missingIn = (held: readonly Privilege[], other: readonly Privilege[]) =>
  other.filter(each => !held.includes(each))

export function handoverWords({ before, after }: ChangeOf<'handovers'>, naming: EventNaming): string {
  const row = (after ?? before) as Handover
  const who = personNamed(row.to, naming)
  return before === null
    ? `offered to hand over the workspace to ${who}`
    : `closed the offer to hand over the workspace to ${who}`
}

export function viewingWords({ before, after }: ChangeOf<'viewingSessions'>, naming: EventNaming): string {
  const { through } = (after ?? before) as ViewingSession
  return through === null
    ? 'opened the outline of all places'
    : `saw the workspace as ${personNamed(through, naming)}`
}
