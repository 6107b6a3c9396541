import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto'

/** A text that only a passphrase opens; each part in base64url. */
export interface Sealed {
  readonly salt: string
  readonly nonce: string
  readonly data: string
  readonly tag: string
}

/** Some tenths of a second and 128 MiB for each guess. */
const cost = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 2 ** 20 }
const keyOf = (passphrase: string, salt: Buffer) => scryptSync(passphrase.normalize('NFC'), salt, 32, cost)

export function seal(text: string, passphrase: string): Sealed {
  const salt = randomBytes(16)
  const nonce = randomBytes(12)
  const cipher = createCipheriv('aes-256-gcm', keyOf(passphrase, salt), nonce)
  const data = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
  return {
    salt: salt.toString('base64url'),
    nonce: nonce.toString('base64url'),
    data: data.toString('base64url'),
    tag: cipher.getAuthTag().toString('base64url'),
  }
}

/** `undefined` for another passphrase, or where anything was changed. */
export function unseal({ salt, nonce, data, tag }: Sealed, passphrase: string): string | undefined {
  const bytes = (text: string) => Buffer.from(text, 'base64url')
  const decipher = createDecipheriv('aes-256-gcm', keyOf(passphrase, bytes(salt)), bytes(nonce))
  decipher.setAuthTag(bytes(tag))
  try {
    return Buffer.concat([decipher.update(bytes(data)), decipher.final()]).toString('utf8')
  } catch {
    return undefined
  }
}
