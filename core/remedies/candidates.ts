import { rowOf, rowsBy } from '../base/collection.ts'
import type { TeamId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import { placeOf } from '../access/place.ts'
import { type Subject, subjectOf } from '../access/subject.ts'
import type { Edit } from '../changes/edit.ts'
import { membershipOf } from '../changes/edits/member.ts'
import { actions, has, holds, union } from '../levels/action.ts'
import { partsOf, personPrincipal } from '../rules/principal.ts'
import type { Snapshot } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'
import type { RemedyQuery } from './why-not.ts'

/**
 * Every single edit that can be a part of letting a person do something at a place: on the place's path, on
 * the person, and on the teams that have grants there. Ids of new things are `new:…`, as in a request.
 */
export function candidateRemedies(snapshot: Snapshot, query: RemedyQuery): Edit[] {
  const place = placeOf(snapshot, query.node)
  const subject = subjectOf(snapshot, query.person)
  if (place === undefined || subject === undefined) return []
  return [
    ...granting(query, subject),
    ...joining(snapshot, query, subject),
    ...loosening(snapshot, query, subject),
    ...place.path.flatMap(node => onNode(snapshot, node, query)),
    ...(subject.person.status === 'suspended'
      ? [{ kind: 'person.reactivate' as const, person: query.person }]
      : []),
  ]
}

/** Just what is asked for, by name, at the place itself. No guest is given stewardship. */
function granting({ person, node, action }: RemedyQuery, { isGuest }: Subject): Edit[] {
  const gives = actions(action)
  if (isGuest && has(gives, 'share')) return []
  const principal = personPrincipal(person)
  return [{ kind: 'grant.add', grant: 'new:grant' as never, node, principal, gives, from: null, until: null }]
}

/** Teams, or their leads, to whom something is given on the path, live now. */
function joining(
  snapshot: Snapshot,
  { person, node }: RemedyQuery,
  { isGuest, principals }: Subject,
): Edit[] {
  const place = placeOf(snapshot, node)
  const wanted = new Map<string, { team: TeamId; lead: boolean }>()
  for (const { grant } of [...(place?.grants ?? []), ...(place?.keptOut ?? [])]) {
    const parts = partsOf(grant.principal)
    if ((parts.kind === 'team' || parts.kind === 'leads') && !principals.has(grant.principal))
      wanted.set(grant.principal, { team: parts.team, lead: parts.kind === 'leads' })
  }
  return [...wanted.values()].flatMap(({ team, lead }): Edit[] => {
    const row = rowOf(snapshot.state.teams, team)
    if (row === undefined || (isGuest && (lead || !row.welcomesGuests))) return []
    const held = membershipOf(snapshot.state, team, person)
    if (held === undefined)
      return [
        {
          kind: 'member.add',
          membership: `new:in-${team}` as never,
          team,
          person,
          lead,
          from: null,
          until: null,
        },
      ]
    return lead && !held.lead ? [{ kind: 'member.change', team, person, lead }] : []
  })
}

/** Each live limit that could hold the person there, opened by just what is asked for. */
function loosening({ state, at }: Snapshot, { node, action }: RemedyQuery, { principals }: Subject): Edit[] {
  const wanted = actions(action)
  const path = placeOf({ state, at }, node)?.path ?? []
  return path
    .flatMap(each => rowsBy(state.limits, 'node', each.id))
    .filter(limit => isLive(limit, at) && principals.has(limit.principal) && !holds(limit.allows, wanted))
    .map(limit => ({ kind: 'limit.change', limit: limit.id, allows: union(limit.allows, wanted) }))
}

/** What of a node's own state keeps somebody out. */
function onNode(snapshot: Snapshot, node: ContentNode, { node: wanted }: RemedyQuery): Edit[] {
  const team = node.home?.of === 'team' ? rowOf(snapshot.state.teams, node.home.team) : undefined
  return [
    ...(node.broken === null ? [] : [{ kind: 'node.restore', node: node.id, drop: 'none' } as const]),
    ...(node.archived ? [{ kind: 'node.state', node: node.id, archived: false } as const] : []),
    ...(node.binned !== null ? [{ kind: 'node.state', node: node.id, binned: false } as const] : []),
    ...(node.draft && node.id === wanted
      ? [{ kind: 'node.state', node: node.id, draft: false } as const]
      : []),
    ...(team?.archived === true ? [{ kind: 'team.archive', team: team.id, archived: false } as const] : []),
  ]
}
