import type { Action } from '#core/levels/action.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { ForeseenView } from './effect-views.ts'
import type { RefusalCode } from '#core/changes/refusal.ts'

/** Every refusal that the server can send (RFC 9457). Codes are permanent; `type` is made from them. */
export interface Problem {
  readonly type: string
  readonly title: string
  readonly status: number
  /** What would work instead. */
  readonly detail: string
  /** The privilege that was lacking: it can be asked for. */
  readonly lacks?: Privilege
  /** The place at which a level was lacking, and the level: it can be asked for there. */
  readonly asks?: { readonly place: string; readonly level: string; readonly action: Action }
  /** For a change set: the edit that was refused, counted from 0. */
  readonly edit?: number
  /** For a change set that would now do something else than its author saw: what it would do. */
  readonly effect?: ForeseenView
  /** What others did meanwhile, as far as the author may know it. */
  readonly meanwhile?: readonly string[]
  /** For input that does not fit: where, and what is wrong there. */
  readonly faults?: readonly { readonly at: string; readonly message: string }[]
}

interface Kind {
  readonly status: number
  readonly title: string
  readonly detail: string
}

/** Refusals of the core bring their own sentences; these are the server's. */
export const serverProblems = {
  'bad-input': {
    status: 400,
    title: 'Something in this request does not fit.',
    detail: 'Correct what is named and send it again.',
  },
  'bad-json': {
    status: 400,
    title: 'The request cannot be read.',
    detail: 'Send a plain address, and JSON in UTF-8.',
  },
  'too-large': { status: 413, title: 'The request is too large.', detail: 'Send it in smaller parts.' },
  'not-signed-in': {
    status: 401,
    title: 'You are not signed in.',
    detail: 'Sign in and try again; nothing you typed is lost.',
  },
  'wrong-sign-in': {
    status: 401,
    title: 'Address and password do not go together.',
    detail: 'Check both and try again.',
  },
  'wrong-origin': {
    status: 403,
    title: 'This request did not come from Noskel’s own pages.',
    detail: 'Reload the page and try again.',
  },
  'not-found': {
    status: 404,
    title: 'There is nothing here that you can open.',
    detail: 'Check the address, or ask whoever gave it to you.',
  },
  'dead-link': {
    status: 404,
    title: 'This link does not work any more.',
    detail: 'Ask whoever gave it to you for a new one.',
  },
  'second-step': {
    status: 401,
    title: 'A second step is asked for.',
    detail: 'Give the code that your app shows now, or one of your recovery codes.',
  },
  'wrong-code': {
    status: 401,
    title: 'This code is not right, or was used already.',
    detail: 'Wait for the next one and give that, or one of your recovery codes.',
  },
  'second-step-needed': {
    status: 403,
    title: 'This workspace asks people with your role for a second step at sign-in.',
    detail: 'Set it up under “Your account”, then open the workspace again.',
  },
  'second-step-first': {
    status: 409,
    title: 'You hold one of these roles and have no second step yourself yet.',
    detail: 'Set yours up under “Your account” first, so that you are not locked out.',
  },
  'second-step-there': {
    status: 409,
    title: 'A second step is set up already.',
    detail: 'Switch it off first, then set it up anew.',
  },
  'address-not-confirmed': {
    status: 403,
    title: 'Nobody has confirmed yet that this address is yours.',
    detail: 'Let a mail be sent to it under “Your account”, and follow its link.',
  },
  'too-slow-down': {
    status: 429,
    title: 'Too many wrong tries for this address.',
    detail: 'Wait a few minutes and try again, or let a link be mailed to you.',
  },
  'wrong-picture': {
    status: 422,
    title: 'This is not a picture that can be read.',
    detail: 'Choose a PNG, JPEG, WebP, GIF or AVIF of at most 8 MB.',
  },
  'guests-make-none': {
    status: 403,
    title: 'Workspaces are made by members.',
    detail: 'Ask somebody who is a member here to make one and invite you.',
  },
  'weak-password': {
    status: 422,
    title: 'This password is too easy to guess.',
    detail: 'Use at least 12 characters that nobody would try first.',
  },
  'look-over': {
    status: 403,
    title: 'This look is over.',
    detail: 'Begin another one, with a reason.',
  },
  'does-not-fit': {
    status: 409,
    title: 'This does not fit any more: what it changes is gone, or was changed otherwise.',
    detail: 'Leave it out, and make it anew if it is still wanted.',
  },
  'not-gathered': {
    status: 422,
    title: 'This cannot be gathered with other changes.',
    detail: 'Do it by itself; a change set holds at most 200 acts.',
  },
  'not-a-taker': {
    status: 422,
    title: 'They could not apply these changes, or you do not know them.',
    detail: 'Choose one of those who may.',
  },
  'already-set-up': {
    status: 409,
    title: 'This Noskel has its workspace already.',
    detail: 'Sign in to it.',
  },
  'text-changed': {
    status: 409,
    title: 'Somebody changed this page meanwhile.',
    detail: 'Look at their version, then save yours again.',
  },
  'effect-changed': {
    status: 409,
    title: 'Something changed meanwhile: this would now do something else.',
    detail: 'Nothing was changed. Look at what it would do now, then decide again.',
  },
  'too-many': {
    status: 429,
    title: 'Too many tries in a short time.',
    detail: 'Wait a minute and try again.',
  },
  'takes-too-long': {
    status: 422,
    title: 'This takes longer than anything may that is done at once.',
    detail: 'Nothing was changed. Do it in parts, one after another.',
  },
  'busy-with-yours': {
    status: 429,
    title: 'Two large changes of yours are being worked out already.',
    detail: 'Wait until one is done, or stop it, then try again.',
  },
  'others-changed': {
    status: 409,
    title: 'Others went on changing this workspace while this was worked out.',
    detail: 'Nothing was changed. Try again in a while, or do it in smaller parts.',
  },
  'many-mails': {
    status: 429,
    title: 'You have caused as many mails as one person may in an hour.',
    detail: 'Nothing was changed. Go on in an hour, or do it without mails.',
  },
  'many-requests': {
    status: 429,
    title: 'You have asked, and taken back, very often within an hour.',
    detail: 'Wait for the answers, or go on in an hour.',
  },
  'many-pictures': {
    status: 429,
    title: 'You have sent very many pictures within an hour.',
    detail: 'Use one of those, or go on in an hour.',
  },
  'many-drafts': {
    status: 429,
    title: 'You have gathered or kept very many changes.',
    detail: 'Drop those that nobody needs, or go on in an hour.',
  },
  'many-comers': {
    status: 429,
    title: 'Very many people have come by this link within an hour.',
    detail: 'Try again in an hour, or ask whoever gave you the link.',
  },
  'many-streams': {
    status: 429,
    title: 'You have this open at ten places at once already.',
    detail: 'Close it somewhere else; here it goes on without telling you what others do.',
  },
  fault: {
    status: 500,
    title: 'Something went wrong on our side.',
    detail: 'Nothing was changed. Try again; if it stays, tell whoever runs this Noskel.',
  },
} as const satisfies Record<string, Kind>

