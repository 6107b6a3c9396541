import { useNavigate } from 'react-router'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { useSignOutMutation } from '../api/api.ts'
import { useAppDispatch, useAppSelector } from '../store/store.ts'
import { chooseTheme } from '../store/view.ts'
import { Menu, MenuAct, MenuChoice, MenuLink, MenuRule } from '../ui/Menu.tsx'
import { Picture, pictureAddress } from '../ui/Picture.tsx'

interface Props {
  readonly workspace: WorkspaceView
  readonly isDemo: boolean
}

const themes = { system: 'As the system', light: 'Light', dark: 'Dark' } as const

/** Oneself, at the right of the band: what is one's own, the look of this browser, and the way out. */
export function Me({ workspace: { slug, me }, isDemo }: Props) {
  const dispatch = useAppDispatch()
  const theme = useAppSelector(state => state.view.theme)
  const [signOut] = useSignOutMutation()
  const navigate = useNavigate()
  return (
    <Menu
      buttonClass="text-sm"
      button={
        <>
          <Picture name={me.name} src={pictureAddress(slug, me.picture)} size={24} />
          <strong className="max-xl:sr-only">{me.name}</strong>
          {me.kind === 'guest' && <span className="quiet">guest</span>}
          <span className="sr-only">, account and theme</span>
        </>
      }
    >
      <MenuLink to={`/at/${slug}/me`}>My access and roles</MenuLink>
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
