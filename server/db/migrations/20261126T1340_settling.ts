import { sql, type Kysely } from 'kysely'

/** What was done with the settling bucket, which nothing of may go down a drain. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table settling (
      workshop_id uuid not null default current_workshop() references workshop (id),
      id uuid not null,
      what text not null check (what in ('filled', 'settled', 'poured_off', 'emptied')),
      at timestamptz not null,
      who text not null check (length(who) <= 60),
      primary key (workshop_id, id)
    )`.execute(db)
  await sql`create index settling_by_time on settling (workshop_id, at desc)`.execute(db)
  await sql`
    alter table change
      drop constraint change_topic_check,
      add constraint change_topic_check check (topic in
        ('pour', 'event', 'plaster', 'bag', 'bowl', 'recipe', 'mould', 'mould_set', 'settings', 'device', 'settling'))`.execute(
    db,
  )
  await sql`
    create function settling_changed() returns trigger language plpgsql as $$
    declare changed settling;
    begin
      if tg_op = 'DELETE' then changed := old; else changed := new; end if;
      perform note_change(changed.workshop_id, 'settling', changed.id::text, null);
      return null;
    end $$`.execute(db)
  await sql`
    create constraint trigger settling_change after insert or update or delete on settling
    deferrable initially deferred for each row execute function settling_changed()`.execute(db)
  await sql`alter table settling enable row level security`.execute(db)
  await sql`
    create policy own_workshop on settling to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, delete on settling to ripples_app`.execute(db)
}
