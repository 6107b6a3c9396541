import { placeOf } from '../../access/place.ts'
import { hasSteward } from '../../access/who.ts'
import { momentOf } from '../../state/moment.ts'
import { applyChanges, inverseOf, type RecordChange } from '../../state/state.ts'
import type { Guard, Whole } from './guard.ts'

/** A place is recovered only if it would have no steward without that, once the whole set is applied. */
export const recovered: Guard = whole => {
  if (!whole.edits.some(edit => edit.kind === 'access.recover')) return undefined
  const { after } = withoutRecovery(whole)
  for (const edit of whole.edits) {
    if (edit.kind !== 'access.recover') continue
    const place = placeOf(after, edit.node)
    if (place !== undefined && hasSteward(after, place)) return { code: 'has-steward', node: edit.node }
  }
  return undefined
}

/** The same without what recovering gave and lifted. */
export function withoutRecovery(whole: Whole): Whole {
  const ids = new Set<string>(
    whole.edits.flatMap(edit => (edit.kind === 'access.recover' ? [edit.grant, ...edit.limits] : [])),
  )
  return without(whole, change => ids.has(change.id))
}

/** What a whole change set would come to without some of its changes. */
export function without(whole: Whole, isLeftOut: (change: RecordChange) => boolean): Whole {
  const left = whole.changes.filter(isLeftOut)
  if (left.length === 0) return whole
  return { ...whole, after: momentOf(applyChanges(whole.after.state, inverseOf(left)), whole.after.at) }
}
