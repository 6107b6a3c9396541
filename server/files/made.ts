import { randomUUID } from 'node:crypto'
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'

/** What is made of files lies in folders of their names. Nothing is lost with it, so it is neither synced nor in a backup. */
export function createMade(root: string) {
  const folderOf = (name: string) => join(root, name.slice(-2), name)
  const going = new Map<string, Promise<Buffer>>()
  const of = async (name: string, what: string, make: () => Promise<Uint8Array>): Promise<Buffer> => {
    const path = join(folderOf(name), what)
    const kept = await readFile(path).catch(() => undefined)
    if (kept !== undefined) return kept
    const before = going.get(path)
    if (before !== undefined) return before
    const making = make()
      .then(bytes => put(path, Buffer.from(bytes)))
      .finally(() => going.delete(path))
    going.set(path, making)
    return making
  }
  const dropBefore = async (instant: number): Promise<void> => {
    for (const folder of await readdir(root).catch(() => []))
      for (const name of await readdir(join(root, folder)).catch(() => [])) {
        const found = await stat(join(root, folder, name)).catch(() => undefined)
        if (found !== undefined && found.mtimeMs < instant)
          await rm(join(root, folder, name), { recursive: true, force: true })
      }
  }
  return { of, dropBefore, drop: (name: string) => rm(folderOf(name), { recursive: true, force: true }) }
}

/** Under its name it is whole. */
async function put(path: string, bytes: Buffer): Promise<Buffer> {
  await mkdir(join(path, '..'), { recursive: true, mode: 0o700 })
  const beside = `${path}.${randomUUID()}`
  await writeFile(beside, bytes, { mode: 0o600 })
  await rename(beside, path)
  return bytes
}
