import { createBrowserRouter, Navigate } from 'react-router'
import { BinScreen } from '../features/content/BinScreen.tsx'
import { ContentScreen } from '../features/content/ContentScreen.tsx'
import { NewHome } from '../features/content/NewHome.tsx'
import { NodeScreen } from '../features/content/NodeScreen.tsx'
import { Welcome } from '../features/content/Welcome.tsx'
import { Join } from '../features/entry/Join.tsx'
import { SetUp } from '../features/entry/SetUp.tsx'
import { SignIn } from '../features/entry/SignIn.tsx'
import { HistoryScreen } from '../features/history/HistoryScreen.tsx'
import { Mailbox } from '../features/mailbox/Mailbox.tsx'
import { NoticesScreen } from '../features/notices/NoticesScreen.tsx'
import { PeopleScreen } from '../features/people/PeopleScreen.tsx'
import { TeamsScreen } from '../features/teams/TeamsScreen.tsx'
import { Front } from './Front.tsx'
import { NothingHere } from './NothingHere.tsx'
import { Shell } from './Shell.tsx'

export const router = createBrowserRouter([
  { path: '/', element: <Front /> },
  { path: '/set-up', element: <SetUp /> },
  { path: '/sign-in', element: <SignIn /> },
  { path: '/join', element: <Join /> },
  { path: '/mailbox', element: <Mailbox /> },
  {
    path: '/at/:slug',
    element: <Shell />,
    children: [
      { index: true, element: <Navigate to="content" replace /> },
      {
        path: 'content',
        element: <ContentScreen />,
        children: [
          { index: true, element: <Welcome /> },
          { path: 'new-home', element: <NewHome /> },
          { path: 'bin', element: <BinScreen /> },
          { path: ':id', element: <NodeScreen /> },
        ],
      },
      { path: 'people', element: <PeopleScreen /> },
      { path: 'people/:id', element: <PeopleScreen /> },
      { path: 'teams', element: <TeamsScreen /> },
      { path: 'teams/:id', element: <TeamsScreen /> },
      { path: 'oversight', element: <Navigate to="history" replace /> },
      { path: 'oversight/history', element: <HistoryScreen /> },
      { path: 'oversight/history/:revision', element: <HistoryScreen /> },
      { path: 'notices', element: <NoticesScreen /> },
      { path: '*', element: <NothingHere /> },
    ],
  },
  { path: '*', element: <NothingHere /> },
])
