import { allRows, rowOf, rowsBy } from '../../base/collection.ts'
import type { TeamId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { Team } from '../../people/person.ts'
import type { BoardColumn } from '../../rules/column.ts'
import { leadsPrincipal, type Principal, teamPrincipal } from '../../rules/principal.ts'
import { type RecordChange, type State, teamHomeOf } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, lacksActionInArchive } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { archiveTime, deletionOf, gone } from './delete.ts'
import { lacksArchiving } from './team.ts'

/** Deletes a team for good that has been archived for long enough: its home with all in it, and all that names it. */
export const deleteTeam: EditRule<EditOf<'team.delete'>> = {
  kind: 'team.delete',
  lacks: (context, { team }) => lacksDeleting(context, team),
  apply: ({ now: { state, at } }, { team }) => {
    const before = rowOf(state.teams, team)
    if (before === undefined) return refused({ code: 'unknown', what: 'team' })
    if (before.archivedAt === null || before.archivedAt + archiveTime > at)
      return refused({ code: 'too-early', what: 'team' })
    return isOffered(state, before)
      ? refused({ code: 'in-use', what: 'team' })
      : ok([...hangingOnTeam(state, before), gone('teams', before)])
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

/** A way in that would put people into it has to be changed first. */
const isOffered = (state: State, { id }: Team): boolean =>
  [...allRows(state.welcomeSets), ...allRows(state.joinLinks)].some(each => each.offer.teams.includes(id))

function hangingOnTeam(state: State, { id }: Team): RecordChange[] {
  const home = teamHomeOf(state, id)
  const named: readonly Principal[] = [teamPrincipal(id), leadsPrincipal(id)]
  return [
    ...(home === undefined ? [] : deletionOf(state, home.id)),
    ...named.flatMap(each => [
      ...rowsBy(state.grants, 'principal', each).map(grant => gone('grants', grant)),
      ...rowsBy(state.limits, 'principal', each).map(limit => gone('limits', limit)),
    ]),
    ...allRows(state.columns).flatMap(column => withoutNamed(column, named)),
    ...rowsBy(state.channels, 'team', id).map(each => gone('channels', each)),
    ...rowsBy(state.memberships, 'team', id).map(each => gone('memberships', each)),
    ...rowsBy(state.requests, 'team', id).map(each => gone('requests', each)),
    ...allRows(state.holdings)
      .filter(({ scope }) => scope.over === 'team' && scope.team === id)
      .map(each => gone('holdings', each)),
  ]
}

/** A column stays restricted to whoever else it names; to stewards alone, if that is nobody. */
function withoutNamed(before: BoardColumn, named: readonly Principal[]): RecordChange[] {
  const others = (principals: readonly Principal[] | null) =>
    principals?.filter(each => !named.includes(each)) ?? null
  const after: BoardColumn = {
    ...before,
    viewers: others(before.viewers),
    editors: others(before.editors),
  }
  const isNamed = [...(before.viewers ?? []), ...(before.editors ?? [])].some(each => named.includes(each))
  return isNamed ? [{ table: 'columns', id: before.id, before, after }] : []
}
