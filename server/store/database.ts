import { join } from 'node:path'
import { Sequelize } from 'sequelize'
import { Umzug, SequelizeStorage } from 'umzug'
import { migrations } from './migrations/list.ts'

/** Opens the workspace file in `dataDir`, brings its tables up to date and returns the connection. */
export async function openDatabase(dataDir: string): Promise<Sequelize> {
  const database = await openFile(dataDir, 'noskel.sqlite')
  // Readers keep reading while the one writer writes. The mode stays with the file.
  await database.query('PRAGMA journal_mode = WAL')
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({ name, up: () => up(database) })),
    storage: new SequelizeStorage({ sequelize: database, tableName: 'migrations' }),
    logger: undefined,
  })
  await umzug.up()
  return database
}

/** Sign-in sessions come and go with every visit: they stay out of the workspace file and its one writer. */
export async function openSessionFile(dataDir: string): Promise<Sequelize> {
  const file = await openFile(dataDir, 'sessions.sqlite')
  // Who lists or ends sign-ins does not wait while it is written who was here last.
  await file.query('PRAGMA journal_mode = WAL')
  return file
}

async function openFile(dataDir: string, name: string): Promise<Sequelize> {
  const database = new Sequelize({ dialect: 'sqlite', storage: join(dataDir, name), logging: false })
  keepConnection(database.connectionManager as Connections)
  // Sequelize lets no statement begin before the last one has come back, a turn of the loop or two for each. All that
  // reads outside of a transaction shares this connection, and waits for nothing but SQLite; transactions have their own.
  const shared = await database.connectionManager.getConnection({ type: 'read' })
  Object.assign(shared, { serialize: withoutTrace })
  return database
}

/** What of sequelize's connections its types do not tell: the file's own, each under the transaction that has it. */
type Connections = Sequelize['connectionManager'] & { readonly connections: Record<string, Connection> }

interface Connection {
  uuid?: string
  serialize(run: () => void): void
  close(): void
}

/**
 * Sequelize opens a connection for each transaction and closes it after: that takes as long as a small write, with
 * the tables read anew. Here one waits for the next transaction; it is closed with all others.
 */
function keepConnection(manager: Connections): void {
  const { connections } = manager
  const open = manager.getConnection.bind(manager)
  manager.getConnection = async options => {
    const { uuid } = options as { uuid?: string }
    if (uuid === undefined || uuid in connections) return open(options)
    const { waiting } = connections
    if (waiting !== undefined) {
      delete connections.waiting
      connections[uuid] = waiting
      return waiting
    }
    const connection = (await open(options)) as Connection
    const serialize = connection.serialize.bind(connection)
    connection.serialize = run => serialize(() => withoutTrace(run))
    return connection
  }
  manager.releaseConnection = released => {
    const connection = released as Connection
    if (connection.uuid === undefined) return
    Reflect.deleteProperty(connections, connection.uuid)
    if (connections.waiting === undefined) connections.waiting = connection
    else connection.close()
  }
}

/** Sequelize notes for each statement who asked for it, mapped to the sources, in case that it fails. */
function withoutTrace(run: () => void): void {
  const { stackTraceLimit } = Error
  Error.stackTraceLimit = 0
  try {
    run()
  } finally {
    Error.stackTraceLimit = stackTraceLimit
  }
}
