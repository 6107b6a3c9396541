import { createHmac, timingSafeEqual } from 'node:crypto'
import type { Invitation } from '#core/people/person.ts'

/**
 * Invitation links. The token is the invitation's id with a signature over it and its issue, so nothing
 * secret lies in the database, and a renewed invitation kills the links before it. It stands behind
 * the `#` of the address, where no log and no referrer sees it.
 */
export function invitationLink(baseUrl: string, secret: string, invitation: Invitation): string {
  return `${baseUrl}/join#${invitation.id}.${signatureOf(secret, invitation)}`
}

export const invitationIdIn = (token: string): string => token.slice(0, token.indexOf('.'))

export function isTokenOf(token: string, secret: string, invitation: Invitation): boolean {
  const given = Buffer.from(token.slice(token.indexOf('.') + 1))
  const expected = Buffer.from(signatureOf(secret, invitation))
  return given.length === expected.length && timingSafeEqual(given, expected)
}

const signatureOf = (secret: string, { id, issue }: Invitation): string =>
  createHmac('sha256', secret).update(`invitation ${id} ${issue}`).digest('base64url')
