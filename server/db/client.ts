import { Kysely, PostgresDialect } from 'kysely'
import pg from 'pg'
import type { Database } from './schema'

// bigint arrives as text by default; change numbers stay far below 2^53.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

export type Db = Kysely<Database>

/** Opens a pool. `onError` hears of idle connections that die; the pool replaces them by itself. */
export function openDatabase(connectionString: string, onError: (error: Error) => void): Db {
  const pool = new pg.Pool({ connectionString, max: 10, connectionTimeoutMillis: 5000 })
  pool.on('error', onError)
  return new Kysely<Database>({ dialect: new PostgresDialect({ pool }) })
}
