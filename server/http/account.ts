import { type RequestHandler, Router } from 'express'
import {
  acceptMineRequest,
  accountIdParams,
  accountRequest,
  codeRequest,
  newPasswordRequest,
  newWorkspaceRequest,
  passwordRequest,
} from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import { accountView, changeAccount, changePassword, checkHolder } from '../services/account.ts'
import { accountRow } from '../services/account-row.ts'
import { sendLink } from '../services/account-links.ts'
import { makeWorkspace } from '../services/provisioning.ts'
import { acceptMine } from '../services/invitation.ts'
import { beginTwoStep, confirmTwoStep, endTwoStep } from '../services/two-step.ts'
import { endSignIn, endSignInsBut } from '../services/sign-ins.ts'
import { checked } from './check.ts'
import { noteSecurity } from './security-log.ts'
import { accountOf } from './session.ts'
import { signedInAt } from './whence.ts'

/** What belongs to the holder of an account, in whichever workspaces it is. */
export function accountRoutes(parts: Parts, fewTries: RequestHandler): Router {
  const router = Router()
  router.get('/account', async (request, response) => {
    response.json(await accountView(parts, accountOf(request), request.sessionID))
  })
  router.put('/account', async (request, response) => {
    await changeAccount(parts, accountOf(request), checked(accountRequest, request.body))
    response.json(await accountView(parts, accountOf(request), request.sessionID))
  })
  router.put('/account/password', fewTries, async (request, response) => {
    const body = checked(newPasswordRequest, request.body)
    await changePassword(
      parts,
      {
        id: accountOf(request),
        session: request.sessionID,
        whence: signedInAt(request),
      },
      body,
    )
    noteSecurity(parts, request, { event: 'password changed' })
    response.status(204).end()
  })
  router.post('/account/address', fewTries, async (request, response) => {
    await sendLink(parts, await accountRow(parts, accountOf(request)), 'address')
    response.status(204).end()
  })
  addTwoStep(router, parts, fewTries)
  router.delete('/account/sign-ins', async (request, response) => {
    await endSignInsBut(parts, accountOf(request), request.sessionID)
    response.status(204).end()
  })
  router.delete('/account/sign-ins/:id', async (request, response) => {
    await endSignIn(parts, accountOf(request), checked(accountIdParams, request.params).id)
    response.status(204).end()
  })
  router.post('/account/invitations/:id', async (request, response) => {
    const { agrees } = checked(acceptMineRequest, request.body)
    const { id: invitation } = checked(accountIdParams, request.params)
    response.json(await acceptMine(parts, { account: accountOf(request), invitation, agrees }))
  })
  router.post('/workspaces', fewTries, async (request, response) => {
    const body = checked(newWorkspaceRequest, request.body)
    response.status(201).json(await makeWorkspace(parts, accountOf(request), body))
  })
  return router
}

/** Setting up the second step and ending it. */
function addTwoStep(router: Router, parts: Parts, fewTries: RequestHandler): void {
  router.post('/account/two-step', fewTries, async (request, response) => {
    const account = await accountRow(parts, accountOf(request))
    const body = checked(passwordRequest, request.body)
    await checkHolder(parts, { account, whence: signedInAt(request) }, body)
    response.json(await beginTwoStep(parts, account))
  })
  router.post('/account/two-step/confirm', fewTries, async (request, response) => {
    const account = await accountRow(parts, accountOf(request))
    const codes = await confirmTwoStep(parts, account, {
      code: checked(codeRequest, request.body).code,
      whence: signedInAt(request),
    })
    // Those that were made with the password alone end.
    await endSignInsBut(parts, account.id, request.sessionID)
    noteSecurity(parts, request, { event: 'two-step sign-in set up' })
    response.json({ codes })
  })
  router.post('/account/two-step/end', fewTries, async (request, response) => {
    const account = await accountRow(parts, accountOf(request))
    const body = checked(passwordRequest, request.body)
    await checkHolder(parts, { account, whence: signedInAt(request) }, body)
    await endTwoStep(parts, account)
    noteSecurity(parts, request, { event: 'two-step sign-in ended' })
    response.status(204).end()
  })
}
