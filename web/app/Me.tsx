import { later, LaterButton, type Opening } from '../ui/later.tsx'
import { menuButton, MenuLabel } from '../ui/menu-button.tsx'
import { type Mine, myButton, MyName } from './MyName.tsx'

const menu = later<Mine & Opening>(async () => (await import('./MeMenu.tsx')).MeMenu)

/** Oneself, at the right of the band. */
export const Me = (given: Mine) => (
  <LaterButton part={menu} given={given} className={menuButton(myButton)}>
    <MenuLabel>
      <MyName workspace={given.workspace} />
    </MenuLabel>
  </LaterButton>
)
