import { isIPv6 } from 'node:net'
import { parse } from 'cookie'
import type { Request, Response } from 'express'
import type { Parts } from '../parts.ts'
import { deviceToken, type Held, isDeviceOf, type Whence } from '../services/account/throttle.ts'
import { cookieName, cookieOf } from './session.ts'

/** Browsers are used by some people, not by many. */
const devicesAtMost = 5
const keptFor = 365 * 86_400_000

/** Of somebody who is not signed in: their network, and the devices they show. */
export const whenceOf = (parts: Parts, request: Request): Whence => ({
  place: `network ${networkOf(request.ip ?? '')}`,
  devices: devicesIn(parts, request),
})

/** Of somebody who is signed in: nobody else is there. */
export const signedInAt = (request: Request): Whence => ({
  place: `sign-in ${request.sessionID}`,
  devices: [],
})

/** Who can have one address has the next ones too: 256 of the old kind, a whole link of the new one. */
function networkOf(address: string): string {
  const plain = address.startsWith('::ffff:') ? address.slice(7) : address
  if (!isIPv6(plain)) return plain.split('.').slice(0, 3).join('.')
  const [head = '', tail = ''] = plain.split('::')
  const groups = head.split(':').filter(Boolean)
  const filled = plain.includes('::')
    ? [...groups, ...Array<string>(8 - groups.length - tail.split(':').filter(Boolean).length).fill('0')]
    : groups
  return filled.slice(0, 4).join(':')
}

const devicesIn = (parts: Parts, request: Request): string[] =>
  (parse(request.headers.cookie ?? '')[cookieName(parts, 'devices')] ?? '').split('~').filter(Boolean)

/** Remembers at the browser that an account was signed in there. */
export function rememberDevice(
  parts: Parts,
  { request, response }: { readonly request: Request; readonly response: Response },
  account: Held,
): void {
  const devices = devicesIn(parts, request)
  if (devices.some(each => isDeviceOf(parts, account, each))) return
  const kept = [deviceToken(parts, account), ...devices].slice(0, devicesAtMost)
  response.cookie(cookieName(parts, 'devices'), kept.join('~'), {
    ...cookieOf(parts),
    maxAge: keptFor,
  })
}
