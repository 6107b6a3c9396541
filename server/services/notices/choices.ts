import type { NoticeChoice } from '#contract/oversight-views.ts'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import type { Tables } from '../../store/tables.ts'

/** Each kind of notice of each person: a choice is looked at with all that is told, so all lie in memory. */
export type Choices = Map<string, NoticeChoice>

export interface Chosen {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly kind: string
}

export async function loadChoices({ noticeChoices }: Tables): Promise<Choices> {
  const rows = (await noticeChoices.findAll({ raw: true })) as unknown as (Chosen & {
    choice: NoticeChoice
  })[]
  return new Map(rows.map(row => [keyOf(row), row.choice]))
}

const keyOf = ({ workspace, person, kind }: Chosen): string => `${workspace} ${person} ${kind}`

/** How somebody wants to be told; as the kind is preset where they have chosen nothing. */
export const choiceOf = (
  { choices }: Parts,
  chosen: Chosen,
  preset: NoticeChoice = 'by mail too',
): NoticeChoice => choices.get(keyOf(chosen)) ?? preset

export const keepChoice = ({ choices }: Parts, chosen: Chosen, choice: NoticeChoice): void =>
  void choices.set(keyOf(chosen), choice)
