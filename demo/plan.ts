import type { Edit } from '#core/changes/edit.ts'
import type { Snapshot } from '#core/state/state.ts'

/** One change set to come: who makes it, how many days ago. */
export interface Plan {
  readonly day: number
  /** A person's key. */
  readonly author: string
  readonly reason?: string
  readonly edits: readonly Edit[]
}

/** One that hangs on how things are by then; `undefined` if nothing comes of it. */
export interface LatePlan {
  readonly day: number
  readonly plan: (snapshot: Snapshot) => Omit<Plan, 'day'> | undefined
}

/** The tables speak in plain strings; here they become an edit of the core, which judges it anyway. */
export const edit = <K extends Edit['kind']>(
  kind: K,
  fields: { readonly [F in Exclude<keyof Extract<Edit, { kind: K }>, 'kind'>]?: unknown },
): Edit => ({ kind, ...fields }) as unknown as Edit
