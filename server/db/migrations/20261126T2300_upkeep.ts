import { sql, type Kysely } from 'kysely'

/**
 * What pieces in use want next, so that it can be said before somebody opens the piece's own page; and the few narrow
 * columns that a year's figures add up, read without the rest of their rows.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table pour_summary
      add column upkeep_act text,
      add column upkeep_at timestamptz,
      add check ((upkeep_act is null) = (upkeep_at is null))`.execute(db)
  await sql`
    create index pour_summary_upkeep on pour_summary (workshop_id, upkeep_at, pour_id)
    where upkeep_at is not null`.execute(db)
  await sql`drop index pour_summary_ended`.execute(db)
  await sql`
    create index pour_summary_ended on pour_summary (workshop_id, ended_at desc)
    include (verdict, place_id, dry_days, plaster_id, casts, cost) where ended_at is not null`.execute(db)
  // Only a piece that was kept up has anything to say; the others are right as they are.
  await sql`
    delete from pour_summary s where exists (
      select from event e where e.pour_id = s.pour_id and e.type = 'kept_up')`.execute(db)
}
