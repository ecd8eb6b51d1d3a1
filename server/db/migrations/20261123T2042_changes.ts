import { sql, type Kysely } from 'kysely'

/**
 * The live stream's log: one row for each change, numbered, with a NOTIFY that carries nothing.
 * Readers poll from a cursor, so a number must never appear after a higher one has been read: writers take a
 * transaction lock before they draw a number, which makes the order of numbers the order of commits.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table change (
      seq bigint generated always as identity primary key,
      topic text not null check (topic in ('pour', 'plaster', 'mould', 'settings')),
      entity_id text not null
    )`.execute(db)
  await sql`
    create function record_change() returns trigger language plpgsql as $$
    begin
      perform pg_advisory_xact_lock(hashtext('nine_ripples.change'));
      insert into change (topic, entity_id)
      values (tg_argv[0], coalesce(to_jsonb(new) ->> tg_argv[1], to_jsonb(old) ->> tg_argv[1], ''));
      perform pg_notify('nine_ripples_change', '');
      return null;
    end $$`.execute(db)
  const watched: [table: string, topic: string, key: string][] = [
    ['plaster', 'plaster', 'id'],
    ['mould', 'mould', 'id'],
    ['settings', 'settings', 'only_row'],
    ['pour', 'pour', 'id'],
    ['event', 'pour', 'pour_id'],
  ]
  for (const [table, topic, key] of watched) {
    await sql`
      create trigger ${sql.ref(`${table}_change`)} after insert or update or delete on ${sql.table(table)}
      for each row execute function record_change(${sql.lit(topic)}, ${sql.lit(key)})`.execute(db)
  }
}
