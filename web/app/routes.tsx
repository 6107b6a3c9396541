import type { ComponentType } from 'react'
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router'
import type { ByLinkProps } from '../features/sign-in/ByLink.tsx'
import { SignIn } from '../features/sign-in/SignIn.tsx'
import { Fault } from './Fault.tsx'
import { Front } from './Front.tsx'
import { NothingHere } from './NothingHere.tsx'
import { OnlyWith } from './OnlyWith.tsx'

/** A screen that is fetched when somebody first goes there: what everybody meets at once comes alone. */
const screen = (load: () => Promise<ComponentType>) => async () => ({ Component: await load() })

/** A page that somebody comes to by a mailed link. */
const byLink = (load: () => Promise<ComponentType<ByLinkProps>>) =>
  screen(async () => {
    const [{ ByLink }, page] = await Promise.all([import('../features/sign-in/ByLink.tsx'), load()])
    return () => <ByLink page={page} />
  })

const setUp = screen(async () => (await import('../features/sign-in/SetUp.tsx')).SetUp)
const join = byLink(async () => (await import('../features/sign-in/Join.tsx')).Join)
const come = byLink(async () => (await import('../features/sign-in/Come.tsx')).Come)
const accountLink = byLink(async () => (await import('../features/sign-in/AccountLink.tsx')).AccountLink)
const forgotten = screen(async () => (await import('../features/sign-in/Forgotten.tsx')).Forgotten)
const workspaces = screen(async () => (await import('../features/account/Workspaces.tsx')).Workspaces)

const shell = screen(async () => (await import('./Shell.tsx')).Shell)
const contentScreen = screen(
  async () => (await import('../features/content/ContentScreen.tsx')).ContentScreen,
)
const arrival = screen(async () => (await import('../features/arrival/Arrival.tsx')).Arrival)
const newHome = screen(async () => (await import('../features/content/NewHome.tsx')).NewHome)
const binScreen = screen(async () => (await import('../features/content/BinScreen.tsx')).BinScreen)
const nodeScreen = screen(async () => {
  const [{ NodeScreen }, { AccessColumn, AccessHere }, { NoAccess }, { LaterBoard, LaterRow }] =
    await Promise.all([
      import('../features/content/NodeScreen.tsx'),
      import('../features/access/here/AccessColumn.tsx'),
      import('../features/access/requests/NoAccess.tsx'),
      import('../features/boards/LaterBoard.tsx'),
    ])
  return () => (
    <NodeScreen
      access={AccessColumn}
      accessHere={AccessHere}
      board={LaterBoard}
      row={LaterRow}
      noAccess={NoAccess}
    />
  )
})

const accountScreen = screen(
  async () => (await import('../features/account/AccountScreen.tsx')).AccountScreen,
)
const historyScreen = screen(
  async () => (await import('../features/history/HistoryScreen.tsx')).HistoryScreen,
)
const mailbox = screen(async () => (await import('../features/mailbox/Mailbox.tsx')).Mailbox)
const notificationsScreen = screen(
  async () => (await import('../features/notifications/NoticesScreen.tsx')).NotificationsScreen,
)
const directoryScreen = screen(
  async () => (await import('../features/people/directory/DirectoryScreen.tsx')).DirectoryScreen,
)
const importScreen = screen(
  async () => (await import('../features/people/coming-in/ImportScreen.tsx')).ImportScreen,
)
const inviteScreen = screen(
  async () => (await import('../features/people/coming-in/InviteScreen.tsx')).InviteScreen,
)
const meScreen = screen(async () => (await import('../features/people/me/MeScreen.tsx')).MeScreen)
const people = screen(async () => (await import('../features/people/directory/People.tsx')).People)
const onboardingScreen = screen(
  async () => (await import('../features/people/coming-in/OnboardingScreen.tsx')).OnboardingScreen,
)
const settingsScreen = screen(
  async () => (await import('../features/settings/SettingsScreen.tsx')).SettingsScreen,
)
const rolesScreen = screen(async () => (await import('../features/roles/RolesScreen.tsx')).RolesScreen)
const privilegesScreen = screen(
  async () => (await import('../features/roles/PrivilegesScreen.tsx')).PrivilegesScreen,
)
const sideBySideScreen = screen(
  async () => (await import('../features/roles/SideBySideScreen.tsx')).SideBySideScreen,
)
const requestsScreen = screen(
  async () => (await import('../features/roles/RequestsScreen.tsx')).RequestsScreen,
)
const viewingSessionsScreen = screen(
  async () => (await import('../features/viewing/ViewingSessionsScreen.tsx')).ViewingSessionsScreen,
)
const viewingScreen = screen(
  async () => (await import('../features/viewing/ViewingScreen.tsx')).ViewingScreen,
)
const teamsScreen = screen(async () => (await import('../features/teams/TeamsScreen.tsx')).TeamsScreen)

