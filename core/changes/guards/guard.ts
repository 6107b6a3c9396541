import type { PersonId } from '../../base/ids.ts'
import type { Edit } from '../edit.ts'
import type { Refusal } from '../refusal.ts'
import type { Steps } from '../steps.ts'
import type { Touching } from '../touched.ts'

/** What a whole change set is judged by, once its edits are applied. */
export interface Whole extends Touching {
  readonly author: PersonId
  readonly edits: readonly Edit[]
}

export type Guard = (whole: Whole) => Refusal | undefined

/** One that may have very much to look at. */
export type LongGuard = (whole: Whole) => Steps<Refusal | undefined>
