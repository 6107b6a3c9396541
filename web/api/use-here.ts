import { useParams } from 'react-router'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { useWorkspaceQuery } from './api.ts'

/** The workspace that is open. Used below the shell, which has loaded it. */
export function useHere(): { readonly slug: string; readonly workspace: WorkspaceView } {
  const { slug = '' } = useParams()
  const { currentData: data } = useWorkspaceQuery(slug)
  if (data === undefined) throw new Error('no workspace is open')
  return { slug, workspace: data }
}
