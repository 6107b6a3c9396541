import { rowOf } from '../../base/collection.ts'
import type { NodeId, SectionId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { Section } from '../../rules/board.ts'
import { gone } from '../../state/naming.ts'
import { type Context, type EditRule, isTaken, lacksAction } from '../context.ts'
import type { Refusal } from '../refusal.ts'

export interface CreateSection {
  readonly kind: 'section.create'
  readonly section: SectionId
  readonly board: NodeId
  readonly name: string
  readonly order: number
}

/** Sections, like columns and views, are arranged with their board. */
export const createSection: EditRule<CreateSection> = {
  kind: 'section.create',
  lacks: (context, edit) => lacksArranging(context, edit.board, 'section'),
  apply: ({ now: { state } }, { section: id, board, name, order }) => {
    if (rowOf(state.nodes, board)?.kind !== 'board') return refused({ code: 'unknown', what: 'place' })
    if (isTaken(state, 'sections', id)) return refused({ code: 'already-there', what: 'id' })
    const after: Section = { id, board, name, order }
    return ok([{ table: 'sections', id, before: null, after }])
  },
}

export interface ChangeSection {
  readonly kind: 'section.change'
  readonly section: SectionId
  readonly name?: string | undefined
  readonly order?: number | undefined
}

export const changeSection: EditRule<ChangeSection> = {
  kind: 'section.change',
  lacks: (context, edit) =>
    lacksArranging(context, rowOf(context.before.state.sections, edit.section)?.board, 'section'),
  apply: ({ now: { state } }, { section, name, order }) => {
    const before = rowOf(state.sections, section)
    if (before === undefined) return refused({ code: 'unknown', what: 'section' })
    const after: Section = { ...before, name: name ?? before.name, order: order ?? before.order }
    return ok([{ table: 'sections', id: section, before, after }])
  },
}

export interface DeleteSection {
  readonly kind: 'section.delete'
  readonly section: SectionId
}

/** Its rows stay, and are in it again if it comes back. */
export const deleteSection: EditRule<DeleteSection> = {
  kind: 'section.delete',
  lacks: (context, edit) =>
    lacksArranging(context, rowOf(context.before.state.sections, edit.section)?.board, 'section'),
  apply: ({ now: { state } }, { section }) => {
    const before = rowOf(state.sections, section)
    return before === undefined
      ? refused({ code: 'unknown', what: 'section' })
      : ok([gone('sections', before)])
  },
}

/** What is arranged with a board: who does not see it is told of no such thing. */
export function lacksArranging(
  context: Context,
  board: NodeId | undefined,
  what: 'section' | 'view',
): Refusal | undefined {
  if (board === undefined) return { code: 'unknown', what }
  const lacks = lacksAction(context, board, 'arrange')
  return lacks?.code === 'unknown' ? { code: 'unknown', what } : lacks
}
