import { sql, type Kysely } from 'kysely'

/** Places to dry in; what pours showed of bags, places and hands; and what a caster decided about that. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table place (
      workshop_id uuid not null default current_workshop() references workshop (id),
      id uuid not null,
      name text not null check (name <> ''),
      kind text not null check (kind in ('still', 'fan', 'breeze', 'cabinet', 'outdoors')),
      air jsonb not null check (jsonb_typeof(air) = 'object'),
      night_air jsonb check (jsonb_typeof(night_air) = 'object'),
      revision integer not null default 1 check (revision >= 1),
      primary key (workshop_id, id)
    )`.execute(db)
  await sql`
    create table observation (
      workshop_id uuid not null default current_workshop() references workshop (id),
      pour_id uuid not null,
      factor text not null,
      subject text not null check (subject ~ '^(bag|place|scoop|person|bowl):.'),
      at timestamptz not null,
      -- Seen over predicted, and the standard deviation of its logarithm.
      ratio double precision not null check (ratio > 0),
      sigma_ln double precision not null check (sigma_ln > 0),
      primary key (workshop_id, pour_id, factor),
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`create index observation_by_subject on observation (workshop_id, subject, factor, at desc)`.execute(
    db,
  )
  await sql`
    create table learn_choice (
      workshop_id uuid not null default current_workshop() references workshop (id),
      subject text not null check (subject ~ '^(bag|place|scoop|person|bowl):.'),
      factor text not null,
      is_off boolean not null,
      since timestamptz,
      left_out uuid[] not null,
      primary key (workshop_id, subject, factor)
    )`.execute(db)
  // Of whom a pour may teach something, and whether it has been looked through for that since it last changed.
  await sql`
    alter table pour_summary
      add column teaches text[] not null default '{}',
      add column is_observed boolean not null default false,
      add column event_count integer not null default 0,
      -- What a search asks for besides words: mould:…, bag:…, place:…, plaster:…, fault:…, cause:…
      add column tags text[] not null default '{}',
      add column casts integer not null default 0,
      add column cost double precision,
      add column dry_days double precision,
      add column place_id uuid,
      add column ended_at timestamptz`.execute(db)
  await sql`
    create index pour_summary_teaches on pour_summary using gin (teaches) where not is_observed`.execute(db)
  await sql`create index pour_summary_tags on pour_summary using gin (tags)`.execute(db)
  await sql`
    create index pour_summary_ended on pour_summary (workshop_id, ended_at desc) where ended_at is not null`.execute(
    db,
  )
  // What was wrong and why is asked of these alone.
  await sql`
    create index pour_summary_faulty on pour_summary (workshop_id, ended_at desc)
    where 'faults' = any (teaches)`.execute(db)
  await sql`drop function search_pours`.execute(db)
  await sql`drop function count_pours`.execute(db)
  // As before, and by tags as well: all of them.
  const where = `
        where workshop_id = $1 and searched like $2'
        || case when want_open then ' and is_open' when not want_open then ' and not is_open' else '' end
        || case when want_verdict is null then '' else ' and verdict = $3' end
        || case when cardinality(want_tags) = 0 then '' else ' and tags @> $4' end`
  await sql`
    create function search_pours(pattern text, want_open boolean, want_verdict text, want_tags text[],
      before_at timestamptz, before_id uuid, most integer) returns setof pour_summary
    language plpgsql stable security definer set search_path = pg_catalog, public as $$
    begin
      return query execute 'select * from pour_summary ${sql.raw(where)}
        || case when before_id is null then '' else ' and (created_at, pour_id) < ($5, $6)' end
        || ' order by created_at desc, pour_id desc limit $7'
      using current_workshop(), pattern, want_verdict, want_tags, before_at, before_id, most;
    end $$`.execute(db)
  await sql`
    create function count_pours(pattern text, want_open boolean, want_verdict text, want_tags text[], most integer)
    returns integer
    language plpgsql stable security definer set search_path = pg_catalog, public as $$
    declare found_here integer;
    begin
      execute 'select count(*) from (select from pour_summary ${sql.raw(where)} || ' limit $5) as found'
      into found_here using current_workshop(), pattern, want_verdict, want_tags, most;
      return found_here;
    end $$`.execute(db)
  // Made anew at the next start, with what they teach.
  await sql`delete from pour_summary`.execute(db)
  await sql`
    alter table change
      drop constraint change_topic_check,
      add constraint change_topic_check check (topic in
        ('pour', 'event', 'plaster', 'bag', 'bowl', 'recipe', 'mould', 'mould_set', 'settings', 'device',
         'settling', 'place'))`.execute(db)
  await sql`
    create function place_changed() returns trigger language plpgsql as $$
    declare changed place;
    begin
      if tg_op = 'DELETE' then changed := old; else changed := new; end if;
      perform note_change(changed.workshop_id, 'place', changed.id::text, null);
      return null;
    end $$`.execute(db)
  await sql`
    create constraint trigger place_change after insert or update or delete on place
    deferrable initially deferred for each row execute function place_changed()`.execute(db)
  for (const table of ['place', 'observation', 'learn_choice']) {
    await sql`alter table ${sql.table(table)} enable row level security`.execute(db)
    await sql`
      create policy own_workshop on ${sql.table(table)} to ripples_app
      using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
    await sql`grant select, insert, update, delete on ${sql.table(table)} to ripples_app`.execute(db)
  }
}
