import sqlite3 from 'sqlite3'

/** The files of SQLite in a data folder, in the order in which they are copied: a sign-in is of an account that is there. */
export const databaseFiles = ['sessions.sqlite', 'noskel.sqlite'] as const

/** Copies a database as it is at one instant, while others write to it. */
export const copyDatabase = (file: string, to: string): Promise<void> =>
  withFile(file, async ask => {
    await ask('VACUUM INTO ?', [to])
  })

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

type Ask = (sql: string, values?: readonly unknown[]) => Promise<Record<string, unknown>[]>

async function withFile<T>(file: string, work: (ask: Ask) => Promise<T>): Promise<T> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, error =>
      error === null ? resolve(opened) : reject(error),
    )
  })
  const ask: Ask = (sql, values = []) =>
    new Promise((resolve, reject) => {
      database.all<Record<string, unknown>>(sql, values, (error, rows) =>
        error === null ? resolve(rows) : reject(error),
      )
    })
  try {
    return await work(ask)
  } finally {
    await new Promise<void>(resolve => database.close(() => resolve()))
  }
}
