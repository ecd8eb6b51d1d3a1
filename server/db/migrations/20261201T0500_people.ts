import { sql, type Kysely } from 'kysely'

/** People of a workshop, the devices that they are let in on, and codes by which a device is let in. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table person (
      workshop_id uuid not null default current_workshop() references workshop (id),
      id uuid not null,
      name text not null check (length(name) between 1 and 60),
      role text not null check (role in ('keeper', 'caster', 'looker')),
      created_at timestamptz not null default now(),
      -- Never deleted: what they recorded stays theirs.
      gone_at timestamptz,
      primary key (workshop_id, id)
    )`.execute(db)
  await sql`
    create unique index person_by_name on person (workshop_id, lower(name)) where gone_at is null`.execute(db)
  await sql`
    create table session (
      workshop_id uuid not null default current_workshop(),
      id uuid not null,
      person_id uuid not null,
      device text not null check (length(device) <= 60),
      created_at timestamptz not null default now(),
      seen_at timestamptz not null default now(),
      ended_at timestamptz,
      primary key (workshop_id, id),
      foreign key (workshop_id, person_id) references person
    )`.execute(db)
  await sql`create index session_by_person on session (workshop_id, person_id)`.execute(db)
  await sql`
    create table pairing (
      workshop_id uuid not null default current_workshop(),
      person_id uuid not null,
      secret_hash bytea not null,
      expires_at timestamptz not null,
      -- One at a time: another code takes the place of the one before.
      primary key (workshop_id, person_id),
      foreign key (workshop_id, person_id) references person
    )`.execute(db)
  // Null from before there were people, and from the machine itself, where nobody signs in.
  await sql`alter table event add column who_id uuid`.execute(db)
  await sql`
    alter table event add constraint event_who foreign key (workshop_id, who_id) references person not valid`.execute(
    db,
  )
  await sql`
    alter table change
      drop constraint change_topic_check,
      add constraint change_topic_check check (topic in ('pour', 'event', 'plaster', 'bag', 'bowl', 'recipe', 'mould',
        'mould_set', 'settings', 'device', 'settling', 'place', 'person'))`.execute(db)
  await sql`
    create function person_changed() returns trigger language plpgsql as $$
    begin
      perform note_change(new.workshop_id, 'person', new.id::text, null);
      return null;
    end $$`.execute(db)
  await sql`
    create function session_changed() returns trigger language plpgsql as $$
    begin
      perform note_change(new.workshop_id, 'person', new.person_id::text, null);
      return null;
    end $$`.execute(db)
  await sql`
    create constraint trigger person_change after insert or update on person
    deferrable initially deferred for each row execute function person_changed()`.execute(db)
  // Not for each time that it is seen.
  await sql`
    create constraint trigger session_made after insert on session
    deferrable initially deferred for each row execute function session_changed()`.execute(db)
  await sql`
    create constraint trigger session_ended after update on session
    deferrable initially deferred for each row
    when (old.ended_at is distinct from new.ended_at) execute function session_changed()`.execute(db)
  for (const table of ['person', 'session', 'pairing']) {
    await sql`alter table ${sql.table(table)} enable row level security`.execute(db)
    await sql`
      create policy own_workshop on ${sql.table(table)} to ripples_app
      using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
    await sql`grant select, insert, update on ${sql.table(table)} to ripples_app`.execute(db)
  }
  await sql`grant delete on pairing to ripples_app`.execute(db)
}
