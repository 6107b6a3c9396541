import { Type } from '@sinclair/typebox'
import { checkRequest, diffQuery, grantsQuery, pastQuery, placesQuery, takeOverQuery } from '../requests.ts'
import type { Route } from '../route.ts'
import { action } from '../terms.ts'
import {
  AccessiblePlaceView,
  AccessView,
  CopiedAccessView,
  GrantsOverviewView,
  OwnAccessView,
  PersonAccessView,
  PlaceAccessView,
} from '../views/access.ts'
import { PlaceHit } from '../views/content.ts'
import { CheckedView, ExplanationView, WhyNotView } from '../views/explanation.ts'
import { DiffView } from '../views/history.ts'
import { pageOf } from '../views/page.ts'

const seeing = 'To see the place.'
const sharing = 'To share at the place.'
const about = 'To be that person, to share at the place, or the privilege to check access.'

/** The questions of the access model, each about now or, where it says so, about a past instant. */
export const accessRoutes = {
  access: {
    does: 'Who has access at a place: all of it, names, or one’s own, by what one may know.',
    needs: seeing,
    answer: AccessView,
  },
  ownAccess: {
    does: 'The places below that have access of their own.',
    needs: sharing,
    answer: OwnAccessView,
  },
  accessToCopy: {
    does: 'What would be copied here from another place, as edits.',
    needs: 'To share at both.',
    query: takeOverQuery,
    answer: CopiedAccessView,
  },
  explanation: {
    does: 'Why somebody has at a place what they have.',
    needs: about,
    answer: ExplanationView,
  },
  whyNot: {
    does: 'What would let somebody do what they may not, the smallest first.',
    needs: 'To share at the place, or the privilege to check access.',
    params: { action },
    answer: WhyNotView,
  },
  peopleWithAccess: {
    does: 'Everybody with access at a place, now or at an instant.',
    needs: about,
    query: pastQuery,
    answer: pageOf('PersonAccessPage', PersonAccessView),
  },
  accessOfPerson: {
    does: 'Where somebody has access, and by what; places alike counted together.',
    needs: 'To be that person, or to look after them; else as far as one shares.',
    answer: Type.Array(AccessiblePlaceView),
  },
  placesOfPerson: {
    does: 'Every place of somebody, now or at an instant.',
    needs: 'To be that person, or the privilege to check access; else as far as one shares.',
    query: pastQuery,
    answer: pageOf('PlaceAccessPage', PlaceAccessView),
  },
  grants: {
    does: 'What is given at some places, or to a person or team.',
    needs: 'To share there.',
    query: grantsQuery,
    answer: GrantsOverviewView,
  },
  check: {
    does: 'Whether people may what where, many questions at once.',
    needs: 'Each is answered as far as one may know; `null` else.',
    body: checkRequest,
    answer: CheckedView,
  },
  placesToCheck: {
    does: 'Finds places to ask about, by a part of their name.',
    needs: 'To be in the workspace.',
    query: placesQuery,
    answer: Type.Array(PlaceHit),
  },
  diff: {
    does: 'What of anybody’s access differs between two instants.',
    needs: 'To be in the workspace; told as far as the history would be.',
    query: diffQuery,
    answer: DiffView,
  },
} as const satisfies Readonly<Record<string, Route>>
