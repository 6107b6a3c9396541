import { join } from 'node:path'
import sqlite3 from 'sqlite3'

/** Holds a folder for as long as this process runs; a crash lets go of it. */
export interface Lock {
  readonly release: () => Promise<void>
}

/** Two servers on one folder would each write what the other does not know of. Throws in one sentence. */
export async function lockDataDir(dataDir: string): Promise<Lock> {
  const file = join(dataDir, 'lock.sqlite')
  // A lock of the system's on a file of its own: it ends with the process, however that ends.
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, error => (error === null ? resolve(opened) : reject(error)))
  })
  const close = () => new Promise<void>(resolve => database.close(() => resolve()))
  const isHeld = await new Promise<boolean>(resolve =>
    database.run('BEGIN EXCLUSIVE', error => resolve(error === null)),
  )
  if (!isHeld) {
    await close()
    throw new Error(`another server runs on ${dataDir}; stop it first, or choose another DATA_DIR.`)
  }
  return { release: close }
}
