import { type Connection, connect } from './connection.ts'

/** That of the workspaces. */
export const mainDatabase = 'noskel.sqlite'

/** The files of SQLite in a data folder, in the order in which they are copied: a sign-in is of an account that is there. */
export const databaseFiles = ['sessions.sqlite', mainDatabase] as const

/** Copies a database as it is at one instant, while others write to it. */
export const copyDatabase = (file: string, to: string): Promise<void> =>
  withFile(file, async ask => {
    await ask('VACUUM INTO ?', [to])
  })

/** The same of the database of the workspaces, without what is on its way: bytes of that are in no copy. */
export async function copyWithoutUploads(file: string, to: string): Promise<void> {
  await copyDatabase(file, to)
  if (await hasFiles(to))
    await withFile(to, async ask => {
      await ask('DELETE FROM uploads')
    })
}

/** Older ones know of no files. */
const hasFiles = (file: string): Promise<boolean> =>
  withFile(file, async ask => (await ask("SELECT 1 FROM sqlite_master WHERE name = 'blobs'")).length > 0)

/** The bytes of files that a database names, with what they have to be. */
export interface NamedFile {
  readonly name: string
  readonly size: number
  readonly hash: string
}

export const filesNamedIn = async (file: string): Promise<NamedFile[]> =>
  (await hasFiles(file))
    ? withFile(file, async ask =>
        (await ask('SELECT name, size, hash FROM blobs')).map(({ name, size, hash }) => ({
          name: String(name),
          size: Number(size),
          hash: String(hash),
        })),
      )
    : []

/** What is wrong with a file; nothing if it is whole. */
export const faultOf = (file: string): Promise<string | undefined> =>
  withFile(file, async ask => {
    const rows = await ask('PRAGMA integrity_check')
    const result = rows.map(row => String(row['integrity_check']))
    return result.join() === 'ok' ? undefined : result.join('; ')
  }).catch((error: unknown) => (error as Error).message)

/** The changes of the tables that a file has been through. */
export const migrationsIn = (file: string): Promise<string[]> =>
  withFile(file, async ask => (await ask('SELECT name FROM migrations')).map(row => String(row['name'])))

type Ask = Connection['all']

async function withFile<T>(file: string, work: (ask: Ask) => Promise<T>): Promise<T> {
  const connection = await connect(file)
  try {
    return await work(connection.all)
  } finally {
    await connection.close()
  }
}
