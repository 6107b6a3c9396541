import { existsSync, readdirSync } from 'node:fs'
import { mkdir, mkdtemp, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { closeToOthers, isSecret } from '../data-dir.ts'
import { lockDataDir } from '../store/dialects/sqlite/lock.ts'
import { Broken, dropFolder, type Manifest, manifestName, unpackInto } from './archive.ts'
import { unseal } from './seal.ts'

export interface Restoring {
  readonly passphrase?: string
  /** Where the secret lies apart. */
  readonly secretFile?: string
  /** What is in the folder now is put aside, beside it. */
  readonly replaces: boolean
}

/** Where what was in the folder before lies now. */
export interface Restored {
  readonly manifest: Manifest
  readonly aside: string | null
}

/**
 * Makes a data folder of a backup. All of it is looked at before anything in the folder's place is touched, and nothing
 * there is lost. Throws in one sentence.
 */
export async function restore(from: string, dataDir: string, how: Restoring): Promise<Restored> {
  if (!existsSync(from)) throw new Broken(`There is no ${from}.`)
  const isFull = existsSync(dataDir) && readdirSync(dataDir).length > 0
  if (isFull && !how.replaces)
    throw new Broken(
      `${dataDir} is not empty. Choose another DATA_DIR, or say --replace to put what is there aside.`,
    )
  await mkdir(dirname(resolve(dataDir)), { recursive: true })
  const work = await mkdtemp(join(dirname(resolve(dataDir)), '.noskel-restore-'))
  try {
    const manifest = await unpackInto(from, work)
    await writeFile(join(work, 'secret'), await secretOf(manifest, how), { mode: 0o600 })
    await rm(join(work, manifestName))
    closeToOthers(work)
    const aside = isFull ? await putAside(dataDir) : null
    if (aside === null) await rm(dataDir, { recursive: true, force: true })
    await rename(work, dataDir)
    return { manifest, aside }
  } finally {
    await dropFolder(work)
  }
}

async function secretOf({ secret }: Manifest, { passphrase, secretFile }: Restoring): Promise<string> {
  if (secretFile !== undefined) {
    const text = (await readFile(secretFile, 'utf8')).trim()
    if (!isSecret(text)) throw new Broken(`${secretFile} is not the secret of a Noskel.`)
    return text
  }
  if (secret === null)
    throw new Broken('The secret is not in this backup: say where it lies with --secret FILE.')
  if (passphrase === undefined)
    throw new Broken(
      'The secret in this backup is sealed: give the passphrase in a file, with --passphrase FILE.',
    )
  const opened = unseal(secret, passphrase)
  if (opened === undefined) throw new Broken('This is not the passphrase of this backup.')
  return opened
}

/** Not under the feet of a server that runs on it. */
async function putAside(dataDir: string): Promise<string> {
  const lock = await lockDataDir(dataDir)
  await lock.release()
  const aside = `${dataDir}-before-${new Date().toISOString().replace(/[:.]/g, '-')}`
  await rename(dataDir, aside)
  return aside
}
