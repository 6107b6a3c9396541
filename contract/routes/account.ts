import { Type } from '@sinclair/typebox'
import { strict } from '../pieces.ts'
import {
  acceptMineRequest,
  accountRequest,
  codeRequest,
  newPasswordRequest,
  newWorkspaceRequest,
  passwordRequest,
} from '../requests.ts'
import { nothing, type Route } from '../route.ts'
import { AccountView, RecoveryCodesView, TwoStepView } from '../views/account.ts'

const signedIn = 'A sign-in.'
const proof = 'A sign-in, and the password anew, with a code where two-step sign-in is set up.'
const intoWorkspace = Type.Object({ slug: Type.String() }, strict)

/** What belongs to the holder of an account, in whichever workspaces it is. */
export const accountRoutes = {
  account: { does: 'One’s own account, with its sign-ins.', needs: signedIn, answer: AccountView },
  changeAccount: {
    does: 'Changes name, language or time zone.',
    needs: signedIn,
    body: accountRequest,
    answer: AccountView,
  },
  changePassword: {
    does: 'Sets another password, which ends all other sign-ins.',
    needs: proof,
    body: newPasswordRequest,
    answer: nothing,
    isTry: true,
  },
  confirmAddress: {
    does: 'Mails a link that confirms the address.',
    needs: signedIn,
    answer: nothing,
    isTry: true,
  },
  beginTwoStep: {
    does: 'Makes a secret for an app of codes.',
    needs: proof,
    body: passwordRequest,
    answer: TwoStepView,
    isTry: true,
  },
  confirmTwoStep: {
    does: 'Sets up two-step sign-in by a first code; answers with recovery codes.',
    needs: signedIn,
    body: codeRequest,
    answer: RecoveryCodesView,
    isTry: true,
  },
  endTwoStep: {
    does: 'Ends two-step sign-in.',
    needs: proof,
    body: passwordRequest,
    answer: nothing,
    isTry: true,
  },
  endOtherSignIns: { does: 'Ends all sign-ins but this one.', needs: signedIn, answer: nothing },
  endSignIn: { does: 'Ends one sign-in.', needs: signedIn, answer: nothing },
  acceptMine: {
    does: 'Accepts an invitation that waits for the address of the account.',
    needs: 'A sign-in, and that the address is confirmed.',
    body: acceptMineRequest,
    answer: intoWorkspace,
  },
  createWorkspace: {
    does: 'Creates a workspace of one’s own.',
    needs: 'A sign-in of somebody who is a member anywhere.',
    body: newWorkspaceRequest,
    answer: intoWorkspace,
    status: 201,
    isTry: true,
  },
} as const satisfies Readonly<Record<string, Route>>
