import type { PageQuery } from '#contract/requests.ts'
import type { ColumnAccessView } from '#contract/views/access.ts'
import type { PageView } from '#contract/views/page.ts'
import { checkColumn, visibleColumns } from '#core/access/columns.ts'
import { peopleOf } from '#core/access/subject.ts'
import type { NodeId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { has } from '#core/levels/action.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, nameOf, visiblePlace } from '../viewer/asker.ts'
import { paged } from '../viewer/questions.ts'

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
