import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import { type Action, type ActionSet, beyond, has, intersect, noActions, without } from '../levels/action.ts'
import type { Grant, Limit } from '../rules/access-entry.ts'
import { partsOf } from '../rules/principal.ts'
import { type Snapshot, type State, workspaceOf } from '../state/state.ts'
import { inArchive } from '../access/evaluate.ts'
import { givenTo, holdsBack } from '../access/matching.ts'
import { type EffectiveGrant, type Place, placeOf } from '../access/place.ts'
import { type Subject, subjectOf } from '../access/subject.ts'

/** The sum behind what a person may do at a place, as data: what adds up, then each step that takes away. */
export interface Explanation {
  readonly person: PersonId
  readonly node: NodeId
  readonly grants: readonly Part[]
  /** Would count if inheritance were not broken at `breakAt`. */
  readonly keptOut: readonly Part[]
  readonly breakAt: NodeId | null
  readonly given: ActionSet
  readonly steps: readonly Step[]
  readonly result: ActionSet
}

/** One grant that matches, and how the person comes by it. */
export interface Part {
  readonly grant: Grant
  readonly actions: ActionSet
  readonly through:
    { readonly kind: 'name' | 'everyone' } | { readonly kind: 'team' | 'leads'; readonly team: TeamId }
}

export type Step = { readonly takes: readonly Action[]; readonly leaves: ActionSet } & (
  | { readonly kind: 'limit'; readonly limit: Limit }
  | { readonly kind: 'guest ceiling' | 'draft' }
  | { readonly kind: 'archive' | 'bin'; readonly at: NodeId }
  | { readonly kind: 'not active'; readonly status: Subject['person']['status'] }
)

/**
 * `undefined` if the person or the node is unknown. Its result is what `check` answers, except for
 * people not yet active, who are answered as if they were, with that as the last step.
 */
export function why(snapshot: Snapshot, person: PersonId, node: NodeId): Explanation | undefined {
  const subject = subjectOf(snapshot, person)
  const place = placeOf(snapshot, node)
  if (subject === undefined || place === undefined) return undefined
  const given = givenTo(subject, place.grants)
  const steps: Step[] = []
  for (const step of stepsFor(snapshot, subject, place)) {
    const before = steps.at(-1)?.leaves ?? given
    const leaves = step.leave(before)
    if (leaves !== before) steps.push({ ...step.reason, takes: beyond(before, leaves), leaves })
  }
  return {
    person,
    node,
    grants: partsFor(subject, place.grants),
    keptOut: partsFor(subject, place.keptOut),
    breakAt: place.breakAt?.id ?? null,
    given,
    steps,
    result: steps.at(-1)?.leaves ?? given,
  }
}

type Reason = Step extends infer Each ? (Each extends Step ? Omit<Each, 'takes' | 'leaves'> : never) : never

interface Cap {
  readonly reason: Reason
  readonly leave: (before: ActionSet) => ActionSet
}

/** Everything that can take away, in the order in which the model applies it. */
function stepsFor(snapshot: Snapshot, subject: Subject, place: Place): Cap[] {
  const given = givenTo(subject, place.grants)
  const caps: Cap[] = place.limits
    .filter(limit => holdsBack(limit, subject, given))
    .map(limit => ({ reason: { kind: 'limit', limit }, leave: before => intersect(before, limit.allows) }))
  if (subject.isGuest)
    caps.push({
      reason: { kind: 'guest ceiling' },
      leave: before => intersect(before, guestCeiling(snapshot.state)),
    })
  caps.push({
    reason: { kind: 'draft' },
    leave: before => (hidesAsDraft(subject, place, before) ? noActions : before),
  })
  if (place.archivedAt !== undefined)
    caps.push({
      reason: { kind: 'archive', at: place.archivedAt.id },
      leave: before => intersect(before, inArchive),
    })
  if (place.binnedAt !== undefined)
    caps.push({ reason: { kind: 'bin', at: place.binnedAt.id }, leave: () => noActions })
  if (!subject.isActive)
    caps.push({ reason: { kind: 'not active', status: subject.person.status }, leave: () => noActions })
  return caps
}

const partsFor = (subject: Subject, grants: readonly EffectiveGrant[]): Part[] =>
  grants
    .filter(each => subject.principals.has(each.grant.principal))
    .map(each => ({ ...each, through: throughOf(each.grant) }))

function throughOf(grant: Grant): Part['through'] {
  const parts = partsOf(grant.principal)
  if (parts.kind === 'team' || parts.kind === 'leads') return { kind: parts.kind, team: parts.team }
  return { kind: parts.kind === 'person' ? 'name' : 'everyone' }
}

/** The workspace's ceiling; share, seal and publish are never a guest's. */
const guestCeiling = (state: State): ActionSet => without(workspaceOf(state).guestCeiling, 'share')

/** A draft hides itself, only itself, from those who could neither change nor share it nor made it. */
function hidesAsDraft(subject: Subject, place: Place, held: ActionSet): boolean {
  if (!place.node.draft || has(held, 'change') || has(held, 'share')) return false
  return !(place.node.maker === subject.person.id && has(held, 'add'))
}
