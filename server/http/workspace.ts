import { type Request, Router } from 'express'
import { idParams, placesQuery, slugParams, textRequest, whyParams } from '#contract/requests.ts'
import { closeStreams } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { accessView } from '../services/access.ts'
import { type Asker, askerOf, checking } from '../services/asker.ts'
import { binView, visibleChildren, goalsFor, nodeView, treeView } from '../services/content.ts'
import { changesWithin } from '../services/place-changes.ts'
import { isSignInOver, notePresence } from '../services/presence.ts'
import { workspaceView } from '../services/workspace.ts'
import { explanationView } from '../services/explanation.ts'
import { saveText, textView } from '../services/text.ts'
import { visiblePlace } from '../services/asker.ts'
import { accessRoutes } from './access.ts'
import { changeRoutes } from './changes.ts'
import { checked } from './check.ts'
import { oversightRoutes } from './oversight.ts'
import { aroundPeopleRoutes, peopleRoutes } from './people.ts'
import { questionRoutes } from './questions.ts'
import { roleRoutes } from './roles.ts'
import { accountOf, end } from './session.ts'

/** Everything within a workspace. Who is asking is settled first, in one place, for every route. */
export function workspaceRoutes(parts: Parts): Router {
  const router = Router({ mergeParams: true })
  const asker = askerIn(parts)
  const id = (request: Request) => checked(idParams, request.params).id

  router.get('/', (request, response) => {
    response.json(workspaceView(asker(request)))
  })
  router.get('/tree', async (request, response) => {
    response.json(await treeView(parts, asker(request)))
  })
  router.get('/nodes/:id', (request, response) => {
    response.json(nodeView(asker(request), id(request)))
  })
  router.get('/nodes/:id/children', (request, response) => {
    const who = asker(request)
    response.json(visibleChildren(who, visiblePlace(who, id(request)).place.node.id))
  })
  router.get('/nodes/:id/changes', async (request, response) => {
    response.json(await changesWithin(parts, asker(request), id(request)))
  })
  router.get('/nodes/:id/move-targets', async (request, response) => {
    const { find } = checked(placesQuery, request.query)
    response.json(await goalsFor(asker(request), id(request), find))
  })
  router.get('/bin', (request, response) => {
    response.json(binView(asker(request)))
  })
  router.get('/nodes/:id/access', async (request, response) => {
    response.json(await accessView(asker(request), id(request)))
  })
  router.get('/nodes/:id/why/:person', (request, response) => {
    const { person } = checked(whyParams, request.params)
    response.json(explanationView(checking(parts, asker(request)), id(request), person))
  })
  router.get('/nodes/:id/text', async (request, response) => {
    response.json(await textView(parts, asker(request), id(request)))
  })
  router.put('/nodes/:id/text', async (request, response) => {
    const who = asker(request)
    const body = checked(textRequest, request.body)
    response.json(await saveText(parts, who, { id: id(request), request: body }))
  })
  router.use(
    changeRoutes(parts, asker),
    oversightRoutes(parts, asker),
    questionRoutes(parts, asker),
    peopleRoutes(parts, asker),
    aroundPeopleRoutes(parts, asker),
    roleRoutes(parts, asker),
    accessRoutes(parts, asker),
  )
  return router
}

/** Who asks, if their sign-in still holds here. */
const askerIn =
  (parts: Parts) =>
  (request: Request): Asker => {
    const found = askerOf(parts, accountOf(request), checked(slugParams, { slug: request.params.slug }).slug)
    const { sessionID: session } = request
    if (isSignInOver(parts, found, { session, madeAt: request.session.madeAt ?? 0 })) {
      closeStreams(parts.hub, session)
      void end(request)
      throw problemOf('not-signed-in')
    }
    notePresence(parts, found, session)
    // Every answer tells of which state it speaks.
    request.res?.set('noskel-revision', String(found.snapshot.state.revision))
    return found
  }
