import type { ReactNode } from 'react'
import { NavLink, useLocation } from 'react-router'
import { useHere } from '../../api/use-here.ts'
import { useRoleRequestsQuery } from '../../api/roles.ts'

const views = [
  { to: '', word: 'List' },
  { to: '/privileges', word: 'Privileges' },
  { to: '/side-by-side', word: 'Side by side' },
  { to: '/asked', word: 'Asked for' },
] as const

/** The head of the screens about roles, with the ways from one to another. */
export function RolesHead({ children }: { readonly children?: ReactNode }) {
  const { slug, workspace } = useHere()
  const { data } = useRoleRequestsQuery(slug)
  const { pathname } = useLocation()
  const seesRoles = workspace.me.privileges.includes('view roles')
  const isInList = !/\/roles\/(privileges|side-by-side|asked)/.test(pathname)
  const waiting = data?.toDecide.length ?? 0
  const shown = seesRoles ? views : views.slice(-1)
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <h1 className="text-xl font-bold">Roles</h1>
      <nav aria-label="Roles" className="flex gap-4">
        {shown.map(({ to, word }) => (
          <NavLink
            key={to}
            to={`/at/${slug}/roles${to}`}
            className={({ isActive }) =>
              `border-b-2 pb-px ${(to === '' ? isInList : isActive) ? 'border-primary font-bold' : 'border-transparent'}`
            }
          >
            {word}
            {to === '/asked' && waiting > 0 && ` (${waiting})`}
          </NavLink>
        ))}
      </nav>
      {children}
    </div>
  )
}
