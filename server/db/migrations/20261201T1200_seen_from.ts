import { sql, type Kysely } from 'kysely'

/** Where a device was last seen: a session that is used from somewhere else stands out. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table session add column seen_from text check (length(seen_from) <= 60)`.execute(db)
}
