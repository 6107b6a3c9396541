import { Type } from '@sinclair/typebox'
import { changedEvent, liveEvent } from '../live.ts'
import { strict } from '../pieces.ts'
import { liveQuery, placesQuery, searchQuery } from '../requests.ts'
import { bytes, type Route } from '../route.ts'
import { BinnedView, PlaceHit, TreeView } from '../views/content.ts'
import { OnboardingView } from '../views/onboarding.ts'
import { MyAccessView } from '../views/people.ts'
import { SearchView } from '../views/search.ts'
import { TeamView } from '../views/teams.ts'
import { SettingsView, WorkspaceView } from '../views/workspace.ts'

const inside = 'To be in the workspace.'

/** A workspace as one of its people finds it. */
export const workspaceRoutes = {
  workspace: { does: 'The workspace, and who one is in it.', needs: inside, answer: WorkspaceView },
  live: {
    does: 'Tells, as it happens, that something changed for the reader, and of which topics; never what.',
    needs: inside,
    query: liveQuery,
    answer: {
      kind: 'events',
      events: { here: liveEvent, changed: changedEvent, all: liveEvent, gone: liveEvent },
    },
  },
  settings: { does: 'The settings.', needs: 'The privilege to edit settings.', answer: SettingsView },
  onboarding: {
    does: 'Welcome sets and join links.',
    needs: 'A privilege to invite people.',
    answer: OnboardingView,
  },
  myAccess: {
    does: 'What one may do oneself, and where each part of it comes from.',
    needs: inside,
    answer: MyAccessView,
  },
  teams: { does: 'The teams that one knows of.', needs: inside, answer: Type.Array(TeamView) },
  bin: { does: 'What lies in the bin.', needs: inside, answer: Type.Array(BinnedView) },
  tree: { does: 'The places at which one’s tree begins.', needs: inside, answer: TreeView },
  places: {
    does: 'Finds places at which one gives access, by a part of their name.',
    needs: inside,
    query: placesQuery,
    answer: Type.Array(PlaceHit),
  },
  search: {
    does: 'Finds what one may see by its words: places, what is written in them, people and teams.',
    needs: inside,
    query: searchQuery,
    answer: SearchView,
  },
  keepPicture: {
    does: 'Keeps a picture, cut and scaled.',
    needs: inside,
    body: bytes('application/octet-stream'),
    answer: Type.Object({ id: Type.String() }, strict),
    status: 201,
  },
  picture: { does: 'A picture.', needs: inside, answer: bytes('image/webp') },
} as const satisfies Readonly<Record<string, Route>>
