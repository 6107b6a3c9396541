import type { RefusalCode } from '#core/changes/refusal.ts'

interface Kind {
  readonly status: number
  readonly title: string
  readonly detail: string
}

/** Refusals of the core bring their own sentences; these are the server's. */
export const serverProblems = {
  'bad-input': {
    status: 400,
    title: 'Something in this request is not right.',
    detail: 'Correct the fields that are named, and send it again.',
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
    detail: 'Sign in and try again. Nothing you typed is lost.',
  },
  'wrong-sign-in': {
    status: 401,
    title: 'The address or the password is wrong.',
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
    detail: 'Check the address, or ask the person who gave it to you.',
  },
  'access-suspended': {
    status: 403,
    title: 'Your access to this workspace is suspended.',
    detail: 'Your roles, teams and grants are kept. Ask the people who run the workspace to reactivate you.',
  },
  'access-ended': {
    status: 403,
    title: 'Your access to this workspace has ended.',
    detail: 'Ask the people who run the workspace if you need it again.',
  },
  'access-not-started': {
    status: 403,
    title: 'Your access to this workspace has not started yet.',
    detail: 'Come back on the first day that your invitation names.',
  },
  'dead-link': {
    status: 404,
    title: 'This link does not work any more.',
    detail: 'Ask the person who gave it to you for a new one.',
  },
  'two-step': {
    status: 401,
    title: 'Two-step sign-in: a code is needed.',
    detail: 'Enter the code that your app shows now, or one of your recovery codes.',
  },
  'wrong-code': {
    status: 401,
    title: 'This code is wrong or was already used.',
    detail: 'Wait for the next code and enter that, or one of your recovery codes.',
  },
  'two-step-needed': {
    status: 403,
    title: 'This workspace requires two-step sign-in for your role.',
    detail: 'Set it up under “Your account”, then open the workspace again.',
  },
  'two-step-first': {
    status: 409,
    title: 'You hold one of these roles and have not set up two-step sign-in yourself.',
    detail: 'Set it up under “Your account” first, so that you are not locked out.',
  },
  'two-step-there': {
    status: 409,
    title: 'Two-step sign-in is already set up.',
    detail: 'Turn it off first, then set it up again.',
  },
  'address-not-confirmed': {
    status: 403,
    title: 'Your address is not confirmed yet.',
    detail: 'Under “Your account”, send a mail to it and open the link in that mail.',
  },
  'sign-in-throttled': {
    status: 429,
    title: 'Too many wrong tries for this address.',
    detail: 'Wait a few minutes and try again, or have a link sent to you.',
  },
  'file-too-large': {
    status: 413,
    title: 'This file is larger than files may be in this workspace.',
    detail: 'Make it smaller or split it, or ask the people who run the workspace to allow larger files.',
  },
  'storage-full': {
    status: 507,
    title: 'There is no room left for this file.',
    detail: 'Delete large or old files for good, or ask the people who run the workspace for more room.',
  },
  'wrong-offset': {
    status: 409,
    title: 'The upload has come to another point than this.',
    detail: 'Ask how far it has come, and go on from there.',
  },
  'many-open-uploads': {
    status: 429,
    title: 'You have too many files on their way at once.',
    detail: 'Wait until some have arrived, or give some up.',
  },
  'many-uploads': {
    status: 429,
    title: 'You have sent very many files in this hour.',
    detail: 'Go on in the next hour.',
  },
  'look-only': {
    status: 403,
    title: 'You can look at this file here, and not take it.',
    detail: 'To take it you need Reader. Ask somebody who shares this place.',
  },
  'no-range': {
    status: 416,
    title: 'The file has no such part.',
    detail: 'Ask for a part that lies within its size.',
  },
  'wrong-picture': {
    status: 422,
    title: 'This is not a picture that can be read.',
    detail: 'Choose a PNG, JPEG, WebP, GIF or AVIF of at most 8 MB.',
  },
  'guests-make-none': {
    status: 403,
    title: 'Only members can create workspaces.',
    detail: 'Ask a member to create one and to invite you.',
  },
  'weak-password': {
    status: 422,
    title: 'This password is too easy to guess.',
    detail: 'Use at least 12 characters that are hard to guess.',
  },
  'session-over': {
    status: 403,
    title: 'This session has ended.',
    detail: 'Start another one, with a reason.',
  },
  'does-not-fit': {
    status: 409,
    title: 'This change does not apply any more: what it changes was deleted, or changed in another way.',
    detail: 'Remove it from the draft. If you still want it, make the change again.',
  },
  'not-draftable': {
    status: 422,
    title: 'This cannot be added to a draft.',
    detail: 'Do it directly. A draft holds at most 200 acts.',
  },
  'not-a-recipient': {
    status: 422,
    title: 'This person cannot apply these changes, or you do not know them.',
    detail: 'Choose one of the people in the list.',
  },
  'already-set-up': {
    status: 409,
    title: 'This Noskel already has a workspace.',
    detail: 'Sign in to it.',
  },
  'no-comments': {
    status: 403,
    title: 'You cannot comment here.',
    detail: 'Request access, or ask a steward of this place to make you a Commenter.',
  },
  'comment-answered': {
    status: 409,
    title: 'Somebody has replied to this comment.',
    detail: 'What others replied to stays as it was. Write another comment.',
  },
  'many-comments': {
    status: 429,
    title: 'There are too many comments here, or you wrote too many in an hour.',
    detail: 'Wait a while, or write at another place.',
  },
  'many-views': {
    status: 409,
    title: 'You keep a hundred views of your own on this board.',
    detail: 'Delete some of them first.',
  },
  'cells-refused': {
    status: 409,
    title: 'Some of these cells cannot be written.',
    detail: 'Nothing was changed. Correct the cells that are named, or write only those that can be.',
  },
  'cells-changed': {
    status: 409,
    title: 'Somebody else wrote in these cells meanwhile.',
    detail: 'Nothing was changed. Compare what stands there now, and write yours again if it should stand.',
  },
  'text-changed': {
    status: 409,
    title: 'Somebody changed this page in the meantime.',
    detail: 'Read their version, then save yours again.',
  },
  'preview-changed': {
    status: 409,
    title: 'Something changed in the meantime: this would now do something else.',
    detail: 'Nothing was changed. See what it would do now, then decide again.',
  },
  'too-many': {
    status: 429,
    title: 'Too many tries in a short time.',
    detail: 'Wait a minute and try again.',
  },
  'takes-too-long': {
    status: 422,
    title: 'This takes too long to be done at once.',
    detail: 'Nothing was changed. Do it in parts, one after another.',
  },
  'busy-with-yours': {
    status: 429,
    title: 'Two of your large changes are already in progress.',
    detail: 'Wait until one is done, or stop one, then try again.',
  },
  'others-changed': {
    status: 409,
    title: 'Others changed this workspace while your change was prepared.',
    detail: 'Nothing was changed. Try again later, or do it in smaller parts.',
  },
  'many-mails': {
    status: 429,
    title: 'You have sent as many mails as one person may in an hour.',
    detail: 'Nothing was changed. Continue in an hour, or do it without mails.',
  },
  'many-requests': {
    status: 429,
    title: 'You have made too many requests in an hour.',
    detail: 'Wait for the answers, or continue in an hour.',
  },
  'many-pictures': {
    status: 429,
    title: 'You have uploaded too many pictures in an hour.',
    detail: 'Use one of those, or continue in an hour.',
  },
  'many-previews': {
    status: 429,
    title: 'Too many previews of yours are being made at once.',
    detail: 'Wait until some of them are there, and try again.',
  },
  'many-zips': {
    status: 429,
    title: 'Two ZIP files are already being made for you.',
    detail: 'Wait until one is there, or stop one, then try again.',
  },
  'zip-too-large': {
    status: 422,
    title: 'There is too much in this place for one ZIP file.',
    detail: 'Take the folders in it one by one: 20,000 places go into one.',
  },
  'no-preview': {
    status: 422,
    title: 'There is no such page of this file to look at.',
    detail: 'Ask what can be seen of it first: its preview says so.',
  },
  'many-drafts': {
    status: 429,
    title: 'You have too many draft changes.',
    detail: 'Discard those that nobody needs, or continue in an hour.',
  },
  'many-comers': {
    status: 429,
    title: 'Too many people have used this link in an hour.',
    detail: 'Try again in an hour, or ask the person who gave you the link.',
  },
  'reads-only': {
    status: 503,
    title: 'This server only answers questions.',
    detail: 'Nothing was changed. Do it at the address by which people reach the workspace.',
  },
  'many-streams': {
    status: 429,
    title: 'You have Noskel open in ten places already.',
    detail: 'Close it somewhere else. Here it works without live updates.',
  },
  fault: {
    status: 500,
    title: 'Something went wrong on our side.',
    detail: 'Nothing was changed. Try again. If it happens again, tell the person who runs this Noskel.',
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
  'wrong-settings': 400,
  'in-use': 409,
  locked: 422,
  'no-seat': 409,
  'kept-by-directory': 403,
  'has-steward': 409,
  private: 403,
  'not-asked-for': 422,
  'handover-over': 409,
  'reason-missing': 422,
  'too-early': 409,
  'not-active': 403,
  'too-much': 422,
  'nothing-to-undo': 409,
  'asked-too-much': 429,
  'never-undone': 422,
}

export const problemType = (code: ServerProblem | RefusalCode): string => `urn:noskel:problem:${code}`
