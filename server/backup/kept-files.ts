import { link, mkdir, mkdtemp, readdir, rm, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { placeOf } from '../files/store.ts'
import type { NamedFile } from '../store/dialects/sqlite/copy.ts'

/**
 * Names each file of a data folder once more, in a folder of its own beside them, so that it stays there whatever is
 * deleted while a backup is made. Bytes are neither copied nor changed by that.
 */
export async function keepFiles(dataDir: string): Promise<string> {
  await dropOld(dataDir)
  const kept = await mkdtemp(join(dataDir, prefix))
  for (const folder of await readdir(join(dataDir, 'files')).catch(() => []))
    for (const name of await readdir(join(dataDir, 'files', folder)))
      // What is dropped right now no later copy of the database names.
      await keep(dataDir, kept, name).catch(() => undefined)
  return kept
}

const prefix = 'files-for-backup-'
/** So long no backup takes: whoever made it crashed. */
const longest = 7 * 86_400_000

async function dropOld(dataDir: string): Promise<void> {
  for (const name of await readdir(dataDir)) {
    const path = join(dataDir, name)
    if (name.startsWith(prefix) && (await stat(path)).mtimeMs < Date.now() - longest)
      await rm(path, { recursive: true, force: true })
  }
}

/** Leaves those that a copy of the database names: also what came until it was made, and nothing that it does not know. */
export async function keepJust(dataDir: string, kept: string, named: readonly NamedFile[]): Promise<void> {
  const names = new Set(named.map(each => each.name))
  const there = new Set<string>()
  for (const folder of await readdir(kept))
    for (const name of await readdir(join(kept, folder)))
      if (names.has(name)) there.add(name)
      else await rm(join(kept, folder, name))
  for (const name of names) if (!there.has(name)) await keep(dataDir, kept, name)
}

async function keep(dataDir: string, kept: string, name: string): Promise<void> {
  const path = join(kept, placeOf(name).slice('files/'.length))
  await mkdir(dirname(path), { recursive: true })
  await link(join(dataDir, placeOf(name)), path)
}
