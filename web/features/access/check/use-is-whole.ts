import { useViewingSessionsQuery } from '../../../api/roles.ts'
import { useHere } from '../../../api/use-here.ts'

/** Whether an answer is about all places: to who may check anyone's access and has a look at the outline open. */
export function useIsWhole(): boolean {
  const { slug, workspace } = useHere()
  const mayCheck = workspace.me.privileges.includes('check access')
  const { data: viewingSessions } = useViewingSessionsQuery(slug, { skip: !mayCheck })
  return mayCheck && viewingSessions?.sessions.some(each => each.isOpen && each.through === null) === true
}
