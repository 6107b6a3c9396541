import type { ReactNode } from 'react'
import { NavLink, useParams } from 'react-router'

const views = [
  { to: 'history', word: 'History' },
  { to: 'looks', word: 'Looking' },
]

interface Props {
  /** Whether the reader looks at anything by a privilege, or reads who did. */
  readonly hasLooks?: boolean
  readonly children?: ReactNode
}

/** The head of the screens of oversight, with the ways from one to another. */
export function OversightHead({ hasLooks = true, children }: Props) {
  const { slug = '' } = useParams()
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <h1 className="text-xl font-bold">Oversight</h1>
      {hasLooks && (
        <nav aria-label="Oversight" className="flex gap-4">
          {views.map(({ to, word }) => (
            <NavLink
              key={to}
              to={`/at/${slug}/oversight/${to}`}
              className={({ isActive }) =>
                `border-b-2 pb-px ${isActive ? 'border-primary font-bold' : 'border-transparent'}`
              }
            >
              {word}
            </NavLink>
          ))}
        </nav>
      )}
      {children}
    </div>
  )
}
