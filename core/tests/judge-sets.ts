import { allRows, rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Edit } from '../changes/edit.ts'
import { allActions, listActions } from '../levels/action.ts'
import type { Membership, Person } from '../people/person.ts'
import { applyChanges, type Snapshot, type RecordChange, type State, workspaceOf } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'
import { judged } from './judge.ts'

/** An allowed change set, and what it made of the world. */
export interface Allowed {
  readonly author: PersonId
  readonly edits: readonly Edit[]
  readonly before: Snapshot
  readonly after: Snapshot
}

/**
 * What of an allowed change set should have been refused, sentence by sentence, written from docs/access-model.md and not
 * from the rules: over plain lists, whole states, and everybody at every place. The engine has to leave this empty.
 */
export function wrongIn(allowed: Allowed): string[] {
  return [
    ...wrongRoot(allowed),
    ...wrongTree(allowed),
    ...wrongWeb(allowed),
    ...wrongGuests(allowed),
    ...wrongTeams(allowed),
    ...wrongRecovery(allowed),
    ...wrongNames(allowed),
  ]
}

/** On the root nothing but grants and limits is ever set. */
const wrongRoot = ({ before, after }: Allowed): string[] =>
  rowOf(before.state.nodes, 'root' as NodeId) === rowOf(after.state.nodes, 'root' as NodeId)
    ? []
    : ['the root was changed']

/** Everything stands under the root; homes stay right there, what is none does not come there. */
const wrongTree = ({ before, after }: Allowed): string[] =>
  allRows(after.state.nodes).flatMap(node => {
    const top = waysUp(after.state, node)
    if (top === undefined) return [`${node.id} stands nowhere, or in itself`]
    const was = rowOf(before.state.nodes, node.id)
    const isMoved = was !== undefined && was.parent !== node.parent
    return isMoved && (node.parent === 'root' || was.parent === 'root')
      ? [`${node.id} was moved to or from the top`]
      : []
  })

/** A place and all above it; `undefined` where that does not end at the root. */
function waysUp(state: State, node: ContentNode): ContentNode[] | undefined {
  const path = [node]
  for (let next = node; next.parent !== null; path.push(next)) {
    const above = rowOf(state.nodes, next.parent)
    if (above === undefined || path.includes(above)) return undefined
    next = above
  }
  return path
}

/** Nothing comes to be published in an archive, in the bin, or against the policies. */
const wrongWeb = ({ before, after: { state } }: Allowed): string[] =>
  allRows(state.nodes).flatMap(node => {
    const isNew = rowOf(before.state.nodes, node.id)?.web !== 'published'
    if (node.web !== 'published' || !isNew) return []
    const path = waysUp(state, node) ?? []
    const teams = path.flatMap(({ home }) => (home?.of === 'team' ? [rowOf(state.teams, home.team)] : []))
    const isOpen =
      workspaceOf(state).allowsPublishing &&
      path.every(each => !each.archived && each.binned === null) &&
      teams.every(team => team?.allowsPublishing === true && !team.archived)
    return isOpen ? [] : [`${node.id} was published where nothing may be`]
  })

/** What no guest may have and had not before. */
function wrongGuests({ before, after }: Allowed): string[] {
  const known = new Set(faultsOfGuests(before.state))
  return faultsOfGuests(after.state).filter(each => !known.has(each))
}

const faultsOfGuests = (state: State): string[] => {
  const isGuest = (id: PersonId) => rowOf(state.persons, id)?.kind === 'guest'
  return [
    ...allRows(state.memberships)
      .filter(({ person }) => isGuest(person))
      .flatMap(({ person, team, lead }) => [
        ...(lead ? [`guest ${person} leads ${team}`] : []),
        ...(rowOf(state.teams, team)?.welcomesGuests === true ? [] : [`guest ${person} is in ${team}`]),
      ]),
    ...allRows(state.holdings).flatMap(({ person, role }) =>
      isGuest(person) && role !== 'role-guest' ? [`guest ${person} holds ${role}`] : [],
    ),
    ...allRows(state.grants).flatMap(({ id, principal, gives }) => {
      if (!principal.startsWith('person:') || !isGuest(principal.slice(7) as PersonId)) return []
      const set = typeof gives === 'number' ? gives : rowOf(state.levels, gives)?.actions
      const held = set === undefined ? [] : listActions(set)
      return allActions
        .filter(each => ['share', 'seal', 'publish'].includes(each) && held.includes(each))
        .map(each => `guest ${principal} is given ${each} by ${id}`)
    }),
  ]
}

/** Who is in a team kept by a directory is the directory's; archiving is for leads and *archive any team*. */
function wrongTeams({ author, edits, before, after }: Allowed): string[] {
  const rows = (state: State) => allRows(state.memberships)
  const kept = (membership: Membership) =>
    rowOf(before.state.teams, membership.team)?.keptByDirectory === true
  // What ends with a person or a team is no change of who is in.
  const isLeaving = edits.some(each => ['person.remove', 'team.delete'].includes(each.kind))
  const withoutLead = (membership: Membership) => JSON.stringify({ ...membership, lead: null })
  const was = new Set(rows(before.state).filter(kept).map(withoutLead))
  const is = new Set(rows(after.state).filter(kept).map(withoutLead))
  const differs = was.size !== is.size || [...was].some(each => !is.has(each))
  const isOwner = allRows(before.state.holdings).some(
    each => each.person === author && each.role === 'role-owner' && isNow(each, before.at),
  )
  const archived = allRows(after.state.teams).filter(team => {
    const earlier = rowOf(before.state.teams, team.id)
    const isLead = rows(before.state).some(
      each => each.team === team.id && each.person === author && each.lead && isNow(each, before.at),
    )
    return earlier !== undefined && earlier.archived !== team.archived && !isLead && !isOwner
  })
  return [
    ...(differs && !isLeaving ? ['who is in a team kept by a directory was changed'] : []),
    ...archived.map(team => `${team.id} was archived or brought back`),
  ]
}

const isNow = (span: Pick<Person, 'from' | 'until'>, at: number) =>
  (span.from ?? 0) <= at && at < (span.until ?? Infinity)

/** Nobody but those who are suspended or removed in the set had share there, before all else of it. */
function wrongRecovery({ edits, before, after }: Allowed): string[] {
  const gone = allRows(before.state.persons).flatMap((was): RecordChange[] => {
    const status = rowOf(after.state.persons, was.id)?.status
    return was.status === 'active' && (status === 'suspended' || status === 'removed')
      ? [{ table: 'persons', id: was.id, before: was, after: { ...was, status } }]
      : []
  })
  const state = applyChanges(before.state, gone)
  return edits.flatMap(edit => {
    if (edit.kind !== 'access.recover') return []
    const somebody = allRows(state.persons).find(({ id }) =>
      judged({ state, at: before.at }, id, edit.node).includes('share'),
    )
    return somebody === undefined ? [] : [`${edit.node} was recovered beside ${somebody.id}`]
  })
}

/** Nobody who was removed is named. */
const wrongNames = ({ after: { state } }: Allowed): string[] =>
  [...allRows(state.grants), ...allRows(state.limits)].flatMap(({ id, principal }) =>
    rowOf(state.persons, principal.slice(7) as PersonId)?.status === 'removed' &&
    principal.startsWith('person:')
      ? [`${id} names somebody who was removed`]
      : [],
  )
