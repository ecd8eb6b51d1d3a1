import { sql, type Kysely } from 'kysely'

/**
 * What runs with more rights than its caller belongs to a role that can do nothing else, and finds its tables before
 * anything a caller could put in their place.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    do $$ begin
      create role ripples_definer nologin nosuperuser nocreatedb nocreaterole noinherit bypassrls;
    exception when duplicate_object or unique_violation then null;
    end $$`.execute(db)
  await sql`grant usage on schema public to ripples_definer`.execute(db)
  await sql`grant select on workshop, pour_summary to ripples_definer`.execute(db)
  for (const signature of [
    'sole_workshop()',
    'search_pours(text, boolean, text, text[], timestamptz, uuid, integer)',
    'count_pours(text, boolean, text, text[], integer)',
  ]) {
    await sql`alter function ${sql.raw(signature)} set search_path = pg_catalog, public, pg_temp`.execute(db)
    await sql`alter function ${sql.raw(signature)} owner to ripples_definer`.execute(db)
  }
}