const checkScreen = screen(async () => (await import('../features/access/check/CheckScreen.tsx')).CheckScreen)
const accessRequestsScreen = screen(
  async () => (await import('../features/access/requests/RequestsScreen.tsx')).RequestsScreen,
)
const draftScreen = screen(
  async () => (await import('../features/access/drafts/DraftScreen.tsx')).DraftScreen,
)
const placesOf = async () => await import('../features/access/many/PlacesOfScreen.tsx')
const placesOfPersonScreen = screen(async () => (await placesOf()).PlacesOfPersonScreen)
const placesOfTeamScreen = screen(async () => (await placesOf()).PlacesOfTeamScreen)
const searchScreen = screen(async () => (await import('../features/search/SearchScreen.tsx')).SearchScreen)
const levelsScreen = screen(async () => (await import('../features/roles/LevelsScreen.tsx')).LevelsScreen)

const pages: RouteObject[] = [
  { path: '/', element: <Front /> },
  { path: '/set-up', lazy: setUp },
  { path: '/sign-in', element: <SignIn /> },
  { path: '/join', lazy: join },
  { path: '/come', lazy: come },
  { path: '/forgotten', lazy: forgotten },
  { path: '/account-link', lazy: accountLink },
  { path: '/account', lazy: accountScreen },
  { path: '/workspaces', lazy: workspaces },
  { path: '/mailbox', lazy: mailbox },
  {
    path: '/at/:slug',
    lazy: shell,
    children: [
      { index: true, element: <Navigate to="content" replace /> },
      {
        path: 'content',
        lazy: contentScreen,
        children: [
          { index: true, lazy: arrival },
          {
            element: <OnlyWith one={['create homes']} />,
            children: [{ path: 'new-home', lazy: newHome }],
          },
          { path: 'bin', lazy: binScreen },
          { path: ':id', lazy: nodeScreen },
        ],
      },
      { path: 'people', lazy: people },
      {
        element: <OnlyWith one={['invite guests', 'invite members']} />,
        children: [
          { path: 'people/invite', lazy: inviteScreen },
          { path: 'people/import', lazy: importScreen },
        ],
      },
      { path: 'people/onboarding', lazy: onboardingScreen },
      { path: 'people/onboarding/:id', lazy: onboardingScreen },
      { path: 'people/directory', lazy: directoryScreen },
      { path: 'people/directory/:id', lazy: directoryScreen },
      { path: 'people/:id', lazy: people },
      { path: 'people/:id/places', lazy: placesOfPersonScreen },
      { path: 'me', lazy: meScreen },
      { path: 'settings', lazy: settingsScreen },
      { path: 'settings/:part', lazy: settingsScreen },
      { path: 'teams', lazy: teamsScreen },
      { path: 'teams/:id', lazy: teamsScreen },
      { path: 'teams/:id/places', lazy: placesOfTeamScreen },
      { path: 'roles', lazy: rolesScreen },
      { path: 'roles/privileges', lazy: privilegesScreen },
      { path: 'roles/privileges/:id', lazy: privilegesScreen },
      { path: 'roles/matrix', lazy: sideBySideScreen },
      { path: 'roles/levels', lazy: levelsScreen },
      { path: 'roles/requests', lazy: requestsScreen },
      { path: 'roles/:id', lazy: rolesScreen },
      { path: 'oversight/sessions', lazy: viewingSessionsScreen },
      { path: 'oversight/sessions/:session', lazy: viewingScreen },
      { path: 'oversight/sessions/:session/:node', lazy: viewingScreen },
      { path: 'oversight', element: <Navigate to="check" replace /> },
      { path: 'oversight/check', lazy: checkScreen },
      { path: 'oversight/requests', lazy: accessRequestsScreen },
      { path: 'oversight/draft', lazy: draftScreen },
      { path: 'oversight/history', lazy: historyScreen },
      { path: 'oversight/history/:revision', lazy: historyScreen },
      { path: 'search', lazy: searchScreen },
      { path: 'notifications', lazy: notificationsScreen },
      { path: '*', element: <NothingHere /> },
    ],
  },
  { path: '*', element: <NothingHere /> },
]

/** What everybody comes to after signing in: fetched while they are at it. */
export function fetchAhead(): void {
  for (const load of [shell, contentScreen, arrival]) void load()
}

export const router = createBrowserRouter([
  { errorElement: <Fault />, hydrateFallbackElement: <></>, children: pages },
])
