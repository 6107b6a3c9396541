import { useNavigate } from 'react-router'
import { useSignOutMutation } from '../api/api.ts'
import { useAppDispatch, useAppSelector } from '../store/store.ts'
import { chooseTheme } from '../store/view.ts'
import type { Opening } from '../ui/later.tsx'
import { Menu, MenuAct, MenuChoice, MenuLink, MenuRule } from '../ui/Menu.tsx'
import { type Mine, myButton, MyName } from './MyName.tsx'

const themes = { system: 'As the system', light: 'Light', dark: 'Dark' } as const

/** What is one's own, the look of this browser, and the way out. */
export function MeMenu({ workspace, isDemo, isOpen }: Mine & Opening) {
  const dispatch = useAppDispatch()
  const theme = useAppSelector(state => state.view.theme)
  const [signOut] = useSignOutMutation()
  const navigate = useNavigate()
  return (
    <Menu buttonClass={myButton} isOpen={isOpen} button={<MyName workspace={workspace} />}>
      <MenuLink to={`/at/${workspace.slug}/me`}>My access and roles</MenuLink>
      <MenuLink to="/account">My account and sign-in</MenuLink>
      {isDemo && <MenuLink to="/mailbox">Mailbox of the demo</MenuLink>}
      <MenuRule />
      <MenuChoice
        label="Theme"
        values={themes}
        chosen={theme}
        onChoose={chosen => dispatch(chooseTheme(chosen))}
      />
      <MenuRule />
      <MenuAct onAct={() => void signOut().then(() => navigate('/sign-in'))}>Sign out</MenuAct>
    </Menu>
  )
}
