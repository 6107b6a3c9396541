import type { Transaction } from 'sequelize'
import type { NoticeChoice } from '#contract/oversight-views.ts'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'

interface ChoiceRow {
  readonly person: PersonId
  readonly kind: string
  readonly choice: NoticeChoice
}

interface Of {
  readonly workspace: WorkspaceId
  readonly people: readonly PersonId[]
  readonly transaction?: Transaction
}

/** How each of some people wants to be told of each kind. Who has chosen nothing is told by mail too. */
export async function choicesOf(
  { writer }: Parts,
  { workspace, people, transaction }: Of,
): Promise<(person: PersonId, kind: string) => NoticeChoice> {
  const rows = (await writer.tables.noticeChoices.findAll({
    where: { workspace, person: [...people] },
    raw: true,
    ...(transaction === undefined ? {} : { transaction }),
  })) as unknown as ChoiceRow[]
  return (person, kind) =>
    rows.find(row => row.person === person && row.kind === kind)?.choice ?? 'by mail too'
}
