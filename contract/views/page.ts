import { type TSchema, Type } from '@sinclair/typebox'
import { orNull, view } from '../pieces.ts'

/** One part of a long answer, with the revision that it speaks of. */
export interface PageView<Item> {
  readonly revision: number
  readonly total: number
  readonly items: readonly Item[]
  /** Where the next part begins; `null` at the end. */
  readonly next: number | null
}

export const pageOf = <S extends TSchema>(title: string, item: S) =>
  view(title, {
    revision: Type.Number(),
    total: Type.Number(),
    items: Type.Array(item),
    next: orNull(Type.Number()),
  })
