import { Type } from '@sinclair/typebox'
import {
  acceptRequest,
  forgottenRequest,
  joinByLinkRequest,
  setUpRequest,
  signInRequest,
  tokenRequest,
  useLinkRequest,
} from '../requests.ts'
import { nothing, type Route } from '../route.ts'
import { AccountLinkView, InvitationView, MailView, SessionView } from '../views/account.ts'
import { JoinedByLinkView, JoinLinkOfferView } from '../views/onboarding.ts'

const anybody = 'Nothing.'
const theLink = 'The token of the link.'

/** Everything before one is in a workspace. Tokens come in the body: logs would keep an address. */
export const signInRoutes = {
  session: {
    does: 'Tells who is signed in here, and the token that every write has to repeat.',
    needs: anybody,
    answer: SessionView,
  },
  signIn: {
    does: 'Signs in with a password, and a code where two-step sign-in is set up.',
    needs: anybody,
    body: signInRequest,
    answer: SessionView,
    isTry: true,
  },
  signOut: { does: 'Ends this sign-in.', needs: anybody, answer: nothing },
  setUp: {
    does: 'Creates the first workspace with its owner.',
    needs: 'That there is no workspace yet.',
    body: setUpRequest,
    answer: SessionView,
    status: 201,
    isTry: true,
  },
  readInvitation: {
    does: 'Tells what an invitation offers.',
    needs: theLink,
    body: tokenRequest,
    answer: InvitationView,
    isTry: true,
  },
  acceptInvitation: {
    does: 'Accepts an invitation, with a new account or an old one.',
    needs: theLink,
    body: acceptRequest,
    answer: SessionView,
    isTry: true,
  },
  readJoinLink: {
    does: 'Tells what a join link leads to.',
    needs: theLink,
    body: tokenRequest,
    answer: JoinLinkOfferView,
    isTry: true,
  },
  joinByLink: {
    does: 'Asks for an invitation by a join link, or joins with the account that is signed in.',
    needs: theLink,
    body: joinByLinkRequest,
    answer: JoinedByLinkView,
    isTry: true,
  },
  resetPassword: {
    does: 'Mails a link for a new password, if the address has an account; answers alike if not.',
    needs: anybody,
    body: forgottenRequest,
    answer: nothing,
    isTry: true,
  },
  readAccountLink: {
    does: 'Tells what a mailed link is for.',
    needs: theLink,
    body: tokenRequest,
    answer: AccountLinkView,
    isTry: true,
  },
  useAccountLink: {
    does: 'Does what a mailed link is for.',
    needs: theLink,
    body: useLinkRequest,
    answer: nothing,
    isTry: true,
  },
  description: {
    does: 'This description of the API, in OpenAPI 3.1.',
    needs: anybody,
    answer: Type.Unsafe<object>({ type: 'object', required: ['openapi', 'paths'] }),
  },
  mailbox: {
    does: 'Every mail that the demo has sent to anybody.',
    needs: 'That this is the demo.',
    answer: Type.Array(MailView),
  },
} as const satisfies Readonly<Record<string, Route>>
