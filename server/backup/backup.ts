import { existsSync } from 'node:fs'
import { chmod, mkdir, mkdtemp, readFile, rename, symlink, writeFile } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { readSecret } from '../data-dir.ts'
import {
  copyDatabase,
  copyWithoutUploads,
  databaseFiles,
  filesNamedIn,
  mainDatabase,
} from '../store/dialects/sqlite/copy.ts'
import {
  Broken,
  checkedInto,
  dropFolder,
  type Manifest,
  manifestName,
  measured,
  packFrom,
} from './archive.ts'
import { keepFiles, keepJust } from './kept-files.ts'
import { seal } from './seal.ts'

/** Where the secret goes: sealed into the backup, or into a file of its own that is kept elsewhere. */
export type SecretTo = { readonly passphrase: string } | { readonly file: string }

const root = resolve(import.meta.dirname, '../..')

/**
 * Writes all that a server keeps into one file, while it runs, and reads it back before it gets its name. Throws in one
 * sentence; then there is no such file.
 */
export async function backUp(dataDir: string, to: string, secretTo: SecretTo): Promise<Manifest> {
  for (const name of databaseFiles)
    if (!existsSync(join(dataDir, name))) throw new Broken(`There is no ${name} in ${dataDir}.`)
  for (const file of [to, ...('file' in secretTo ? [secretTo.file] : [])])
    if (existsSync(file)) throw new Broken(`${file} is there already; choose another name.`)
  const secret = readSecret(dataDir)
  await mkdir(dirname(resolve(to)), { recursive: true })
  // Beside the file that it becomes: there is room for it there, and it is renamed in one step.
  const work = await mkdtemp(join(dirname(resolve(to)), '.noskel-backup-'))
  try {
    const content = join(work, 'content')
    const readBack = join(work, 'read-back')
    await mkdir(content)
    await mkdir(readBack)
    const files: Record<string, Manifest['files'][string]> = {}
    const kept = await keepFiles(dataDir)
    try {
      for (const name of databaseFiles) {
        const copy = name === mainDatabase ? copyWithoutUploads : copyDatabase
        await copy(join(dataDir, name), join(content, name))
        files[name] = await measured(join(content, name))
      }
      await keepJust(dataDir, kept, await filesNamedIn(join(content, mainDatabase)))
      await symlink(kept, join(content, 'files'))
      const { version } = JSON.parse(await readFile(join(root, 'package.json'), 'utf8')) as {
        version: string
      }
      const sealed = 'passphrase' in secretTo ? seal(secret, secretTo.passphrase) : null
      const madeAt = new Date().toISOString()
      const manifest: Manifest = { format: 'noskel backup 1', madeAt, version, files, secret: sealed }
      await writeFile(join(content, manifestName), JSON.stringify(manifest, null, 2))
      const packed = join(work, 'packed')
      await packFrom(content, packed)
      await checkedInto(packed, readBack)
      if ('file' in secretTo) await writeFile(secretTo.file, secret, { mode: 0o600, flag: 'wx' })
      await chmod(packed, 0o600)
      await rename(packed, to)
      return manifest
    } finally {
      await dropFolder(kept)
    }
  } finally {
    await dropFolder(work)
  }
}
