import { placeOf } from '../../access/place.ts'
import { mayPublish } from '../../access/public.ts'
import { rowOf } from '../../base/collection.ts'
import type { Guard } from './guard.ts'

/** What comes to be published may be by the policies, and lies in no archive nor in the bin: by whatever edit. */
export const publishing: Guard = ({ changes, after }) => {
  for (const change of changes) {
    if (change.table !== 'nodes' || change.before?.web === 'published') continue
    if (rowOf(after.state.nodes, change.id)?.web !== 'published') continue
    const place = placeOf(after, change.id)
    if (place === undefined) continue
    if (!mayPublish(after.state, place.path)) return { code: 'publishing-off' }
    if ((place.archivedAt ?? place.binnedAt) !== undefined)
      return { code: 'action-missing', action: 'publish', node: change.id }
  }
  return undefined
}
