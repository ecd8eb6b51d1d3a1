import { sql, type Kysely } from 'kysely'

/** What somebody recorded who had been put out by the time that it came: kept until a keeper takes or refuses it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table held_event (
      workshop_id uuid not null default current_workshop(),
      -- The event's own.
      id uuid not null,
      pour_id uuid not null,
      person_id uuid not null,
      device text not null check (length(device) <= 60),
      event jsonb not null,
      came_at timestamptz not null default now(),
      refused_at timestamptz,
      primary key (workshop_id, id),
      foreign key (workshop_id, person_id) references person
    )`.execute(db)
  await sql`create index held_event_by_person on held_event (workshop_id, person_id)`.execute(db)
  await sql`
    create function held_event_changed() returns trigger language plpgsql as $$
    declare row held_event;
    begin
      row := coalesce(new, old);
      perform note_change(row.workshop_id, 'person', row.person_id::text, null);
      return null;
    end $$`.execute(db)
  await sql`
    create constraint trigger held_event_change after insert or update or delete on held_event
    deferrable initially deferred for each row execute function held_event_changed()`.execute(db)
  await sql`alter table held_event enable row level security`.execute(db)
  await sql`
    create policy own_workshop on held_event to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, update, delete on held_event to ripples_app`.execute(db)
  // Sessions that have long ended are cleared away.
  await sql`grant delete on session to ripples_app`.execute(db)
}
