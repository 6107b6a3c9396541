import { type RequestHandler, Router } from 'express'
import { acceptRequest, invitationRequest, setUpRequest, signInRequest } from '#contract/requests.ts'
import { closeStreams } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { sessionView, setUp, signIn } from '../services/account.ts'
import { acceptInvitation, invitationView } from '../services/invitation.ts'
import { checked } from './check.ts'
import { begin, end } from './session.ts'

/** Everything before one is in a workspace: first start, signing in and out, accepting an invitation. */
export function entryRoutes(parts: Parts, fewTries: RequestHandler): Router {
  const router = Router()
  router.get('/session', async (request, response) => {
    response.json(await sessionView(parts, request.session.account, request.session.csrf ?? ''))
  })
  router.post('/session', fewTries, async (request, response) => {
    const account = await signIn(parts, checked(signInRequest, request.body))
    await begin(request, account)
    response.json(await sessionView(parts, account, request.session.csrf ?? ''))
  })
  router.delete('/session', async (request, response) => {
    closeStreams(parts.hub, request.sessionID)
    await end(request)
    response.clearCookie('noskel').status(204).end()
  })
  router.post('/set-up', fewTries, async (request, response) => {
    const account = await setUp(parts, checked(setUpRequest, request.body))
    await begin(request, account)
    response.status(201).json(await sessionView(parts, account, request.session.csrf ?? ''))
  })
  // The token comes in the body and not in the address, where logs would keep it.
  router.post('/invitations/look', fewTries, async (request, response) => {
    response.json(await invitationView(parts, checked(invitationRequest, request.body).token))
  })
  router.post('/invitations/accept', fewTries, async (request, response) => {
    const account = await acceptInvitation(parts, checked(acceptRequest, request.body))
    await begin(request, account)
    response.json(await sessionView(parts, account, request.session.csrf ?? ''))
  })
  return router
}
