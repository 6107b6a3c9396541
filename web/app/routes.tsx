import type { ComponentType } from 'react'
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router'
import { AccessColumn } from '../features/access/AccessColumn.tsx'
import { NoAccess } from '../features/access/NoAccess.tsx'
import { BinScreen } from '../features/content/BinScreen.tsx'
import { ContentScreen } from '../features/content/ContentScreen.tsx'
import { NewHome } from '../features/content/NewHome.tsx'
import { NodeScreen } from '../features/content/NodeScreen.tsx'
import { Workspaces } from '../features/account/Workspaces.tsx'
import { Arrival } from '../features/arrival/Arrival.tsx'
import { AccountLink } from '../features/entry/AccountLink.tsx'
import { ByLink } from '../features/entry/ByLink.tsx'
import { Come } from '../features/entry/Come.tsx'
import { Forgotten } from '../features/entry/Forgotten.tsx'
import { Join } from '../features/entry/Join.tsx'
import { SetUp } from '../features/entry/SetUp.tsx'
import { SignIn } from '../features/entry/SignIn.tsx'
import { Fault } from './Fault.tsx'
import { Front } from './Front.tsx'
import { NothingHere } from './NothingHere.tsx'
import { OnlyWith } from './OnlyWith.tsx'
import { Shell } from './Shell.tsx'

/** A screen that is fetched when somebody first goes there: what everybody meets at once comes alone. */
const screen = (load: () => Promise<ComponentType>) => async () => ({ Component: await load() })

const accountScreen = screen(
  async () => (await import('../features/account/AccountScreen.tsx')).AccountScreen,
)
const historyScreen = screen(
  async () => (await import('../features/history/HistoryScreen.tsx')).HistoryScreen,
)
const mailbox = screen(async () => (await import('../features/mailbox/Mailbox.tsx')).Mailbox)
const noticesScreen = screen(
  async () => (await import('../features/notices/NoticesScreen.tsx')).NoticesScreen,
)
const directoryScreen = screen(
  async () => (await import('../features/people/DirectoryScreen.tsx')).DirectoryScreen,
)
const importScreen = screen(async () => (await import('../features/people/ImportScreen.tsx')).ImportScreen)
const inviteScreen = screen(async () => (await import('../features/people/InviteScreen.tsx')).InviteScreen)
const meScreen = screen(async () => (await import('../features/people/MeScreen.tsx')).MeScreen)
const people = screen(async () => (await import('../features/people/People.tsx')).People)
const waysInScreen = screen(async () => (await import('../features/people/WaysInScreen.tsx')).WaysInScreen)
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
const askedScreen = screen(async () => (await import('../features/roles/AskedScreen.tsx')).AskedScreen)
const looksScreen = screen(async () => (await import('../features/looks/LooksScreen.tsx')).LooksScreen)
const lookScreen = screen(async () => (await import('../features/looks/LookScreen.tsx')).LookScreen)
const teamsScreen = screen(async () => (await import('../features/teams/TeamsScreen.tsx')).TeamsScreen)

const checkScreen = screen(async () => (await import('../features/access/CheckScreen.tsx')).CheckScreen)
const accessAskedScreen = screen(async () => (await import('../features/access/AskedScreen.tsx')).AskedScreen)
const gatheredScreen = screen(
  async () => (await import('../features/access/GatheredScreen.tsx')).GatheredScreen,
)
const placesOf = async () => await import('../features/access/PlacesOfScreen.tsx')
const placesOfPersonScreen = screen(async () => (await placesOf()).PlacesOfPersonScreen)
const placesOfTeamScreen = screen(async () => (await placesOf()).PlacesOfTeamScreen)
const levelsScreen = screen(async () => (await import('../features/roles/LevelsScreen.tsx')).LevelsScreen)

const pages: RouteObject[] = [
  { path: '/', element: <Front /> },
  { path: '/set-up', element: <SetUp /> },
  { path: '/sign-in', element: <SignIn /> },
  { path: '/join', element: <ByLink page={Join} /> },
  { path: '/come', element: <ByLink page={Come} /> },
  { path: '/forgotten', element: <Forgotten /> },
  { path: '/account-link', element: <ByLink page={AccountLink} /> },
  { path: '/account', lazy: accountScreen },
  { path: '/workspaces', element: <Workspaces /> },
  { path: '/mailbox', lazy: mailbox },
  {
    path: '/at/:slug',
    element: <Shell />,
    children: [
      { index: true, element: <Navigate to="content" replace /> },
      {
        path: 'content',
        element: <ContentScreen />,
        children: [
          { index: true, element: <Arrival /> },
          {
            element: <OnlyWith one={['create homes']} />,
            children: [{ path: 'new-home', element: <NewHome /> }],
          },
          { path: 'bin', element: <BinScreen /> },
          { path: ':id', element: <NodeScreen access={AccessColumn} noAccess={NoAccess} /> },
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
      { path: 'people/ways-in', lazy: waysInScreen },
      { path: 'people/ways-in/:id', lazy: waysInScreen },
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
      { path: 'roles/side-by-side', lazy: sideBySideScreen },
      { path: 'roles/levels', lazy: levelsScreen },
      { path: 'roles/asked', lazy: askedScreen },
      { path: 'roles/:id', lazy: rolesScreen },
      { path: 'oversight/looks', lazy: looksScreen },
      { path: 'oversight/looks/:look', lazy: lookScreen },
      { path: 'oversight/looks/:look/:node', lazy: lookScreen },
      { path: 'oversight', element: <Navigate to="check" replace /> },
      { path: 'oversight/check', lazy: checkScreen },
      { path: 'oversight/asked', lazy: accessAskedScreen },
      { path: 'oversight/gathered', lazy: gatheredScreen },
      { path: 'oversight/history', lazy: historyScreen },
      { path: 'oversight/history/:revision', lazy: historyScreen },
      { path: 'notices', lazy: noticesScreen },
      { path: '*', element: <NothingHere /> },
    ],
  },
  { path: '*', element: <NothingHere /> },
]

export const router = createBrowserRouter([
  { errorElement: <Fault />, hydrateFallbackElement: <></>, children: pages },
])
