import { Link, Navigate, NavLink, Outlet, useParams } from 'react-router'
import { useSessionQuery, useWorkspaceQuery } from '../api/api.ts'
import { useNotificationsQuery } from '../api/oversight.ts'
import { useAppSelector } from '../store/store.ts'
import { useLive } from '../api/use-live.ts'
import type { SessionView } from '#contract/views/account.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import { type ServerProblem, problemType } from '#contract/problem.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { OwnLevel } from '#core/levels/level.ts'
import { OwnLevels } from '../ui/own-levels.ts'
import { DraftBar } from '../features/access/drafts/DraftBar.tsx'
import { UploadBar } from '../features/uploads/UploadBar.tsx'
import { Commands } from './Commands.tsx'
import { Me } from './Me.tsx'
import { usePageTitle } from './use-page-title.ts'
import { SecondStepNeeded } from './SecondStepNeeded.tsx'
import { Search } from './Search.tsx'
import { Switcher } from './Switcher.tsx'
import { NothingHere } from './NothingHere.tsx'

/** A workspace, once one is signed in and let in; else what stands in its way. */
export function Shell() {
  const { slug = '' } = useParams()
  const { data: session } = useSessionQuery()
  const isSignedIn = session?.account != null
  // What is current: while another workspace loads, nothing of this one is shown.
  const { currentData: workspace, isError, error } = useWorkspaceQuery(slug, { skip: !isSignedIn })
  useLive(slug, isSignedIn && workspace !== undefined && !isError)
  usePageTitle(workspace?.name)
  if (session !== undefined && !isSignedIn)
    return <Navigate to="/sign-in" state={{ then: location.pathname }} replace />
  if (isError)
    return isType(error, 'two-step-needed') ? (
      <SecondStepNeeded />
    ) : (
      <NothingHere problem={error as Problem} />
    )
  return session === undefined || workspace === undefined ? null : (
    <OwnLevels value={workspace.ownLevels as readonly OwnLevel[]}>
      <Frame key={slug} session={session} workspace={workspace} />
    </OwnLevels>
  )
}

interface FrameProps {
  readonly session: SessionView
  readonly workspace: WorkspaceView
}

const opensSettings: ReadonlySet<Privilege> = new Set([
  'edit settings',
  'security',
  'view seats',
  'see storage',
  'own',
])

/** The band along the top with the sections of a workspace, and what is open below it. */
function Frame({ session, workspace }: FrameProps) {
  const { privileges } = workspace.me
  const { managesPeople } = workspace
  return (
    <div className="grid h-dvh grid-rows-[auto_auto_minmax(0,1fr)_auto]">
      <SkipLink />
      <header className="flex min-h-11 flex-wrap items-stretch gap-x-4 border-b border-base-content px-4 max-md:gap-y-2 max-md:pt-2 max-md:pb-1">
        <Switcher workspace={workspace} session={session} />
        <nav
          aria-label="Sections"
          className="flex flex-wrap items-stretch gap-x-4 border-base-300 md:border-l md:pl-4"
        >
          <Section to="content">Content</Section>
          {(privileges.includes('view people') || managesPeople) && <Section to="people">People</Section>}
          <Section to="teams">Teams</Section>
          {privileges.includes('view roles') && <Section to="roles">Roles</Section>}
          <Section to="oversight">Oversight</Section>
          {privileges.some(each => opensSettings.has(each)) && <Section to="settings">Settings</Section>}
        </nav>
        <Search workspace={workspace} />
        <Notifications slug={workspace.slug} />
        <Commands workspace={workspace} />
        <Me workspace={workspace} isDemo={session.isDemo} />
      </header>
      <OnlyOwner workspace={workspace} />
      <Outlet />
      <div>
        <DraftBar />
        <UploadBar />
        <LastMessage slug={workspace.slug} />
      </div>
    </div>
  )
}

/** The first stop of the keyboard: past the band, to what the page is about. Out of the way until it has the focus. */
const SkipLink = () => (
  <button
    type="button"
    className="btn-main fixed top-1 left-1 z-50 not-focus:sr-only"
    onClick={() => {
      const main = document.querySelector<HTMLElement>('main')
      if (main === null) return
      main.tabIndex = -1
      main.focus()
    }}
  >
    Skip to the content
  </button>
)

/** Stands until there is a second owner. */
const OnlyOwner = ({ workspace: { slug, isOnlyOwner } }: { readonly workspace: WorkspaceView }) =>
  isOnlyOwner ? (
    <p className="border-b border-base-300 bg-base-200 px-4 py-1 text-sm">
      <span className="text-warning">You are the only owner.</span> If you cannot sign in any more, nobody can
      manage this workspace.{' '}
      <Link className="link" to={`/at/${slug}/settings/owners`}>
        Add another owner
      </Link>
    </p>
  ) : (
    <span />
  )

const isType = (error: unknown, code: ServerProblem): boolean =>
  (error as { type?: string } | undefined)?.type === problemType(code)

const Section = ({ to, children }: { readonly to: string; readonly children: string }) => (
  <NavLink
    to={to}
    className={({ isActive }) =>
      `flex items-center border-b-3 px-1 pt-[3px] ${isActive ? 'border-primary font-bold' : 'border-transparent'}`
    }
  >
    {children}
  </NavLink>
)

/** The way to what one was told, with how much of it is unread. */
function Notifications({ slug }: { readonly slug: string }) {
  const { data } = useNotificationsQuery(slug)
  const unread = data?.unread ?? 0
  return (
    <NavLink to="notifications" className="flex items-center gap-2 text-sm">
      <span className="hover:underline">Notifications</span>
      {unread > 0 && (
        <span className="bg-primary px-1.5 text-primary-content tabular-nums">
          {unread}
          <span className="sr-only"> unread</span>
        </span>
      )}
    </NavLink>
  )
}

/** What was just done: read out, and shown until the next act, with the way to undo it. */
function LastMessage({ slug }: { readonly slug: string }) {
  const { text, revision } = useAppSelector(state => state.message)
  return (
    <p
      role="status"
      className={text === '' ? 'sr-only' : 'border-t border-base-300 bg-base-200 px-4 py-1 text-sm'}
    >
      {text}{' '}
      {revision !== undefined && (
        <Link className="link" to={`/at/${slug}/oversight/history/${revision}`}>
          Show or undo it
        </Link>
      )}
    </p>
  )
}
