import { Migrator } from 'kysely'
import type { Db } from './client'
import { MIGRATIONS } from './migrations'

/** Runs every migration that has not run, oldest first; with `target`, only as far as that one. */
export async function migrate(db: Db, target?: string): Promise<string[]> {
  const migrator = new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } })
  const { error, results } = target ? await migrator.migrateTo(target) : await migrator.migrateToLatest()
  if (error) throw error
  return (results ?? []).map((r) => r.migrationName)
}
