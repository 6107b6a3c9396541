import type { PageQuery } from '#contract/requests.ts'
import type { ColumnAccessView } from '#contract/views/access.ts'
import type { ColumnView } from '#contract/views/content.ts'
import type { PageView } from '#contract/views/page.ts'
import { checkColumn, columnAccess, visibleColumns } from '#core/access/columns.ts'
import { peopleOf } from '#core/access/subject.ts'
import type { NodeId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { has } from '#core/levels/action.ts'
import type { Principal } from '#core/rules/principal.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, nameOf, visiblePlace } from '../viewer/asker.ts'
import { principalName } from '../viewer/principal.ts'
import { paged } from '../viewer/questions.ts'

/** The columns of a board that the asker may know of. */
export function columnsView(asker: Asker, id: string): ColumnView[] {
  const { place, actions } = visiblePlace(asker, id)
  const named = (principals: readonly Principal[] | null) =>
    principals === null || !has(actions, 'share')
      ? null
      : principals.map(principal => principalName(asker, principal))
  return visibleColumns(asker.snapshot, asker.subject, place).map(column => ({
    id: column.id,
    name: column.name,
    order: column.order,
    mine: columnAccess(asker.snapshot, asker.subject, { place, column }) === 'edit' ? 'edit' : 'see',
    isRestricted: column.viewers !== null || column.editors !== null,
    viewers: named(column.viewers),
    editors: named(column.editors),
  }))
}

/** Who sees and who edits a column; to whoever shares at the board. */
export function columnPeopleView(
  asker: Asker,
  { id, column }: { readonly id: string; readonly column: string },
  page: PageQuery,
): PageView<ColumnAccessView> {
  const { place, actions } = visiblePlace(asker, id)
  const found = visibleColumns(asker.snapshot, asker.subject, place).find(each => each.id === column)
  if (found === undefined || !has(actions, 'share')) throw problemOf('not-found')
  const at = { at: id as NodeId, column: found.id }
  const reached = [...peopleOf(asker.snapshot)].flatMap((person): ColumnAccessView[] => {
    const access = checkColumn(asker.snapshot, person.id, at)
    return access === 'none' ? [] : [{ id: person.id, name: nameOf(asker.snapshot, person.id), access }]
  })
  return paged(
    asker.snapshot,
    reached.sort((a, b) => compareWords(a.name, b.name) || (a.id < b.id ? -1 : 1)),
    page,
  )
}
