import sqlite3 from 'sqlite3'

/** A connection of SQLite's own, for what is one dialect's. */
export interface Connection {
  readonly all: (sql: string, values?: readonly unknown[]) => Promise<Record<string, unknown>[]>
  /** Several statements. */
  readonly run: (sql: string) => Promise<void>
  readonly close: () => Promise<void>
}

/** Rejects where there is no such file, unless it may be made. */
export async function connect(file: string, mode: number = sqlite3.OPEN_READWRITE): Promise<Connection> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, mode, error =>
      error === null ? resolve(opened) : reject(error),
    )
  })
  return {
    all: (sql, values = []) =>
      new Promise((resolve, reject) => {
        database.all<Record<string, unknown>>(sql, values, (error, rows) =>
          error === null ? resolve(rows) : reject(error),
        )
      }),
    run: sql =>
      new Promise((resolve, reject) => {
        database.exec(sql, error => (error === null ? resolve() : reject(error)))
      }),
    close: () => new Promise(resolve => database.close(() => resolve())),
  }
}
