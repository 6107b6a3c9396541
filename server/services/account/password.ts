import { hash, verify } from '@node-rs/argon2'
import { passwordFault, passwordFaults, type PasswordOf } from '#contract/password.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { AccountRow } from '../../store/tables.ts'
import { workspacesOf } from '../viewer/workspaces-of.ts'

/** Throws, with the reason in words, for a password that is too easy to guess. */
export function checkStrength(password: string, of: PasswordOf): void {
  const fault = passwordFault(password, of)
  if (fault !== undefined)
    throw problemOf('weak-password', { faults: [{ at: 'password', message: passwordFaults[fault] }] })
}

/** Words that others would try first for an account. */
export async function passwordOf(parts: Parts, { id, mail, name }: AccountRow): Promise<PasswordOf> {
  const here = await workspacesOf(parts, id)
  return { mail, words: [name, ...here.map(each => each.name)] }
}

export const hashOf = (password: string): Promise<string> => hash(password)

/** Takes as long for an address that nobody has as for one that somebody has. */
export async function fits(password: string, passwordHash: string | undefined): Promise<boolean> {
  nobody ??= hash('nobody has this password')
  const matches = await verify(passwordHash ?? (await nobody), password)
  return matches && passwordHash !== undefined
}

let nobody: Promise<string> | undefined
