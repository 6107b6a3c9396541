import type { WorkspaceView } from '#contract/views/workspace.ts'
import { ownersOf } from '#core/access/powers.ts'
import { allRows } from '#core/base/collection.ts'
import { allPrivileges } from '#core/levels/privilege.ts'
import { workspaceOf } from '#core/state/state.ts'
import { type Asker, asks } from '../viewer/asker.ts'
import { managesPeople } from '../viewer/managing.ts'
import { rolesToOffer } from '../people/roles-to-offer.ts'

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
    managesPeople: managesPeople(asker),
    isOnlyOwner: asks(asker, 'own') && ownersOf(asker.snapshot).length === 1,
  }
}
