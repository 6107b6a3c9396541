import type { Sequelize, Transaction } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import type { DatabaseName, Dialect } from './dialects/dialect.ts'
import { sqlite } from './dialects/sqlite/dialect.ts'
import { type Migration, migrations } from './migrations/list.ts'
import { sessionMigrations } from './migrations/sessions/list.ts'

export const dialect: Dialect = sqlite

const migrationsOf: Readonly<Record<DatabaseName, readonly Migration[]>> = {
  noskel: migrations,
  sessions: sessionMigrations,
}

/** Opens a database of `dataDir`, brings its tables up to date and returns the connection. */
export async function openDatabase(dataDir: string, name: DatabaseName = 'noskel'): Promise<Sequelize> {
  const database = await dialect.open(dataDir, name)
  await migratorOf(database, name).up()
  return database
}

/** Opens a database whose tables another process keeps up to date. Throws in one sentence where they are not. */
export async function openKept(dataDir: string, name: DatabaseName): Promise<Sequelize> {
  const database = await dialect.open(dataDir, name)
  const waiting = await migratorOf(database, name).pending()
  if (waiting.length === 0) return database
  await database.close()
  throw new Error(
    `the tables in ${dataDir} are not those of this version; start the server that writes first.`,
  )
}

const migratorOf = (database: Sequelize, name: DatabaseName) =>
  new Umzug({
    migrations: migrationsOf[name].map(each => ({ name: each.name, up: () => each.up(database) })),
    storage: new SequelizeStorage({ sequelize: database, tableName: 'migrations' }),
    logger: undefined,
  })

/** Does something in a transaction that nobody else writes beside. */
export const beginWriting = <T>(
  database: Sequelize,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> => dialect.write(database, work)
