import type { ColumnView } from '#contract/views/boards.ts'
import { columnAccess, columnRights, visibleColumns } from '#core/access/columns.ts'
import { has } from '#core/levels/action.ts'
import type { Principal } from '#core/rules/principal.ts'
import { type Asker, visiblePlace } from '../viewer/asker.ts'
import { principalName } from '../viewer/principal.ts'

/** The columns of a board that the asker may know of. */
export function columnsView(asker: Asker, id: string): ColumnView[] {
  const { place, actions } = visiblePlace(asker, id)
  const named = (principals: readonly Principal[] | null) =>
    principals === null || !has(actions, 'share')
      ? null
      : principals.map(principal => principalName(asker, principal))
  const board = place.node.kind === 'row' ? (place.node.parent ?? place.node.id) : place.node.id
  const rights = columnRights(asker.snapshot, asker.subject, board)
  return visibleColumns(asker.snapshot, asker.subject, place).map(column => ({
    id: column.id,
    name: column.name,
    kind: column.kind,
    settings: column.settings,
    isMine: rights.get(column.id)?.edits === true,
    order: column.order,
    mine: columnAccess(asker.snapshot, asker.subject, { place, column }) === 'edit' ? 'edit' : 'see',
    isRestricted: column.viewers !== null || column.editors !== null,
    viewers: named(column.viewers),
    editors: named(column.editors),
  }))
}
