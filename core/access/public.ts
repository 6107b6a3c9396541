import { rowOf } from '../base/collection.ts'
import { none, read } from '../base/vector.ts'
import {
  type AccessIndex,
  actionsNumbered,
  group,
  inEntry,
  inGroup,
  inSegment,
  principalKind,
  state,
} from '../index/layout.ts'
import { type FoundEntry, isLimit, isLiveEntry, principalOf, someEntry } from '../index/walk.ts'
import type { PersonId } from '../base/ids.ts'
import { has } from '../levels/action.ts'
import { type Snapshot, type State, workspaceOf } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'
import { statesOf } from './evaluate.ts'
import type { Place } from './place.ts'
import { nodeById, type EvaluationContext, evaluationOf } from './evaluation-context.ts'

/** A visitor without an account, told of in impacts like one person. */
export const theWeb = 'web' as PersonId

/**
 * Whether a visitor without an account may see a place. It must be published, or stand in something that
 * is, with no break, exclusion or draft in between; archives, the bin, limits on everybody and the
 * policies of the workspace and the team keep the web out.
 */
export function isPublic(snapshot: Snapshot, place: Place): boolean {
  const evaluation = evaluationOf(snapshot)
  return isPublicIn(evaluation, nodeById(evaluation, place.node.id))
}

/** The same in numbers. Only what lies at heads can open or close it, so the way goes from segment to segment. */
export function isPublicIn(evaluation: EvaluationContext, node: number): boolean {
  const { index } = evaluation
  if (!index.allowsPublishing || !isPublishedAbove(index, read(index.segmentOf, node))) return false
  for (let segment = read(index.segmentOf, node); segment !== none;) {
    const row = segment * inSegment.width
    const bits = statesOf(index, read(index.segments, row + inSegment.state))
    if ((bits & (state.archived | state.binned)) !== 0 || isClosedToWeb(index, bits)) return false
    if (someEntry(index, segment, found => shutsTheWeb(evaluation, found))) return false
    segment = read(index.segments, row + inSegment.up)
  }
  return true
}

function isPublishedAbove({ segments }: AccessIndex, from: number): boolean {
  for (let segment = from; segment !== none;) {
    const row = segment * inSegment.width
    const bits = read(segments, row + inSegment.state)
    if ((bits & (state.excluded | state.draft)) !== 0) return false
    if ((bits & state.published) !== 0) return true
    if ((bits & state.broken) !== 0) return false
    segment = read(segments, row + inSegment.up)
  }
  return false
}

function isClosedToWeb({ groups }: AccessIndex, bits: number): boolean {
  const team = (bits >> state.teamShift) - 1
  return team >= 0 && (read(groups, team * inGroup.width + inGroup.state) & group.closedToWeb) !== 0
}

/** A limit on everybody that leaves nothing to be seen. Limits on somebody or some team are not about visitors. */
function shutsTheWeb({ index, time }: EvaluationContext, found: FoundEntry): boolean {
  const isForAll = (principalOf(found) & 3) === principalKind.all
  if (!isForAll || !isLimit(found) || !isLiveEntry(index, found, time)) return false
  return !has(actionsNumbered(index, found.page[found.at + inEntry.actions] as number), 'see')
}

/** The policies of the workspace, and of the team in whose home a path begins. */
export function mayPublish(state: State, path: readonly ContentNode[]): boolean {
  const home = path.find(node => node.home?.of === 'team')?.home
  const team = home?.of === 'team' ? rowOf(state.teams, home.team) : undefined
  return workspaceOf(state).allowsPublishing && team?.allowsPublishing !== false
}
