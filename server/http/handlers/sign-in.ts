import type { Parts } from '../../parts.ts'
import { closeStreams } from '../../live/hub.ts'
import { sessionView, signIn } from '../../services/account/account.ts'
import { linkView, sendForgotten, followLink } from '../../services/account/account-links.ts'
import { acceptInvitation, invitationView } from '../../services/people/invitation.ts'
import { joinByLink, joinLinkView } from '../../services/people/join-link.ts'
import { mailbox } from '../../services/account/mailbox.ts'
import { setUp } from '../../services/workspace/provisioning.ts'
import { problemOf } from '../../problem-error.ts'
import type { OpenHandlers } from '../mount.ts'
import { description } from '../openapi.ts'
import { noteSecurity } from '../security-log.ts'
import { begin, cookieName, cookieOf, end } from '../session.ts'
import { rememberDevice, whenceOf } from '../whence.ts'

/** Everything before one is in a workspace: first start, signing in and out, links. */
export const signInHandlers = (parts: Parts) =>
  ({
    session: (_, { request }) => sessionView(parts, request.session.account, request.session.csrf ?? ''),
    signIn: async (_, { body, request, response }) => {
      const account = await signIn(parts, body, whenceOf(parts, request))
      await begin(parts, request, account.id)
      noteSecurity(parts, request, { event: 'signed in' })
      rememberDevice(parts, { request, response }, account)
      return sessionView(parts, account.id, request.session.csrf ?? '')
    },
    signOut: async (_, { request, response }) => {
      noteSecurity(parts, request, { event: 'signed out' })
      closeStreams(parts.hub, request.sessionID)
      await end(request)
      response.clearCookie(cookieName(parts, 'session'), cookieOf(parts))
    },
    setUp: async (_, { body, request }) => {
      const account = await setUp(parts, body)
      await begin(parts, request, account)
      return sessionView(parts, account, request.session.csrf ?? '')
    },
    readInvitation: (_, { body }) => invitationView(parts, body.token),
    acceptInvitation: async (_, { body, request, response }) => {
      const account = await acceptInvitation(parts, body, {
        whence: whenceOf(parts, request),
        signedInAs: request.session.account,
      })
      await begin(parts, request, account.id)
      noteSecurity(parts, request, { event: 'link used', what: 'invitation' })
      rememberDevice(parts, { request, response }, account)
      return sessionView(parts, account.id, request.session.csrf ?? '')
    },
    readJoinLink: (_, { body }) => joinLinkView(parts, body.token),
    joinByLink: async (_, { body, request }) => {
      const joined = await joinByLink(parts, body, request.session.account)
      noteSecurity(parts, request, { event: 'link used', what: 'join link' })
      return joined
    },
    // Answered before it is known whether somebody has the address: neither the answer nor its time tells.
    resetPassword: (_, { body }) => {
      sendForgotten(parts, body.mail).catch((error: unknown) =>
        parts.log.error({ err: error as Error }, 'a link could not be sent'),
      )
    },
    readAccountLink: (_, { body }) => linkView(parts, body.token),
    useAccountLink: async (_, { body, request }) => {
      await followLink(parts, body)
      noteSecurity(parts, request, { event: 'link used', what: 'account link' })
    },
    description: () => description,
    mailbox: () => {
      if (!parts.config.isDemo) throw problemOf('not-found')
      return mailbox(parts)
    },
  }) satisfies OpenHandlers
