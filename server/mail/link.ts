import { createHmac, timingSafeEqual } from 'node:crypto'
import type { Invitation } from '#core/people/person.ts'
import type { JoinLink } from '#core/rules/offer.ts'

/**
 * Invitation and join links. A token is an id with a signature over it, so nothing secret lies in the database; that
 * of an invitation covers its issue, so a renewed one kills the links before it. It stands behind the `#` of
 * the address, where no log and no referrer sees it.
 *
 * The link in a mail shows that its user reads that mail; one that is passed on by hand does not. So the two are
 * signed apart.
 */
export type Passed = 'by mail' | 'by hand'

interface Signing {
  readonly baseUrl: string
  readonly secret: string
}

export const invitationLink = (
  { baseUrl, secret }: Signing,
  invitation: Invitation,
  passed: Passed,
): string => `${baseUrl}/join#${invitation.id}.${signatureOf(secret, invitation, passed)}`

export const joinLink = ({ baseUrl, secret }: Signing, { id }: JoinLink): string =>
  `${baseUrl}/come#${id}.${signed(secret, `join link ${id}`)}`

/** The id before the signature, of whatever the token is for. */
export const idIn = (token: string): string => token.slice(0, token.indexOf('.'))

/** How an invitation's token was passed on; `undefined` for one that is not this invitation's. */
export function passedBy(token: string, secret: string, invitation: Invitation): Passed | undefined {
  return (['by mail', 'by hand'] as const).find(passed =>
    isSame(signatureIn(token), signatureOf(secret, invitation, passed)),
  )
}

export const isTokenOfLink = (token: string, secret: string, { id }: JoinLink): boolean =>
  isSame(signatureIn(token), signed(secret, `join link ${id}`))

const signatureIn = (token: string) => token.slice(token.indexOf('.') + 1)

function isSame(a: string, b: string): boolean {
  const [given, expected] = [Buffer.from(a), Buffer.from(b)]
  return given.length === expected.length && timingSafeEqual(given, expected)
}

const signatureOf = (secret: string, { id, issue }: Invitation, passed: Passed): string =>
  signed(secret, `invitation ${passed === 'by mail' ? '' : 'by hand '}${id} ${issue}`)

const signed = (secret: string, what: string): string =>
  createHmac('sha256', secret).update(what).digest('base64url')
