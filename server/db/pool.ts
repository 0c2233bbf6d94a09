import pg from 'pg'

/** A question that the database did not answer in time. */
export class NoAnswer extends Error {}

/** A question or a connection of a pool gave up by its own clock. */
export const isTimeout = (error: unknown): boolean =>
  error instanceof Error && /^(Query read timeout|timeout exceeded when trying to connect)/.test(error.message)

/**
 * A pool whose questions give up by their own clock, for those who answer a person: a connection that did not answer is
 * thrown away, since its late answer would be taken for that of the next question.
 */
export function poolWithTimeout(config: pg.PoolConfig, timeoutMs: number): pg.Pool {
  const pool = new pg.Pool({ ...config, connectionTimeoutMillis: timeoutMs, query_timeout: timeoutMs })
  const connect = pool.connect.bind(pool) as () => Promise<pg.PoolClient>
  const impatient = async (): Promise<pg.PoolClient> => {
    const client = await connect().catch((error: unknown) => {
      throw isTimeout(error) ? new NoAnswer('The database gives no connection.', { cause: error }) : error
    })
    return withEnd(client)
  }
  Object.assign(pool, { connect: impatient })
  return pool
}

/** The client, released as broken once a question of it was not answered. */
function withEnd(client: pg.PoolClient): pg.PoolClient {
  let broken = false
  const ask = client.query.bind(client) as (...args: unknown[]) => Promise<unknown>
  const release = client.release.bind(client)
  return Object.assign(Object.create(client) as pg.PoolClient, {
    query: async (...args: unknown[]) => {
      if (broken) throw new NoAnswer('The database did not answer before.')
      try {
        return await ask(...args)
      } catch (error) {
        if (!isTimeout(error)) throw error
        broken = true
        throw new NoAnswer('The database does not answer.', { cause: error })
      }
    },
    release: (error?: Error | boolean) => release(error ?? broken),
  })
}
