import { randomBytes } from 'node:crypto'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { rm, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'

/** The folder with all that this server keeps. Nobody else on the machine reads it. */

export function openDataDir(dataDir: string): void {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 })
  closeToOthers(dataDir)
}

/** What holds very many files, closed since the first of them. */
const madeClosed: ReadonlySet<string> = new Set(['files', 'uploads', 'previews'])

/** Files that were made while others could read new ones, too. */
export function closeToOthers(path: string): void {
  const isFolder = statSync(path).isDirectory()
  chmodSync(path, isFolder ? 0o700 : 0o600)
  if (isFolder && !madeClosed.has(basename(path)))
    for (const name of readdirSync(path)) closeToOthers(join(path, name))
}

export const isSecret = (text: string): boolean => /^[\w-]{43}$/.test(text)

/** Made at first start. Whoever reads it could sign sessions and links. Throws in one sentence if it is broken. */
export function readSecret(dataDir: string): string {
  const file = join(dataDir, 'secret')
  if (!existsSync(file)) {
    // Whole or not at all: half of it, after a crash, would be another secret.
    writeFileSync(`${file}.new`, randomBytes(32).toString('base64url'), { mode: 0o600 })
    renameSync(`${file}.new`, file)
  }
  const secret = readFileSync(file, 'utf8').trim()
  if (!isSecret(secret))
    throw new Error(
      `${file} is empty or broken. Put back the one of your backup; without it nobody is signed in, and links in mails are dead.`,
    )
  return secret
}

/** Whether anything can be written there now: not on a disk that is full or read-only. */
export async function canWriteIn(dataDir: string): Promise<boolean> {
  const file = join(dataDir, 'probe')
  try {
    await writeFile(file, '1', { mode: 0o600 })
    // Asked twice at once, the other one may have taken it away.
    await rm(file, { force: true })
    return true
  } catch {
    return false
  }
}
