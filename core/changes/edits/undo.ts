import { ok, refused } from '../../base/result.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import { applyChanges, type RecordChange } from '../../state/state.ts'
import type { Person } from '../../people/person.ts'
import type { Context, EditOf, EditRule } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { type Undoing, undoingOf } from '../undo.ts'
import { isArchivedHome } from './delete.ts'
import { conductOf } from '../conduct.ts'
import type { NodeId } from '../../base/ids.ts'

/** Takes back an earlier change set, as far as what it did still stands. */
export interface UndoChangeSet {
  readonly kind: 'undo'
  /** The revision that it made, and what it did to each record. */
  readonly revision: number
  readonly changes: readonly RecordChange[]
  /** Places with something in them that is not part of the state, such as text: these are not unmade. */
  readonly written: readonly NodeId[]
}

/**
 * Takes a change set back, with the rights that each part of it needs. Parts that the author cannot
 * know of are passed over in silence, like everything hidden.
 */
export const undo: EditRule<UndoChangeSet> = {
  kind: 'undo',
  lacks: (context, edit) => {
    if (edit.changes.some(isForGood)) return { code: 'never-undone' }
    return rightsOf(context, undoingOf(context.before.state, context.before.at, edit).changes).refusal
  },
  apply: (context, edit) => {
    const { changes } = knownUndoing(context, edit)
    return changes.length === 0 ? refused({ code: 'nothing-to-undo' }) : ok(changes)
  },
}

/** What undoing comes to for its author: without what the author cannot know of. */
export function knownUndoing(context: Context, edit: Omit<EditOf<'undo'>, 'kind'>): Undoing {
  const undoing = undoingOf(context.now.state, context.now.at, edit)
  const { unknown } = rightsOf(context, undoing.changes)
  if (unknown.length === 0) return undoing
  // What is left is worked out anew: the hidden parts may have been what others stand on.
  const hidden = new Set(unknown.map(({ table, id }) => `${table} ${id}`))
  const rest = edit.changes.filter(({ table, id }) => !hidden.has(`${table} ${id}`))
  return undoingOf(context.now.state, context.now.at, { ...edit, changes: rest })
}

function rightsOf(context: Context, changes: readonly RecordChange[]) {
  const now = snapshotOf(applyChanges(context.now.state, changes), context.now.at)
  const refusals = changes.map(({ table, before, after }) =>
    conductOf(now.state, table).rights({ ...context, now }, before as never, after as never),
  )
  return {
    refusal: refusals.find((each): each is Refusal => each !== undefined && each.code !== 'unknown'),
    unknown: changes.filter((_, index) => refusals[index]?.code === 'unknown'),
  }
}

/**
 * The first day of a workspace has no day before it; coming in is an act of the invited; what left the bin, who left
 * the workspace and teams that were deleted are gone; what a member's private folder became is not made private
 * again; and who looked, looked.
 */
export function isForGood(change: RecordChange): boolean {
  switch (change.table) {
    case 'viewingSessions':
      return true
    case 'workspaces':
      return change.before === null
    case 'nodes':
      return change.after === null && (change.before?.binned != null || isArchivedHome(change.before))
    case 'teams':
      return change.after === null && change.before?.archived === true
    case 'persons':
      return change.before !== null && change.after !== null && isOtherPerson(change.before, change.after)
    default:
      return false
  }
}

const isOtherPerson = (before: Person, after: Person): boolean =>
  before.kind !== after.kind ||
  after.status === 'removed' ||
  (before.status === 'invited' && after.status === 'active')
