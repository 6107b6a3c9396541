import { createHash } from 'node:crypto'
import { createReadStream, existsSync } from 'node:fs'
import { readFile, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { create, extract, list } from 'tar'
import { placeOf } from '../files/store.ts'
import { migrations } from '../store/migrations/list.ts'
import {
  databaseFiles,
  faultOf,
  filesNamedIn,
  mainDatabase,
  migrationsIn,
} from '../store/dialects/sqlite/copy.ts'
import type { Sealed } from './seal.ts'

/** What a backup is: a packed tar of the databases, with a page that tells what they have to be. */
export interface Manifest {
  readonly format: 'noskel backup 1'
  readonly madeAt: string
  readonly version: string
  readonly files: Readonly<Record<string, { readonly bytes: number; readonly sha256: string }>>
  /** `null` where it lies in a file apart. */
  readonly secret: Sealed | null
}

export const manifestName = 'manifest.json'

/** Throws in one sentence. */
export class Broken extends Error {}

/** Lightly: most files are packed by themselves. */
export const packFrom = (folder: string, to: string): Promise<void> =>
  create({ cwd: folder, file: to, gzip: { level: 1 }, portable: true, follow: true }, [
    manifestName,
    ...databaseFiles,
    'files',
  ])

/**
 * Takes the databases of a backup into a folder and looks whether it is whole: each database, each byte of each file that
 * they name.
 */
export async function checkedInto(file: string, folder: string): Promise<Manifest> {
  const found = await hashesIn(file)
  await extractInto(file, folder, path => path === manifestName || isDatabase(path))
  const manifest = await manifestIn(folder, file)
  for (const name of databaseFiles) {
    const isThere = existsSync(join(folder, name))
    const fault = isThere ? await faultOf(join(folder, name)) : 'it is missing'
    if (manifest.files[name]?.sha256 !== found.get(name) || fault !== undefined)
      throw new Broken(`${name} in ${file} is broken: ${fault ?? 'it is not what was written'}.`)
  }
  const names = migrations.map(each => each.name)
  const newer = (await migrationsIn(join(folder, mainDatabase))).filter(each => !names.includes(each))
  if (newer.length > 0)
    throw new Broken(`${file} was made by a newer Noskel (${manifest.version}); restore it with that.`)
  for (const { name, hash } of await filesNamedIn(join(folder, mainDatabase)))
    if (found.get(placeOf(name)) !== hash)
      throw new Broken(`A file in ${file} is broken: ${placeOf(name)} is not what was written.`)
  return manifest
}

/** The same, with the files. */
export async function unpackInto(file: string, folder: string): Promise<Manifest> {
  const manifest = await checkedInto(file, folder)
  await extractInto(file, folder, isFile)
  return manifest
}

const isDatabase = (path: string): boolean => databaseFiles.some(each => each === path)
const isFile = (path: string): boolean => /^files\/\w{2}\/\w+$/.test(path)

async function extractInto(file: string, folder: string, which: (path: string) => boolean): Promise<void> {
  try {
    await extract({
      cwd: folder,
      file,
      strict: true,
      // Nothing that leads elsewhere.
      filter: (path, entry) => which(path) && 'type' in entry && entry.type === 'File',
    })
  } catch {
    throw noBackup(file)
  }
}

const noBackup = (file: string) => new Broken(`${file} is no backup of Noskel, or is broken.`)

/** The SHA-256 of all that is in it, by path. */
async function hashesIn(file: string): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>()
  try {
    await list({
      file,
      strict: true,
      onReadEntry: entry => {
        const hash = createHash('sha256')
        entry.on('data', (bytes: Buffer) => hash.update(bytes))
        entry.on('end', () => found.set(entry.path, hash.digest('hex')))
      },
    })
  } catch {
    throw noBackup(file)
  }
  return found
}

async function manifestIn(folder: string, file: string): Promise<Manifest> {
  const text = await readFile(join(folder, manifestName), 'utf8').catch(() => '{}')
  const manifest = parsed(text)
  if (manifest?.format !== 'noskel backup 1') throw noBackup(file)
  return manifest
}

function parsed(text: string): Manifest | undefined {
  try {
    return JSON.parse(text) as Manifest
  } catch {
    return undefined
  }
}

export async function measured(file: string): Promise<{ readonly bytes: number; readonly sha256: string }> {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return { bytes: (await stat(file)).size, sha256: hash.digest('hex') }
}

/** What unpacks a broken file may still be writing. */
export const dropFolder = (folder: string): Promise<void> =>
  rm(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 50 })
