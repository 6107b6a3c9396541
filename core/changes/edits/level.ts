import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import type { OwnLevel } from '../../levels/level.ts'
import { goneWith, isHeld } from '../../state/naming.ts'
import { type EditOf, type EditRule, isTaken, lacksPrivilege } from '../context.ts'

/** Levels of the workspace's own. Grants hold them by reference: changing one changes what all of these give. */
export const createLevel: EditRule<EditOf<'level.create'>> = {
  kind: 'level.create',
  lacks: context => lacksPrivilege(context, 'edit levels'),
  apply: (context, { level: id, name, note, actions }) => {
    if (isTaken(context.now.state, 'levels', id)) return refused({ code: 'already-there', what: 'id' })
    const after: OwnLevel = { id, name, note, actions }
    return ok([{ table: 'levels', id, before: null, after }])
  },
}

export const changeLevel: EditRule<EditOf<'level.change'>> = {
  kind: 'level.change',
  lacks: context => lacksPrivilege(context, 'edit levels'),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.levels, edit.level)
    if (before === undefined) return refused({ code: 'unknown', what: 'level' })
    const { name = before.name, note = before.note, actions = before.actions } = edit
    return ok([{ table: 'levels', id: before.id, before, after: { ...before, name, note, actions } }])
  },
}

export const deleteLevel: EditRule<EditOf<'level.delete'>> = {
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
