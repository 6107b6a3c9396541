import { later, LaterButton, type Opening } from '../ui/later.tsx'
import { menuButton, MenuLabel } from '../ui/menu-button.tsx'
import { switcherButton, type Switching, WorkspaceName } from './WorkspaceName.tsx'

const menu = later<Switching & Opening>(async () => (await import('./SwitcherMenu.tsx')).SwitcherMenu)

/** The workspace's name at the left of the band: the way to one's other workspaces, and to invitations that wait. */
export const Switcher = (given: Switching) => (
  <LaterButton part={menu} given={given} className={menuButton(switcherButton)}>
    <MenuLabel>
      <WorkspaceName {...given} />
    </MenuLabel>
  </LaterButton>
)
