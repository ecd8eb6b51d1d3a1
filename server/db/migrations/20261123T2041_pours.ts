import { sql, type Kysely } from 'kysely'

/** Pours and their append-only events. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table pour (
      id uuid primary key,
      plan jsonb not null check (jsonb_typeof(plan) = 'object'),
      revision integer not null default 1 check (revision >= 1),
      created_at timestamptz not null default now()
    )`.execute(db)
  await sql`create index pour_by_age on pour (created_at desc, id)`.execute(db)
  await sql`
    create table event (
      id uuid primary key,
      pour_id uuid not null references pour (id),
      type text not null,
      body jsonb not null check (body ->> 'type' = type),
      occurred_at timestamptz not null,
      received_at timestamptz not null default now(),
      who text not null,
      voids_event_id uuid,
      unique (pour_id, id),
      -- An event can only be taken back within its own pour.
      foreign key (pour_id, voids_event_id) references event (pour_id, id),
      check ((type = 'void') = (voids_event_id is not null)),
      check (type not in ('weighed', 'weighing') or coalesce((body ->> 'massG')::double precision, 0) > 0)
    )`.execute(db)
  await sql`create index event_voids on event (voids_event_id) where voids_event_id is not null`.execute(db)
  await sql`create index event_finished on event (pour_id) where type = 'finished'`.execute(db)
  await sql`
    create function event_is_append_only() returns trigger language plpgsql as $$
    begin
      raise exception 'events are never changed or deleted' using errcode = 'restrict_violation';
    end $$`.execute(db)
  await sql`
    create trigger event_append_only before update or delete on event
    for each row execute function event_is_append_only()`.execute(db)
}
