import type { Parts } from '../../parts.ts'
import { accountView, changeAccount, changePassword, checkHolder } from '../../services/account/account.ts'
import { sendLink } from '../../services/account/account-links.ts'
import { accountRow } from '../../services/account/account-row.ts'
import { acceptMine } from '../../services/people/invitation.ts'
import { makeWorkspace } from '../../services/workspace/provisioning.ts'
import { endSignIn, endSignInsBut } from '../../services/account/sign-ins.ts'
import { beginTwoStep, confirmTwoStep, endTwoStep } from '../../services/account/two-step.ts'
import type { AccountHandlers } from '../mount.ts'
import { noteSecurity } from '../security-log.ts'
import { signedInAt } from '../whence.ts'

/** What belongs to the holder of an account, in whichever workspaces it is. */
export const accountHandlers = (parts: Parts) =>
  ({
    account: (id, { request }) => accountView(parts, id, request.sessionID),
    changeAccount: async (id, { body, request }) => {
      await changeAccount(parts, id, body)
      return accountView(parts, id, request.sessionID)
    },
    changePassword: async (id, { body, request }) => {
      const holder = { id, session: request.sessionID, whence: signedInAt(request) }
      await changePassword(parts, holder, body)
      noteSecurity(parts, request, { event: 'password changed' })
    },
    confirmAddress: async id => sendLink(parts, await accountRow(parts, id), 'address'),
    beginTwoStep: async (id, { body, request }) => {
      const account = await accountRow(parts, id)
      await checkHolder(parts, { account, whence: signedInAt(request) }, body)
      return beginTwoStep(parts, account)
    },
    confirmTwoStep: async (id, { body, request }) => {
      const account = await accountRow(parts, id)
      const codes = await confirmTwoStep(parts, account, { code: body.code, whence: signedInAt(request) })
      // Those that were made with the password alone end.
      await endSignInsBut(parts, id, request.sessionID)
      noteSecurity(parts, request, { event: 'two-step sign-in set up' })
      return { codes }
    },
    endTwoStep: async (id, { body, request }) => {
      const account = await accountRow(parts, id)
      await checkHolder(parts, { account, whence: signedInAt(request) }, body)
      await endTwoStep(parts, account)
      noteSecurity(parts, request, { event: 'two-step sign-in ended' })
    },
    endOtherSignIns: (id, { request }) => endSignInsBut(parts, id, request.sessionID),
    endSignIn: (id, { params }) => endSignIn(parts, id, params.id),
    acceptMine: (account, { params, body }) =>
      acceptMine(parts, { account, invitation: params.id, agrees: body.agrees }),
    createWorkspace: (id, { body }) => makeWorkspace(parts, id, body),
  }) satisfies AccountHandlers
