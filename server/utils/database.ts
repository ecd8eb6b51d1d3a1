import { useConfig } from '../config'
import { openDatabase, type Db } from '../db/client'
import { useLogger } from './logger'

let db: Db | undefined

export function useDatabase(): Db {
  db ??= openDatabase(useConfig().databaseUrl, (error) =>
    useLogger().warn({ err: error }, 'an idle database connection was lost'),
  )
  return db
}

export async function closeDatabase(): Promise<void> {
  await db?.destroy()
  db = undefined
}
