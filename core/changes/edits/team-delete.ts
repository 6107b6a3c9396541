import { rowOf } from '../../base/collection.ts'
import type { TeamId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { goneWith, isHeld } from '../../state/naming.ts'
import { teamHomeOf } from '../../state/state.ts'
import { type Context, type EditRule, lacksActionInArchive } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { archiveTime } from './delete.ts'
import { lacksArchiving } from './team.ts'

/** For good, once it has been archived for long enough. */
export interface DeleteTeam {
  readonly kind: 'team.delete'
  readonly team: TeamId
}

/**
 * Deletes a team for good that has been archived for long enough: its home with all in it, and all that names it. A way in
 * that would put people into it has to be changed first.
 */
export const deleteTeam: EditRule<DeleteTeam> = {
  kind: 'team.delete',
  lacks: (context, { team }) => lacksDeleting(context, team),
  apply: ({ now: { state, at } }, { team }) => {
    const before = rowOf(state.teams, team)
    if (before === undefined) return refused({ code: 'unknown', what: 'team' })
    if (before.archivedAt === null || before.archivedAt + archiveTime > at)
      return refused({ code: 'too-early', what: 'team' })
    return isHeld(state, 'teams', team)
      ? refused({ code: 'in-use', what: 'team' })
      : ok(goneWith(state, 'teams', before))
  },
}

/** Who may archive it, and may delete for good what is in its home: that one sees all that goes. */
export function lacksDeleting(context: Context, team: TeamId): Refusal | undefined {
  const home = teamHomeOf(context.before.state, team)
  return (
    lacksArchiving(context, team) ??
    (home === undefined ? undefined : lacksActionInArchive(context, home.id, 'seal'))
  )
}
