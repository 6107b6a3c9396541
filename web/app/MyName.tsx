import type { WorkspaceView } from '#contract/views/workspace.ts'
import { Picture, pictureAddress } from '../ui/Picture.tsx'

export interface Mine {
  readonly workspace: WorkspaceView
  readonly isDemo: boolean
}

export const myButton = 'text-sm'

export const MyName = ({ workspace: { slug, me } }: Pick<Mine, 'workspace'>) => (
  <>
    <Picture name={me.name} src={pictureAddress(slug, me.picture)} size={24} />
    <strong className="max-xl:sr-only">{me.name}</strong>
    {me.kind === 'guest' && <span className="quiet">guest</span>}
    <span className="sr-only">, account and theme</span>
  </>
)
