import { hash, verify } from '@node-rs/argon2'

/** Long enough, and not something that everybody would try first. */
export function isWeak(password: string, mail: string): boolean {
  const plain = password.toLowerCase()
  const own = mail.toLowerCase().split('@')[0] ?? ''
  if (password.length < 12 || new Set(plain).size < 5) return true
  if (own.length >= 4 && plain.replaceAll(own, '').length < 8) return true
  return tooCommon.some(word => plain.replaceAll(word, '').length < 6)
}

const tooCommon = [
  'password',
  'passwort',
  '123456',
  'qwertyuiop',
  'qwerty',
  'letmein',
  'welcome',
  'abcdefgh',
  'iloveyou',
  'noskel',
]

export const hashOf = (password: string): Promise<string> => hash(password)

/** Takes as long for an address that nobody has as for one that somebody has. */
export async function fits(password: string, passwordHash: string | undefined): Promise<boolean> {
  nobody ??= hash('nobody has this password')
  const matches = await verify(passwordHash ?? (await nobody), password)
  return matches && passwordHash !== undefined
}

let nobody: Promise<string> | undefined
