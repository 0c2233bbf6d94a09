import {
  PostgresDialect,
  PostgresDriver,
  type DatabaseConnection,
  type Driver,
  type PostgresDialectConfig,
  type TransactionSettings,
} from 'kysely'

/** How often writes are tried that others were in the way of. */
const TRIES = 5

/**
 * Makes anew what waited for others in a circle: PostgreSQL ends one of them, and nothing of it is there. Source:
 * PostgreSQL documentation, appendix A: 40P01 is deadlock_detected.
 */
export async function retryDeadlocks<T>(work: () => Promise<T>): Promise<T> {
  for (let turn = 1; ; turn += 1)
    try {
      return await work()
    } catch (error) {
      if (turn === TRIES || !isDeadlock(error)) throw error
    }
}

const isDeadlock = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '40P01'

/** PostgreSQL, with statements outside of transactions made anew; of a transaction only the whole can be. */
export class DeadlockRetryDialect extends PostgresDialect {
  readonly #config: PostgresDialectConfig

  constructor(config: PostgresDialectConfig) {
    super(config)
    this.#config = config
  }

  override createDriver(): Driver {
    return new DeadlockRetryDriver(this.#config)
  }
}

class DeadlockRetryDriver extends PostgresDriver {
  readonly #patient = new WeakSet<DatabaseConnection>()
  readonly #inTransaction = new WeakSet<DatabaseConnection>()

  override async acquireConnection(): Promise<DatabaseConnection> {
    const connection = await super.acquireConnection()
    if (this.#patient.has(connection)) return connection
    this.#patient.add(connection)
    const run = connection.executeQuery.bind(connection)
    connection.executeQuery = (query) =>
      this.#inTransaction.has(connection) ? run(query) : retryDeadlocks(() => run(query))
    return connection
  }

  override async beginTransaction(connection: DatabaseConnection, settings: TransactionSettings): Promise<void> {
    await super.beginTransaction(connection, settings)
    this.#inTransaction.add(connection)
  }

  override async commitTransaction(connection: DatabaseConnection): Promise<void> {
    this.#inTransaction.delete(connection)
    await super.commitTransaction(connection)
  }

  override async rollbackTransaction(connection: DatabaseConnection): Promise<void> {
    this.#inTransaction.delete(connection)
    await super.rollbackTransaction(connection)
  }
}
