import type { Parts } from '../../parts.ts'
import { accessView } from '../../services/access/access.ts'
import { accessiblePlaces } from '../../services/access/accessible-places.ts'
import { type Asker, checking } from '../../services/viewer/asker.ts'
import { explanationView } from '../../services/access/explanation.ts'
import { grantsOverview, accessToCopy } from '../../services/access/grants-overview.ts'
import { ownAccessView } from '../../services/access/own-access.ts'
import { diffView, snapshotOfPast } from '../../services/oversight/past.ts'
import {
  checkView,
  placesToCheck,
  placesOfPersonView,
  peopleWithAccessView,
} from '../../services/viewer/questions.ts'
import { whyNotView } from '../../services/access/remedies.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** The questions of the access model, each about now or, where it says so, about a past instant. */
export const accessHandlers = (parts: Parts) => {
  const askerAt = async (asker: Asker, at: string | undefined) => {
    const who = checking(parts, asker)
    const snapshot = at === undefined ? who.snapshot : await snapshotOfPast(parts, who, Number(at))
    return { asker: who, snapshot }
  }
  return {
    access: (asker, { params }) => accessView(asker, params.id),
    ownAccess: (asker, { params }) => ownAccessView(checking(parts, asker), params.id),
    accessToCopy: (asker, { params, query }) => accessToCopy(asker, params.id, query),
    explanation: (asker, { params }) => explanationView(checking(parts, asker), params.id, params.person),
    whyNot: (asker, { params }) => whyNotView(checking(parts, asker), params, parts.clock),
    peopleWithAccess: async (asker, { params, query: { at, ...page } }) =>
      peopleWithAccessView(await askerAt(asker, at), params.id, page),
    accessOfPerson: (asker, { params }) => accessiblePlaces(parts, checking(parts, asker), params.id),
    placesOfPerson: async (asker, { params, query: { at, ...page } }) =>
      placesOfPersonView(parts, await askerAt(asker, at), { id: params.id, page }),
    grants: (asker, { query }) => grantsOverview(asker, query),
    check: (asker, { body }) => checkView(asker, body),
    placesToCheck: (asker, { query }) => placesToCheck(checking(parts, asker), query.find),
    diff: (asker, { query }) => diffView(parts, asker, query),
  } satisfies Partial<WorkspaceHandlers>
}
