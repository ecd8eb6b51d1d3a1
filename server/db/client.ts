import { LRUCache } from 'lru-cache'
import { Kysely, PostgresDialect, sql, type Transaction } from 'kysely'
import pg from 'pg'
import type { Database } from './schema'

// bigint arrives as text by default; change numbers stay far below 2^53.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

export type Db = Kysely<Database>

/** Runs it in the caller's transaction, or in one of its own. */
export function inTransaction<T>(db: Db, work: (trx: Transaction<Database>) => Promise<T>): Promise<T> {
  return db.isTransaction ? work(db as Transaction<Database>) : db.transaction().execute(work)
}

/** More waiting than this, and another does better to come back. */
const MOST_WAITING = 500
const POOL_SIZE = 12
/** Workshops whose way in is kept at hand; that of another is made anew. */
const MOST_SCOPED = 1000

/** Every connection is taken and the line is long. */
export class PoolBusyError extends Error {
  override name = 'PoolBusyError'
}

export interface OpenDatabase {
  /**
   * The only way to a workshop's rows: each connection is set to that workshop before anything is asked on it, and row
   * security holds it there.
   */
  workshop: (id: string) => Db
  /** No workshop's: sees what its role may see without one. */
  unscoped: Db
  /** The workshop that this machine opens at first touch. @throws where the database has none. */
  homeWorkshop: () => Promise<string>
  close: () => Promise<void>
}

/** Opens a pool. `onError` hears of connections that die; the pool replaces them by itself. */
export function openDatabase(
  connectionString: string,
  onError: (error: Error) => void,
  limits: { statementTimeoutMs?: number; lockTimeoutMs?: number; poolSize?: number; connectMs?: number } = {},
): OpenDatabase {
  const pool = new pg.Pool({
    connectionString,
    max: limits.poolSize ?? POOL_SIZE,
    connectionTimeoutMillis: limits.connectMs ?? 5000,
    ...(limits.statementTimeoutMs === undefined ? {} : { statement_timeout: limits.statementTimeoutMs }),
    ...(limits.lockTimeoutMs === undefined ? {} : { lock_timeout: limits.lockTimeoutMs }),
  })
  pool.on('error', onError)
  // One that dies while it is lent out says so too: unheard, that would end the process.
  pool.on('connect', (client) => client.on('error', onError))

  /** What each connection is set to. */
  const setTo = new WeakMap<pg.PoolClient, string>()
  const dialectFor = (workshopId: string) =>
    new PostgresDialect({
      pool: {
        connect: async () => {
          if (pool.waitingCount >= MOST_WAITING) throw new PoolBusyError('the database is busy')
          const client = await pool.connect()
          if (setTo.get(client) === workshopId) return client
          try {
            await client.query("select set_config('nine_ripples.workshop', $1, false)", [workshopId])
          } catch (error) {
            client.release(true)
            throw error
          }
          setTo.set(client, workshopId)
          return client
        },
        end: async () => {},
      },
    })
  const unscoped = new Kysely<Database>({ dialect: dialectFor('') })
  const scoped = new LRUCache<string, Db>({ max: MOST_SCOPED })
  return {
    unscoped,
    workshop: (id) => {
      const known = scoped.get(id) ?? new Kysely<Database>({ dialect: dialectFor(id) })
      scoped.set(id, known)
      return known
    },
    homeWorkshop: async () => {
      const { rows } = await sql<{ id: string | null }>`select home_workshop() as id`.execute(unscoped)
      const id = rows[0]?.id
      if (!id) throw new Error('the database holds no workshop')
      return id
    },
    close: () => pool.end(),
  }
}
