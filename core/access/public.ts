import { rowOf } from '../base/collection.ts'
import type { PersonId } from '../base/ids.ts'
import { has } from '../levels/action.ts'
import { type Moment, type State, workspaceOf } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'
import type { Place } from './place.ts'

/** A visitor without an account, told of in impacts like one person. */
export const theWeb = 'web' as PersonId

/**
 * Whether a visitor without an account may see a place. It must be published, or stand in something that
 * is, with no break, exclusion or draft in between; archives, the bin, limits on everybody and the
 * policies of the workspace and the team keep the web out.
 */
export function isPublic(moment: Moment, place: Place): boolean {
  const { path, archivedAt, binnedAt, limits } = place
  return (
    isPublished(path) &&
    archivedAt === undefined &&
    binnedAt === undefined &&
    mayPublish(moment.state, path) &&
    limits.every(limit => !holdsTheWeb.has(limit.principal) || has(limit.allows, 'see'))
  )
}

function isPublished(path: readonly ContentNode[]): boolean {
  for (const node of path) {
    if (node.web === 'excluded' || node.draft) return false
    if (node.web === 'published') return true
    if (node.broken !== null) return false
  }
  return false
}

/** Limits on somebody or some team are not about visitors. */
const holdsTheWeb: ReadonlySet<string> = new Set(['anyone', 'everyone', 'guests'])

/** The policies of the workspace, and of the team in whose home a path begins. */
export function mayPublish(state: State, path: readonly ContentNode[]): boolean {
  const home = path.find(node => node.home?.of === 'team')?.home
  const team = home?.of === 'team' ? rowOf(state.teams, home.team) : undefined
  return workspaceOf(state).allowsPublishing && team?.allowsPublishing !== false
}
