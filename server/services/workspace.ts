import type { RoleView } from '#contract/views/names.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { mayUse, ownersOf, powersOf, rankFor, entireWorkspace } from '#core/access/powers.ts'
import { allRows } from '#core/base/collection.ts'
import { allPrivileges } from '#core/levels/privilege.ts'
import { guestRole } from '#core/people/role.ts'
import { workspaceOf } from '#core/state/state.ts'
import { type Asker, asks } from './asker.ts'
import { keepsPeople } from './people.ts'

export function workspaceView(asker: Asker): WorkspaceView {
  const { state } = asker.snapshot
  const { name, slug, timeZone, picture, defaultRole, guestCeiling } = workspaceOf(state)
  const { person } = asker.subject
  return {
    name,
    slug,
    timeZone,
    picture,
    revision: state.revision,
    me: {
      id: person.id,
      name: person.name,
      kind: person.kind,
      picture: person.picture,
      privileges: allPrivileges.filter(privilege => asks(asker, privilege)),
    },
    ownLevels: allRows(state.levels).map(level => ({
      id: level.id,
      name: level.name,
      note: level.note,
      actions: level.actions,
    })),
    roles: rolesToOffer(asker),
    defaultRole,
    guestCeiling,
    keepsPeople: keepsPeople(asker),
    isOnlyOwner: asks(asker, 'own') && ownersOf(asker.snapshot).length === 1,
  }
}

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
