import { counted } from '#core/words/english.ts'
import type { Opening } from '../ui/later.tsx'
import { Menu, MenuLink, MenuRule } from '../ui/Menu.tsx'
import { switcherButton, type Switching, WorkspaceName } from './WorkspaceName.tsx'

/** One's other workspaces, and invitations that wait. */
export function SwitcherMenu({ workspace, session, isOpen }: Switching & Opening) {
  const others = session.workspaces.filter(each => each.slug !== workspace.slug)
  const waiting = session.invitations.length
  return (
    <Menu
      buttonClass={switcherButton}
      isOpen={isOpen}
      button={<WorkspaceName workspace={workspace} session={session} />}
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
