import { useEffect, useRef } from 'react'
import { Link, useLocation } from 'react-router'
import type { SessionView, WorkspaceView } from '#contract/views.ts'
import { counted, nounFor } from '#core/words/english.ts'
import { Picture, pictureAddress } from '../ui/Picture.tsx'

interface Props {
  readonly workspace: WorkspaceView
  readonly session: SessionView
}

/** The workspace's name at the left of the band: the way to one's other workspaces, and to invitations that wait. */
export function Switcher({ workspace, session }: Props) {
  const details = useRef<HTMLDetailsElement>(null)
  const { pathname } = useLocation()
  const others = session.workspaces.filter(each => each.slug !== workspace.slug)
  const waiting = session.invitations.length
  useEffect(() => {
    if (details.current !== null) details.current.open = false
  }, [pathname])
  return (
    <details ref={details} className="relative flex items-center">
      <summary className="flex h-full cursor-pointer list-none items-center gap-2 text-[1.05rem] font-bold">
        {workspace.picture !== null && (
          <Picture name={workspace.name} src={pictureAddress(workspace.slug, workspace.picture)} size={24} />
        )}
        {workspace.name}
        {waiting > 0 && (
          <span className="bg-primary px-1.5 text-sm text-primary-content tabular-nums">
            {waiting}
            <span className="sr-only"> {nounFor(waiting, 'open invitation', 'open invitations')}</span>
          </span>
        )}
      </summary>
      <nav
        aria-label="Workspaces"
        className="absolute top-full left-0 z-30 w-72 border border-base-content bg-base-100 text-[0.95rem]"
      >
        <Link className="block px-3 py-2 font-semibold hover:bg-base-200" to={`/at/${workspace.slug}`}>
          {workspace.name}
        </Link>
        {others.map(({ slug, name }) => (
          <Link
            key={slug}
            className="block border-t border-base-300 px-3 py-2 hover:bg-base-200"
            to={`/at/${slug}`}
          >
            {name}
          </Link>
        ))}
        <Link className="block border-t border-base-content px-3 py-2 hover:bg-base-200" to="/workspaces">
          {waiting > 0
            ? counted(waiting, 'open invitation', 'open invitations')
            : session.mayMakeWorkspaces
              ? 'All workspaces, or a new one'
              : 'All workspaces'}
        </Link>
      </nav>
    </details>
  )
}
