import type { SessionView } from '#contract/views/account.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { counted, nounFor } from '#core/words/english.ts'
import { Menu, MenuLink, MenuRule } from '../ui/Menu.tsx'
import { Picture, pictureAddress } from '../ui/Picture.tsx'

interface Props {
  readonly workspace: WorkspaceView
  readonly session: SessionView
}

/** The workspace's name at the left of the band: the way to one's other workspaces, and to invitations that wait. */
export function Switcher({ workspace, session }: Props) {
  const others = session.workspaces.filter(each => each.slug !== workspace.slug)
  const waiting = session.invitations.length
  return (
    <Menu
      buttonClass="text-[1.05rem] font-bold"
      button={
        <>
          {workspace.picture !== null && (
            <Picture
              name={workspace.name}
              src={pictureAddress(workspace.slug, workspace.picture)}
              size={24}
            />
          )}
          {workspace.name}
          {waiting > 0 && (
            <span className="bg-primary px-1.5 text-sm text-primary-content tabular-nums">
              {waiting}
              <span className="sr-only"> {nounFor(waiting, 'open invitation', 'open invitations')}</span>
            </span>
          )}
        </>
      }
    >
      <MenuLink to={`/at/${workspace.slug}`}>
        <strong>{workspace.name}</strong>
      </MenuLink>
      {others.map(({ slug, name }) => (
        <MenuLink key={slug} to={`/at/${slug}`}>
          {name}
        </MenuLink>
      ))}
      <MenuRule />
      <MenuLink to="/workspaces">
        {waiting > 0
          ? counted(waiting, 'open invitation', 'open invitations')
          : session.mayMakeWorkspaces
            ? 'All workspaces, or a new one'
            : 'All workspaces'}
      </MenuLink>
    </Menu>
  )
}
