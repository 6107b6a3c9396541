import { type RequestHandler, Router } from 'express'
import {
  acceptRequest,
  joinByLinkRequest,
  forgottenRequest,
  setUpRequest,
  signInRequest,
  tokenRequest,
  useLinkRequest,
} from '#contract/requests.ts'
import { closeStreams } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { sessionView, signIn } from '../services/account.ts'
import { linkView, sendForgotten, useLink } from '../services/account-links.ts'
import { setUp } from '../services/provisioning.ts'
import { acceptInvitation, invitationView } from '../services/invitation.ts'
import { joinByLink, joinLinkView } from '../services/join-link.ts'
import { checked } from './check.ts'
import { noteSecurity } from './security-log.ts'
import { begin, cookieName, cookieOf, end } from './session.ts'
import { rememberDevice, whenceOf } from './whence.ts'

/** Everything before one is in a workspace: first start, signing in and out, accepting an invitation. */
export function entryRoutes(parts: Parts, fewTries: RequestHandler): Router {
  const router = Router()
  router.get('/session', async (request, response) => {
    response.json(await sessionView(parts, request.session.account, request.session.csrf ?? ''))
  })
  router.post('/session', fewTries, async (request, response) => {
    const account = await signIn(parts, checked(signInRequest, request.body), whenceOf(parts, request))
    await begin(parts, request, account.id)
    noteSecurity(parts, request, { event: 'signed in' })
    rememberDevice(parts, { request, response }, account)
    response.json(await sessionView(parts, account.id, request.session.csrf ?? ''))
  })
  router.delete('/session', async (request, response) => {
    noteSecurity(parts, request, { event: 'signed out' })
    closeStreams(parts.hub, request.sessionID)
    await end(request)
    response.clearCookie(cookieName(parts, 'session'), cookieOf(parts)).status(204).end()
  })
  router.post('/set-up', fewTries, async (request, response) => {
    const account = await setUp(parts, checked(setUpRequest, request.body))
    await begin(parts, request, account)
    response.status(201).json(await sessionView(parts, account, request.session.csrf ?? ''))
  })
  // Tokens come in the body and not in the address, where logs would keep them.
  router.post('/invitations/read', fewTries, async (request, response) => {
    response.json(await invitationView(parts, checked(tokenRequest, request.body).token))
  })
  router.post('/invitations/accept', fewTries, async (request, response) => {
    const body = checked(acceptRequest, request.body)
    const account = await acceptInvitation(parts, body, {
      whence: whenceOf(parts, request),
      signedInAs: request.session.account,
    })
    await begin(parts, request, account.id)
    noteSecurity(parts, request, { event: 'link used', what: 'invitation' })
    rememberDevice(parts, { request, response }, account)
    response.json(await sessionView(parts, account.id, request.session.csrf ?? ''))
  })
  router.post('/join-links/read', fewTries, (request, response) => {
    response.json(joinLinkView(parts, checked(tokenRequest, request.body).token))
  })
  router.post('/join-links/join', fewTries, async (request, response) => {
    const came = await joinByLink(parts, checked(joinByLinkRequest, request.body), request.session.account)
    noteSecurity(parts, request, { event: 'link used', what: 'join link' })
    response.json(came)
  })
  accountLinkRoutes(router, parts, fewTries)
  return router
}

/** A forgotten password, and the links that are mailed to the holder of an account. */
function accountLinkRoutes(router: Router, parts: Parts, fewTries: RequestHandler): void {
  // Answered before it is known whether somebody has the address: neither the answer nor its time tells.
  router.post('/forgotten', fewTries, (request, response) => {
    const { mail } = checked(forgottenRequest, request.body)
    response.status(204).end()
    sendForgotten(parts, mail).catch((error: unknown) =>
      parts.log.error({ err: error as Error }, 'a link could not be sent'),
    )
  })
  router.post('/account-links/read', fewTries, async (request, response) => {
    response.json(await linkView(parts, checked(tokenRequest, request.body).token))
  })
  router.post('/account-links/use', fewTries, async (request, response) => {
    await useLink(parts, checked(useLinkRequest, request.body))
    noteSecurity(parts, request, { event: 'link used', what: 'account link' })
    response.status(204).end()
  })
}
