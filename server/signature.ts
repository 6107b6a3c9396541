import { createHmac, timingSafeEqual } from 'node:crypto'

/**
 * What a signature covers: what the token is for, in which workspace (empty for what is of none), the id before it, and
 * which of several in turn this one is. So no token opens anything but what it was made for.
 */
export interface Signed {
  readonly purpose: string
  readonly workspace: string
  readonly id: string
  readonly generation: number | string
}

// As JSON: parts that were only put one after another could be cut elsewhere.
export const signatureOf = (secret: string, { purpose, workspace, id, generation }: Signed): string =>
  createHmac('sha256', secret)
    .update(JSON.stringify([purpose, workspace, id, generation]))
    .digest('base64url')

export const tokenOf = (secret: string, signed: Signed): string =>
  `${signed.id}.${signatureOf(secret, signed)}`

/** The id before the signature, of whatever the token is for. */
export const idIn = (token: string): string => token.slice(0, token.indexOf('.'))

/** Whether a token was made for just this; compared in the same time whatever it holds. */
export function isTokenOf(token: string, secret: string, signed: Signed): boolean {
  const [given, expected] = [Buffer.from(token), Buffer.from(tokenOf(secret, signed))]
  return given.length === expected.length && timingSafeEqual(given, expected)
}
