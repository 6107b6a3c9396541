import type { ReactNode } from 'react'
import { NavLink, useLocation } from 'react-router'
import { useHere } from '../../api/use-here.ts'

const views = [
  { to: '', word: 'List', isForAll: false },
  { to: '/directory', word: 'Directory', isForAll: true },
  { to: '/ways-in', word: 'Ways in', isForAll: false },
]

/** The head of the screens about people, with the ways from one to another. */
export function PeopleHead({ children }: { readonly children?: ReactNode }) {
  const { slug, workspace } = useHere()
  const isKeeper = workspace.keepsPeople
  const { pathname } = useLocation()
  // Somebody who is looked at in the list is still in the list.
  const isInList = !/\/people\/(directory|ways-in|invite|import)/.test(pathname)
  const mayInvite = workspace.me.privileges.some(
    each => each === 'invite members' || each === 'invite guests',
  )
  const shown = views.filter(({ to, isForAll }) => isForAll || (isKeeper && (to !== '/ways-in' || mayInvite)))
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <h1 className="text-xl font-bold">People</h1>
      {shown.length > 1 && (
        <nav aria-label="People" className="flex gap-4">
          {shown.map(({ to, word }) => (
            <NavLink
              key={to}
              to={`/at/${slug}/people${to}`}
              className={({ isActive }) =>
                `border-b-2 pb-px ${(to === '' ? isInList : isActive) ? 'border-primary font-bold' : 'border-transparent'}`
              }
            >
              {word}
            </NavLink>
          ))}
        </nav>
      )}
      {children}
      {mayInvite && (
        <span className="ml-auto flex gap-2">
          <NavLink className="btn-plain" to={`/at/${slug}/people/import`}>
            Bring in a table
          </NavLink>
          <NavLink className="btn-act" to={`/at/${slug}/people/invite`}>
            Invite people
          </NavLink>
        </span>
      )}
    </div>
  )
}
