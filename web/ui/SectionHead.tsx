import type { ReactNode } from 'react'
import { Link, useLocation } from 'react-router'

interface Props {
  readonly title: string
  /** The address of the section; views stand below it, one of them perhaps at it. */
  readonly base: string
  readonly views: readonly { readonly to: string; readonly word: string }[]
  /** Addresses below it that belong to none of the views. */
  readonly beside?: readonly string[]
  readonly children?: ReactNode
}

/** The head of a section's screens, with the ways from one view to another; a single view is not offered. */
export function SectionHead({ title, base, views, beside = [], children }: Props) {
  const { pathname } = useLocation()
  const isAt = (to: string) => pathname.startsWith(`${base}${to}`)
  const isElsewhere = [...views.map(each => each.to), ...beside].some(to => to !== '' && isAt(to))
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <h1 className="text-xl font-bold">{title}</h1>
      {views.length > 1 && (
        <nav aria-label={title} className="flex flex-wrap gap-1">
          {views.map(({ to, word }) => {
            // Something that is looked at in the list is still in the list.
            const isOpen = to === '' ? !isElsewhere : isAt(to)
            return (
              <Link
                key={to}
                to={`${base}${to}`}
                aria-current={isOpen ? 'page' : undefined}
                className={`px-2 py-0.5 ${isOpen ? 'bg-primary/12 font-bold' : 'hover:bg-base-200'}`}
              >
                {word}
              </Link>
            )
          })}
        </nav>
      )}
      {children}
    </div>
  )
}
