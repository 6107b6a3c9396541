import { Link, useNavigate } from 'react-router'
import { useSignOutMutation } from '../api/api.ts'
import { useAppDispatch, useAppSelector } from '../store/store.ts'
import { chooseTheme, type View } from '../store/view.ts'

interface Props {
  readonly name: string
  readonly kind: 'member' | 'guest'
  readonly isDemo: boolean
}

/** Oneself, at the right of the band: the look of this browser, and the way out. */
export function Me({ name, kind, isDemo }: Props) {
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
      <label className="flex items-center gap-2">
        <span className="quiet">Look</span>
        <select
          className="select select-xs w-28 border-base-300 bg-base-100 text-sm"
          value={theme}
          onChange={event => dispatch(chooseTheme(event.target.value as View['theme']))}
        >
          <option value="system">as system</option>
          <option value="light">light</option>
          <option value="dark">dark</option>
        </select>
      </label>
      <span>
        <strong>{name}</strong>
        {kind === 'guest' && <span className="quiet"> · guest</span>}
      </span>
      <button type="button" className="act" onClick={() => void signOut().then(() => navigate('/sign-in'))}>
        Sign out
      </button>
    </div>
  )
}
