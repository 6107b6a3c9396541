import type { PersonId } from '../../base/ids.ts'
import type { Edit } from '../edit.ts'
import type { Refusal } from '../refusal.ts'
import type { Steps } from '../steps.ts'
import type { Transition } from '../affected-scope.ts'

/** What a whole change set is judged by, once its edits are applied. */
export interface ProposedChanges extends Transition {
  readonly author: PersonId
  readonly edits: readonly Edit[]
}

export type Guard = (proposed: ProposedChanges) => Refusal | undefined

/** One that may have very much to look at. */
export type LongGuard = (proposed: ProposedChanges) => Steps<Refusal | undefined>
