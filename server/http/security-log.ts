import type { Request } from 'express'
import type { Parts } from '../parts.ts'

/** What whoever runs a server watches for. The names stay: alarms hang on them. */
export type SecurityEvent =
  | 'signed in'
  | 'signed out'
  | 'sign-in refused'
  | 'code refused'
  | 'sign-in waits'
  | 'two-step sign-in needed'
  | 'two-step sign-in set up'
  | 'two-step sign-in ended'
  | 'password changed'
  | 'link used'
  | 'link refused'
  | 'privilege refused'
  | 'limit reached'

/** Told whatever the level is, but in silence: never with a password, a code, a token or an address of mail. */
export function noteSecurity(
  { log }: Pick<Parts, 'log'>,
  request: Request,
  { event, ...more }: { readonly event: SecurityEvent; readonly account?: string; readonly what?: string },
): void {
  if (log.level === 'silent') return
  const account = more.account ?? request.session.account
  const { ip, method } = request
  log
    .child({}, { level: 'info' })
    .info({ security: event, account, ip, method, path: request.baseUrl + request.path, ...more }, event)
}

const byProblem: Readonly<Record<string, SecurityEvent>> = {
  'wrong-sign-in': 'sign-in refused',
  'wrong-code': 'code refused',
  'sign-in-throttled': 'sign-in waits',
  'two-step-needed': 'two-step sign-in needed',
  'privilege-missing': 'privilege refused',
  'dead-link': 'link refused',
  'link-over': 'link refused',
  'too-many': 'limit reached',
  'many-mails': 'limit reached',
  'many-requests': 'limit reached',
  'many-pictures': 'limit reached',
  'many-drafts': 'limit reached',
  'many-comers': 'limit reached',
  'many-streams': 'limit reached',
  'busy-with-yours': 'limit reached',
}

/** The event that a refusal is, by its type. */
export const securityEventOf = (type: string): SecurityEvent | undefined =>
  byProblem[type.slice(type.lastIndexOf(':') + 1)]
