import { Type } from '@sinclair/typebox'
import { instant, personKind } from '../terms.ts'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'

/** An invitation that waits for the account's own address. */
export const WaitingInvitation = view('WaitingInvitation', {
  id: Type.String(),
  workspace: Type.String(),
  by: Type.String(),
  as: oneOf('member', 'guest'),
  houseRules: Type.String(),
})
export type WaitingInvitation = View<typeof WaitingInvitation>

/** What the server answers. Sets of actions are their masks: the core puts them into words everywhere. */
export const SessionView = view('SessionView', {
  /** False until the first workspace is created. */
  isSetUp: Type.Boolean(),
  isDemo: Type.Boolean(),
  account: orNull(
    Type.Object(
      {
        name: Type.String(),
        mail: Type.String(),
        /** In which dates are written. */
        language: Type.String(),
        timeZone: orNull(Type.String()),
      },
      strict,
    ),
  ),
  workspaces: Type.Array(Type.Object({ name: Type.String(), slug: Type.String() }, strict)),
  /** Invitations that wait for the address of the account. */
  invitations: Type.Array(WaitingInvitation),
  mayMakeWorkspaces: Type.Boolean(),
  /** To be sent back with every write. */
  csrf: Type.String(),
})
export type SessionView = View<typeof SessionView>

export const InvitationView = view('InvitationView', {
  workspace: Type.String(),
  by: Type.String(),
  mail: Type.String(),
  name: Type.String(),
  as: personKind,
  role: Type.String(),
  message: Type.String(),
  until: instant,
  teams: Type.Array(Type.String()),
  places: Type.Array(
    Type.Object({ name: Type.String(), actions: Type.Number(), until: orNull(instant) }, strict),
  ),
  /** Whether the address has an account: its password is asked for, not a new one. */
  hasAccount: Type.Boolean(),
  /** What is accepted on coming in; empty for nothing. */
  houseRules: Type.String(),
  /** When access to the workspace starts and ends, told in the days of its time zone. */
  accessFrom: orNull(instant),
  accessUntil: orNull(instant),
  timeZone: Type.String(),
})
export type InvitationView = View<typeof InvitationView>

export const MailView = view('MailView', {
  id: Type.String(),
  to: Type.String(),
  subject: Type.String(),
  text: Type.String(),
  at: instant,
})
export type MailView = View<typeof MailView>

export const SignInView = view('SignInView', {
  id: Type.String(),
  isThis: Type.Boolean(),
  /** The browser and the system, as far as it tells. */
  at: Type.String(),
  since: orNull(instant),
  lastUsed: orNull(instant),
})
export type SignInView = View<typeof SignInView>

/** What an account holder is answered about the account: its sign-ins, its second step, its workspaces. */
export const AccountView = view('AccountView', {
  mail: Type.String(),
  name: Type.String(),
  /** Whether it was shown that the address is the holder's. */
  isProven: Type.Boolean(),
  language: Type.String(),
  /** `null` for the browser's own. */
  timeZone: orNull(Type.String()),
  twoStep: orNull(Type.Object({ since: instant, recoveryCodesLeft: Type.Number() }, strict)),
  signIns: Type.Array(SignInView),
})
export type AccountView = View<typeof AccountView>

/** To be kept by an app: shown once, before it counts. */
export const TwoStepView = view('TwoStepView', {
  secret: Type.String(),
  /** A picture as a data address. */
  qr: Type.String(),
})
export type TwoStepView = View<typeof TwoStepView>

export const RecoveryCodesView = view('RecoveryCodesView', { codes: Type.Array(Type.String()) })
export type RecoveryCodesView = View<typeof RecoveryCodesView>

/** What a mailed link opens. */
export const AccountLinkView = view('AccountLinkView', {
  purpose: oneOf('password', 'sign-in', 'address'),
  mail: Type.String(),
  hasTwoStep: Type.Boolean(),
})
export type AccountLinkView = View<typeof AccountLinkView>
