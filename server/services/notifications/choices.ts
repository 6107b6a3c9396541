import type { NotificationChoice } from '#contract/views/notifications.ts'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import type { Follower } from '../../store/log.ts'
import type { Tables } from '../../store/tables.ts'

/** Each kind of notification of each person: a choice is looked at with all that is told, so all lie in memory. */
export type Choices = Map<string, NotificationChoice>

export interface Chosen {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly kind: string
}

export const followerOfChoices = ({ notificationChoices }: Tables, choices: Choices): Follower => ({
  load: async () => {
    const rows = await notificationChoices.findAll({ raw: true })
    for (const row of rows as unknown as (Chosen & { readonly choice: NotificationChoice })[])
      choices.set(keyOf(row), row.choice)
  },
  hear: ({ news }) => {
    for (const each of news)
      if (each.of === 'choice') choices.set(keyOf(each), each.choice as NotificationChoice)
  },
})

const keyOf = ({ workspace, person, kind }: Chosen): string => `${workspace} ${person} ${kind}`

/** How somebody wants to be told; as the kind is preset where they have chosen nothing. */
export const choiceOf = (
  { choices }: Parts,
  chosen: Chosen,
  preset: NotificationChoice = 'by mail too',
): NotificationChoice => choices.get(keyOf(chosen)) ?? preset
