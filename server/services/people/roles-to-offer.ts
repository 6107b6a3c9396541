import type { RoleView } from '#contract/views/names.ts'
import { rankFor, entireWorkspace, mayUse, powersOf } from '#core/access/powers.ts'
import { allRows } from '#core/base/collection.ts'
import { guestRole } from '#core/people/role.ts'
import type { Asker } from '../viewer/asker.ts'

/** The roles that the asker may give: within rank, and holding nothing that the asker lacks. */
export function rolesToOffer({ snapshot, person }: Asker): RoleView[] {
  const rank = rankFor(snapshot, person, { privilege: 'assign roles', target: entireWorkspace })
  if (rank === undefined) return []
  const isOwner = mayUse(snapshot, person, 'own')
  const held = new Set(powersOf(snapshot, person).flatMap(power => [...power.privileges]))
  return allRows(snapshot.state.roles)
    .filter(role => role.id !== guestRole && (isOwner || role.rank < rank))
    .filter(role => role.privileges.every(privilege => held.has(privilege)))
    .sort((a, b) => a.rank - b.rank)
    .map(({ id, name, note }) => ({ id, name, note }))
}
