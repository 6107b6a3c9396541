import { anyone } from '../index/layout.ts'
import type { Whom } from './evaluation-context.ts'

/**
 * Which principals may match somebody, few enough marks to stay at hand where very many entries are looked through: by
 * the low bits of a principal's number + 1. Those that share a mark are told apart by who finds it set.
 */
export type Marks = Uint8Array

const markCount = 8192
export const markMask = markCount - 1

export const createMarks = (): Marks => new Uint8Array(markCount)

export function mark(marks: Marks, { self, kin, list, first, behind }: Whom): void {
  marks[(self + 1) & markMask] = 1
  marks[(kin + 1) & markMask] = 1
  marks[anyone + 1] = 1
  for (let each = first; each < behind; each += 1) marks[((list[each] as number) + 1) & markMask] = 1
}
