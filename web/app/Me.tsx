import { Link, useNavigate } from 'react-router'
import type { WorkspaceView } from '#contract/views.ts'
import { useSignOutMutation } from '../api/api.ts'
import { useAppDispatch, useAppSelector } from '../store/store.ts'
import { chooseTheme, type View } from '../store/view.ts'
import { Picture, pictureAddress } from '../ui/Picture.tsx'

interface Props {
  readonly workspace: WorkspaceView
  readonly isDemo: boolean
}

/** Oneself, at the right of the band: what one may do, the look of this browser, and the way out. */
export function Me({ workspace: { slug, me }, isDemo }: Props) {
  const dispatch = useAppDispatch()
  const theme = useAppSelector(state => state.view.theme)
  const [signOut] = useSignOutMutation()
  const navigate = useNavigate()
  return (
    <div className="flex items-center gap-4 text-sm">
      {isDemo && (
        <Link className="act" to="/mailbox">
          Mailbox
        </Link>
      )}
      <select
        className="select select-xs w-32 border-base-300 bg-base-100 text-sm"
        aria-label="Theme"
        value={theme}
        onChange={event => dispatch(chooseTheme(event.target.value as View['theme']))}
      >
        <option value="system">System theme</option>
        <option value="light">Light theme</option>
        <option value="dark">Dark theme</option>
      </select>
      <Link className="flex items-center gap-2 hover:underline" to={`/at/${slug}/me`}>
        <Picture name={me.name} src={pictureAddress(slug, me.picture)} size={24} />
        <span>
          <strong>{me.name}</strong>
          {me.kind === 'guest' && <span className="quiet"> · guest</span>}
        </span>
      </Link>
      <button type="button" className="act" onClick={() => void signOut().then(() => navigate('/sign-in'))}>
        Sign out
      </button>
    </div>
  )
}