export type ServerProblem = keyof typeof serverProblems

export const refusalStatus: Readonly<Record<RefusalCode, number>> = {
  unknown: 404,
  'action-missing': 403,
  'privilege-missing': 403,
  'lead-missing': 403,
  'gives-more': 403,
  'own-raise': 403,
  'no-steward-left': 409,
  'no-owner-left': 409,
  'own-limit': 403,
  'fixed-place': 422,
  outranked: 403,
  'guest-rule': 422,
  'end-in-past': 422,
  'start-after-end': 422,
  'wrong-place': 422,
  'limits-only': 422,
  'already-there': 409,
  'invitation-over': 409,
  'link-over': 409,
  'house-rules': 422,
  'wrong-handle': 422,
  'domain-not-welcome': 422,
  'not-by-request': 422,
  'not-its-maker': 403,
  'publishing-off': 403,
  'in-use': 409,
  locked: 422,
  'no-seat': 409,
  'kept-by-directory': 403,
  'has-steward': 409,
  private: 403,
  'not-asked-for': 422,
  'handover-over': 409,
  'say-why': 422,
  'too-early': 409,
  'not-active': 403,
  'too-much': 422,
  'nothing-to-undo': 409,
  'asked-too-much': 429,
  'never-undone': 422,
}

export const problemType = (code: ServerProblem | RefusalCode): string => `urn:noskel:problem:${code}`
