import type { Sequelize } from 'sequelize'

/**
 * What is relied on of Sequelize besides what its types tell: each file has a connection for all that reads outside of
 * transactions, and one for each transaction, in `connectionManager.connections` under the transaction's id. The version
 * is pinned, and connections.test.ts says what has to hold with another one.
 */
type Connections = Sequelize['connectionManager'] & { readonly connections: Record<string, Connection> }

interface Connection {
  uuid?: string
  serialize(run: () => void): void
  close(): void
}

export async function keepConnections(database: Sequelize): Promise<void> {
  keepConnection(database.connectionManager as Connections)
  // Sequelize lets no statement begin before the last one has come back, a turn of the loop or two for each. All that
  // reads outside of a transaction shares this connection, and waits for nothing but SQLite; transactions have their own.
  const shared = await database.connectionManager.getConnection({ type: 'read' })
  Object.assign(shared, { serialize: withoutTrace })
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
