import type { H3Event } from 'h3'
import { useConfig } from '../config'
import { openDatabase, type Db, type OpenDatabase } from '../db/client'
import { useLogger } from './logger'

/** Nothing that a request asks takes this long; what does is ended, and the request may come again. */
const STATEMENT_TIMEOUT_MS = 15_000
const LOCK_TIMEOUT_MS = 5_000

let database: OpenDatabase | undefined
let sole: Promise<string> | undefined

function useDatabase(): OpenDatabase {
  database ??= openDatabase(
    useConfig().databaseUrl,
    (error) => useLogger().warn({ err: error }, 'a database connection was lost'),
    { statementTimeoutMs: STATEMENT_TIMEOUT_MS, lockTimeoutMs: LOCK_TIMEOUT_MS },
  )
  return database
}

/** A request's own workshop: what its database may see, and which it is. */
export interface Workshop {
  id: string
  db: Db
}

/**
 * The only way from a route to the database. There is one workshop for now, found without a sign-in; whoever signs people
 * in will find theirs from the request.
 */
export function useWorkshop(_event: H3Event): Promise<Workshop> {
  return soleWorkshop()
}

/** The one that is there without a sign-in; for devices, which have none either. */
export async function soleWorkshop(): Promise<Workshop> {
  const open = useDatabase()
  sole ??= open.soleWorkshop()
  try {
    const id = await sole
    return { id, db: open.workshop(id) }
  } catch (error) {
    sole = undefined
    throw error
  }
}

/** A workshop's database for work that no request asks for. */
export const databaseOf = (workshopId: string): Db => useDatabase().workshop(workshopId)

export async function closeDatabase(): Promise<void> {
  await database?.close()
  database = undefined
  sole = undefined
}
