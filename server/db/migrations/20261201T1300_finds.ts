import { sql, type Kysely } from 'kysely'

/** Where a print was found, and what was measured on its photographs. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table mould add column find jsonb check (find is null or jsonb_typeof(find) = 'object')`.execute(
    db,
  )
}
