import type { LimitId, NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { Edit } from '../changes/edit.ts'
import { type ActionSet, listActions, noActions } from '../levels/action.ts'
import { nameOfActions } from '../levels/level.ts'
import type { Gives, Limit } from '../rules/access-entry.ts'
import type { EventNaming } from './audit-event.ts'

/** Finds the limit that a remedy loosens. */
type LimitOf = (id: LimitId) => Limit | undefined

/** What a remedy would do, as one would say it to whoever does it: "Add Pilar Onsund to Bird Counts". */
export function remedyInWords(edit: Edit, naming: EventNaming, limitOf: LimitOf): string {
  const person = (id: PersonId) => naming.person(id) ?? 'them'
  const team = (id: TeamId) => naming.team(id) ?? 'the team'
  const place = (id: NodeId) => naming.where(id) ?? 'it'
  switch (edit.kind) {
    case 'grant.add':
      return `Give ${naming.principal(edit.principal)} ${levelOf(edit.gives)} on ${place(edit.node)}`
    case 'member.add':
      return `Add ${person(edit.person)} to ${team(edit.team)}${edit.lead ? ' as a lead' : ''}`
    case 'member.change':
      return `Make ${person(edit.person)} a lead of ${team(edit.team)}`
    case 'limit.change':
      return looseningWords(limitOf(edit.limit), edit.allows ?? noActions, naming)
    case 'node.restore':
      return `Restore inheritance on ${place(edit.node)}`
    case 'node.state':
      return stateWords(edit, place(edit.node))
    case 'team.archive':
      return `Restore the team ${team(edit.team)}`
    case 'person.reactivate':
      return `Reactivate ${person(edit.person)}`
    default:
      throw new Error(`no remedy is a ${edit.kind}`)
  }
}

function looseningWords(limit: Limit | undefined, allows: ActionSet, naming: EventNaming): string {
  if (limit === undefined) return 'Raise a limit'
  const at = naming.where(limit.node) ?? 'it'
  return `Raise the limit for ${naming.principal(limit.principal)} on ${at} to ${levelOf(allows)}`
}

/** A set between two levels is told by what it lets one do: that is what the remedy is about. */
function levelOf(gives: Gives): string {
  if (typeof gives !== 'number') return 'a level'
  const { name, more } = nameOfActions(gives)
  return more ? listActions(gives).join(', ') : name
}

function stateWords(edit: Extract<Edit, { kind: 'node.state' }>, place: string): string {
  if (edit.draft === false) return `Release ${place}`
  return edit.binned === false ? `Restore ${place} from the bin` : `Restore ${place} from the archive`
}
