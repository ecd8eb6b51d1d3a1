import { sql, type Kysely } from 'kysely'

/** Scales, thermometers and buttons that spoke to this workshop, what each is put to, and what it read there. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table device (
      workshop_id uuid not null default current_workshop() references workshop (id),
      -- As it calls itself.
      id text not null check (id ~ '^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$'),
      name text not null check (length(name) between 1 and 60),
      created_at timestamptz not null default clock_timestamp(),
      primary key (workshop_id, id)
    )`.execute(db)
  await sql`
    create table device_use (
      workshop_id uuid not null default current_workshop() references workshop (id),
      device_id text not null,
      channel text not null check (channel ~ '^(mass|t([1-9]|1[0-6])|button)$'),
      pour_id uuid not null,
      batch integer not null check (batch >= 0),
      since timestamptz not null default clock_timestamp(),
      primary key (workshop_id, device_id, channel),
      foreign key (workshop_id, device_id) references device (workshop_id, id) on delete cascade,
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`create index device_use_by_pour on device_use (workshop_id, pour_id)`.execute(db)
  await sql`
    create table reading (
      workshop_id uuid not null default current_workshop() references workshop (id),
      device_id text not null,
      channel text not null,
      at timestamptz not null,
      pour_id uuid not null,
      batch integer not null check (batch >= 0),
      -- g or °C, by its channel.
      value double precision not null,
      stable boolean not null,
      primary key (workshop_id, device_id, channel, at),
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`create index reading_by_pour on reading (workshop_id, pour_id, channel, at)`.execute(db)
  await sql`
    alter table change
      drop constraint change_topic_check,
      add constraint change_topic_check check (topic in
        ('pour', 'event', 'plaster', 'bag', 'bowl', 'recipe', 'mould', 'mould_set', 'settings', 'device'))`.execute(
    db,
  )
  for (const [table, key] of [
    ['device', 'id'],
    ['device_use', 'device_id'],
  ] as const) {
    const [trigger, call] = [sql.ref(`${table}_change`), sql.ref(`${table}_changed`)]
    await sql`
      create function ${call}() returns trigger language plpgsql as $$
      declare changed ${sql.table(table)};
      begin
        if tg_op = 'DELETE' then changed := old; else changed := new; end if;
        perform note_change(changed.workshop_id, 'device', changed.${sql.ref(key)}, null);
        return null;
      end $$`.execute(db)
    await sql`
      create constraint trigger ${trigger} after insert or update or delete on ${sql.table(table)}
      deferrable initially deferred for each row execute function ${call}()`.execute(db)
  }
  for (const [table, may] of [
    ['device', 'select, insert, update, delete'],
    ['device_use', 'select, insert, update, delete'],
    ['reading', 'select, insert, delete'],
  ] as const) {
    await sql`alter table ${sql.table(table)} enable row level security`.execute(db)
    await sql`
      create policy own_workshop on ${sql.table(table)} to ripples_app
      using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
    await sql`grant ${sql.raw(may)} on ${sql.table(table)} to ripples_app`.execute(db)
  }
}
