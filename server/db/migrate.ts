import { Migrator } from 'kysely'
import type { Db } from './client'
import { MIGRATIONS } from './migrations'

const migratorOf = (db: Db) => new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } })

/** Runs every migration that has not run, oldest first; with `target`, only as far as that one. */
export async function migrate(db: Db, target?: string): Promise<string[]> {
  const migrator = migratorOf(db)
  const { error, results } = target ? await migrator.migrateTo(target) : await migrator.migrateToLatest()
  if (error) throw error
  return (results ?? []).map((r) => r.migrationName)
}

/** Migrations that would change a database which holds something already; none for a new one. */
export async function pendingMigrations(db: Db): Promise<string[]> {
  const all = await migratorOf(db).getMigrations()
  return all.some((m) => m.executedAt) ? all.filter((m) => !m.executedAt).map((m) => m.name) : []
}
