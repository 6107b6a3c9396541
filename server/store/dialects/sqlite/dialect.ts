import { join } from 'node:path'
import { QueryTypes, Sequelize, Transaction } from 'sequelize'
import type { Dialect } from '../dialect.ts'
import { keepConnections } from './connections.ts'
import { packedReader } from './packed-reader.ts'
import { openSearch } from './search.ts'

/** One file for each database, which one process writes. */
export const sqlite: Dialect = {
  open: async (dataDir, name) => {
    const database = new Sequelize({
      dialect: 'sqlite',
      storage: join(dataDir, `${name}.sqlite`),
      logging: false,
    })
    await keepConnections(database)
    // Readers keep reading while the one writer writes. The mode stays with the file.
    await database.query('PRAGMA journal_mode = WAL')
    return database
  },
  write: (database, work) => database.transaction({ type: Transaction.TYPES.IMMEDIATE }, work),
  read: database => database.transaction({ type: Transaction.TYPES.DEFERRED }),
  othersWrote: database => {
    let known: number | undefined
    return async () => {
      const [row] = await database.query<{ data_version: number }>('PRAGMA data_version', {
        type: QueryTypes.SELECT,
      })
      const before = known
      known = row?.data_version
      return known !== before
    }
  },
  packed: packedReader,
  search: openSearch,
}
