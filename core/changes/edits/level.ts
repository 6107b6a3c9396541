import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import type { OwnLevel } from '../../levels/level.ts'
import { goneWith, isHeld } from '../../state/naming.ts'
import { type EditRule, isTaken, lacksPrivilege } from '../context.ts'
import type { LevelId } from '../../base/ids.ts'
import type { ActionSet } from '../../levels/action.ts'

export interface CreateLevel {
  readonly kind: 'level.create'
  readonly level: LevelId
  readonly name: string
  readonly note: string
  readonly actions: ActionSet
}

/** Levels of the workspace's own. Grants hold them by reference: changing one changes what all of these give. */
export const createLevel: EditRule<CreateLevel> = {
  kind: 'level.create',
  lacks: context => lacksPrivilege(context, 'edit levels'),
  apply: (context, { level: id, name, note, actions }) => {
    if (isTaken(context.now.state, 'levels', id)) return refused({ code: 'already-there', what: 'id' })
    const after: OwnLevel = { id, name, note, actions }
    return ok([{ table: 'levels', id, before: null, after }])
  },
}

export interface ChangeLevel {
  readonly kind: 'level.change'
  readonly level: LevelId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly actions?: ActionSet | undefined
}

export const changeLevel: EditRule<ChangeLevel> = {
  kind: 'level.change',
  lacks: context => lacksPrivilege(context, 'edit levels'),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.levels, edit.level)
    if (before === undefined) return refused({ code: 'unknown', what: 'level' })
    const { name = before.name, note = before.note, actions = before.actions } = edit
    return ok([{ table: 'levels', id: before.id, before, after: { ...before, name, note, actions } }])
  },
}

export interface DeleteLevel {
  readonly kind: 'level.delete'
  readonly level: LevelId
}

export const deleteLevel: EditRule<DeleteLevel> = {
  kind: 'level.delete',
  lacks: context => lacksPrivilege(context, 'edit levels'),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.levels, edit.level)
    if (before === undefined) return refused({ code: 'unknown', what: 'level' })
    return isHeld(state, 'levels', before.id)
      ? refused({ code: 'in-use', what: 'level' })
      : ok(goneWith(state, 'levels', before))
  },
}
