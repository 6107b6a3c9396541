import type { SessionView } from '#contract/views/account.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { nounFor } from '#core/words/english.ts'
import { Picture, pictureAddress } from '../ui/Picture.tsx'

export interface Switching {
  readonly workspace: WorkspaceView
  readonly session: SessionView
}

export const switcherButton = 'text-[1.05rem] font-bold'
export function WorkspaceName({ workspace, session }: Switching) {
  const waiting = session.invitations.length
  return (
    <>
      {workspace.picture !== null && (
        <Picture name={workspace.name} src={pictureAddress(workspace.slug, workspace.picture)} size={24} />
      )}
      {workspace.name}
      {waiting > 0 && (
        <span className="bg-primary px-1.5 text-sm text-primary-content tabular-nums">
          {waiting}
          <span className="sr-only"> {nounFor(waiting, 'open invitation', 'open invitations')}</span>
        </span>
      )}
    </>
  )
}
