import { sql, type Kysely } from 'kysely'

/** The cup a workshop measures with: asked for once. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table settings
      add column scoop_ml double precision check (scoop_ml between 5 and 20000)`.execute(db)
}
