import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { readFile, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { create, extract } from 'tar'
import { migrations } from '../store/migrations/list.ts'
import { databaseFiles, faultOf, migrationsIn } from '../store/dialects/sqlite/copy.ts'
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

export const packFrom = (folder: string, to: string): Promise<void> =>
  create({ cwd: folder, file: to, gzip: true, portable: true }, [manifestName, ...databaseFiles])

/** Takes a backup apart into a folder and looks whether it is whole: each byte, each database. */
export async function unpackInto(file: string, folder: string): Promise<Manifest> {
  const known: readonly string[] = [manifestName, ...databaseFiles]
  try {
    await extract({ cwd: folder, file, strict: true, filter: path => known.includes(path) })
  } catch {
    throw new Broken(`${file} is no backup of Noskel, or is broken.`)
  }
  const manifest = await manifestIn(folder, file)
  for (const name of databaseFiles) {
    const listed = manifest.files[name]
    const is = await measured(join(folder, name)).catch(() => undefined)
    const fault = is === undefined ? 'it is missing' : await faultOf(join(folder, name))
    if (listed?.sha256 !== is?.sha256 || fault !== undefined)
      throw new Broken(`${name} in ${file} is broken: ${fault ?? 'it is not what was written'}.`)
  }
  const names = migrations.map(each => each.name)
  const newer = (await migrationsIn(join(folder, 'noskel.sqlite'))).filter(each => !names.includes(each))
  if (newer.length > 0)
    throw new Broken(`${file} was made by a newer Noskel (${manifest.version}); restore it with that.`)
  return manifest
}

async function manifestIn(folder: string, file: string): Promise<Manifest> {
  const text = await readFile(join(folder, manifestName), 'utf8').catch(() => '{}')
  const manifest = parsed(text)
  if (manifest?.format !== 'noskel backup 1')
    throw new Broken(`${file} is no backup of Noskel, or is broken.`)
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
