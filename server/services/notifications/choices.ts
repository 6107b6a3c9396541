import type { NotificationChoice } from '#contract/views/notifications.ts'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import type { Tables } from '../../store/tables.ts'

/** Each kind of notification of each person: a choice is looked at with all that is told, so all lie in memory. */
export type Choices = Map<string, NotificationChoice>

export interface Chosen {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly kind: string
}

export async function loadChoices({ notificationChoices }: Tables): Promise<Choices> {
  const rows = (await notificationChoices.findAll({ raw: true })) as unknown as (Chosen & {
    choice: NotificationChoice
  })[]
  return new Map(rows.map(row => [keyOf(row), row.choice]))
}

const keyOf = ({ workspace, person, kind }: Chosen): string => `${workspace} ${person} ${kind}`

/** How somebody wants to be told; as the kind is preset where they have chosen nothing. */
export const choiceOf = (
  { choices }: Parts,
  chosen: Chosen,
  preset: NotificationChoice = 'by mail too',
): NotificationChoice => choices.get(keyOf(chosen)) ?? preset

export const keepChoice = ({ choices }: Parts, chosen: Chosen, choice: NotificationChoice): void =>
  void choices.set(keyOf(chosen), choice)
