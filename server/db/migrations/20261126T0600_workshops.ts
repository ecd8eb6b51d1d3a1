import { randomUUID } from 'node:crypto'
import { sql, type Kysely } from 'kysely'

/** Every table that holds a workshop's own, with what may be done to its rows by the application. */
const TABLES: Record<string, string> = {
  plaster: 'select, insert, update, delete',
  bag: 'select, insert, update, delete',
  spoon_test: 'select, insert, update, delete',
  bowl: 'select, insert, update, delete',
  recipe: 'select, insert, update, delete',
  mould: 'select, insert, update, delete',
  mould_photo: 'select, insert, update, delete',
  mould_set: 'select, insert, update, delete',
  mould_set_member: 'select, insert, update, delete',
  pour: 'select, insert, update',
  event: 'select, insert',
  plan_revision: 'select, insert',
  settings: 'select, update',
  change: 'select, insert, delete',
}

/** What the server sums up from the events, so that no list reads the whole log. */
const SUMMARIES = ['pour_summary', 'bag_draw', 'mould_use']

/** Which changes are told, on which topic, and which column says of what. */
const WATCHED: [table: string, topic: string, key: string, event: 'id' | null][] = [
  ['settings', 'settings', 'workshop_id', null],
  ['plaster', 'plaster', 'id', null],
  ['bag', 'bag', 'id', null],
  ['spoon_test', 'bag', 'bag_id', null],
  ['bowl', 'bowl', 'id', null],
  ['recipe', 'recipe', 'id', null],
  ['mould', 'mould', 'id', null],
  ['mould_photo', 'mould', 'mould_id', null],
  ['mould_set', 'mould_set', 'id', null],
  ['mould_set_member', 'mould_set', 'set_id', null],
  ['pour', 'pour', 'id', null],
  ['event', 'event', 'pour_id', 'id'],
]

async function eachRowAWorkshops(db: Kysely<unknown>): Promise<void> {
  const workshopId = randomUUID()
  await sql`
    create table workshop (
      id uuid primary key,
      created_at timestamptz not null default now()
    )`.execute(db)
  await sql`insert into workshop (id) values (${workshopId})`.execute(db)
  // Whose connection this is; nothing is anybody's where it has not been said.
  await sql`
    create function current_workshop() returns uuid language sql stable parallel safe as
    $$ select nullif(current_setting('nine_ripples.workshop', true), '')::uuid $$`.execute(db)
  for (const table of Object.keys(TABLES)) {
    // A constant default first: no row is rewritten and no trigger wakes.
    await sql`
      alter table ${sql.table(table)}
        add column workshop_id uuid not null default ${sql.lit(workshopId)}::uuid references workshop (id)`.execute(
      db,
    )
    await sql`alter table ${sql.table(table)} alter column workshop_id set default current_workshop()`.execute(
      db,
    )
  }
}

async function keysByWorkshop(db: Kysely<unknown>): Promise<void> {
  const foreign: [table: string, old: string][] = [
    ['mould', 'mould_usual_plaster_id_fkey'],
    ['mould_photo', 'mould_photo_mould_id_fkey'],
    ['mould_set_member', 'mould_set_member_set_id_fkey'],
    ['mould_set_member', 'mould_set_member_mould_id_fkey'],
    ['bag', 'bag_plaster_id_fkey'],
    ['spoon_test', 'spoon_test_bag_id_fkey'],
    ['event', 'event_pour_id_fkey'],
    // An undo may come before what it takes back: two devices send as they can.
    ['event', 'event_pour_id_voids_event_id_fkey'],
    ['event', 'event_pour_id_id_key'],
    ['plan_revision', 'plan_revision_pour_id_fkey'],
  ]
  for (const [table, name] of foreign)
    await sql`alter table ${sql.table(table)} drop constraint ${sql.ref(name)}`.execute(db)
  await sql`alter table settings drop column only_row`.execute(db)
  const primary: Record<string, string[]> = {
    plaster: ['id'],
    bag: ['id'],
    spoon_test: ['id'],
    bowl: ['id'],
    recipe: ['id'],
    mould: ['id'],
    mould_photo: ['id'],
    mould_set: ['id'],
    mould_set_member: ['set_id', 'mould_id'],
    pour: ['id'],
    event: ['id'],
    plan_revision: ['pour_id', 'revision'],
    settings: [],
    change: ['seq'],
  }
  for (const [table, columns] of Object.entries(primary)) {
    const name = sql.ref(`${table}_pkey`)
    await sql`alter table ${sql.table(table)} drop constraint if exists ${name}`.execute(db)
    await sql`
      alter table ${sql.table(table)} add constraint ${name}
      primary key (${sql.join(['workshop_id', ...columns].map((c) => sql.ref(c)))})`.execute(db)
  }
  await sql`
    alter table mould add foreign key (workshop_id, usual_plaster_id)
      references plaster (workshop_id, id) on delete set null (usual_plaster_id)`.execute(db)
  const references: [table: string, column: string, to: string, then: string][] = [
    ['mould_photo', 'mould_id', 'mould', 'cascade'],
    ['mould_set_member', 'set_id', 'mould_set', 'cascade'],
    ['mould_set_member', 'mould_id', 'mould', 'cascade'],
    ['spoon_test', 'bag_id', 'bag', 'cascade'],
    ['bag', 'plaster_id', 'plaster', 'no action'],
    ['event', 'pour_id', 'pour', 'no action'],
    ['plan_revision', 'pour_id', 'pour', 'no action'],
  ]
  for (const [table, column, to, then] of references)
    await sql`
      alter table ${sql.table(table)} add foreign key (workshop_id, ${sql.ref(column)})
        references ${sql.table(to)} (workshop_id, id) on delete ${sql.raw(then)}`.execute(db)
  const old = [
    'pour_by_age',
    'pour_by_bag',
    'pour_by_mould',
    'event_voids',
    'event_finished',
    'event_mould_damage',
    'event_plan_holds',
    'bag_by_plaster',
    'spoon_test_by_bag',
    'mould_photo_by_mould',
    'mould_set_member_by_mould',
  ]
  for (const index of old) await sql`drop index if exists ${sql.ref(index)}`.execute(db)
  await sql`create index event_by_pour on event (workshop_id, pour_id)`.execute(db)
  await sql`create index bag_by_plaster on bag (workshop_id, plaster_id)`.execute(db)
  await sql`create index spoon_test_by_bag on spoon_test (workshop_id, bag_id, tested_at)`.execute(db)
  await sql`create index mould_photo_by_mould on mould_photo (workshop_id, mould_id, created_at)`.execute(db)
  await sql`create index mould_set_member_by_mould on mould_set_member (workshop_id, mould_id)`.execute(db)
  await sql`create index mould_by_name on mould (workshop_id, name, id)`.execute(db)
}

async function summaries(db: Kysely<unknown>): Promise<void> {
  await sql`create extension if not exists pg_trgm`.execute(db)
  await sql`
    create table pour_summary (
      workshop_id uuid not null default current_workshop() references workshop (id),
      pour_id uuid not null,
      created_at timestamptz not null,
      piece text not null,
      mould text not null,
      plaster text not null,
      -- What a search looks in, in small letters.
      searched text not null,
      consistency double precision,
      mould_id uuid,
      plaster_id uuid,
      actual_consistency double precision,
      is_open boolean not null,
      stage text not null,
      rings jsonb not null,
      verdict text,
      reason text not null,
      -- What is wrong with the record, where it cannot be read.
      unreadable text,
      primary key (workshop_id, pour_id),
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`
    create index pour_summary_by_age on pour_summary (workshop_id, created_at desc, pour_id desc)`.execute(db)
  await sql`
    create index pour_summary_open on pour_summary (workshop_id, created_at desc, pour_id desc) where is_open`.execute(
    db,
  )
  await sql`
    create index pour_summary_by_verdict on pour_summary (workshop_id, verdict, created_at desc, pour_id desc)
    where verdict is not null`.execute(db)
  await sql`
    create index pour_summary_by_job on pour_summary (workshop_id, mould_id, plaster_id, created_at desc)
    where actual_consistency is not null`.execute(db)
  await sql`create index pour_summary_searched on pour_summary using gin (searched gin_trgm_ops)`.execute(db)
  await sql`
    create table bag_draw (
      workshop_id uuid not null default current_workshop() references workshop (id),
      pour_id uuid not null,
      batch integer not null check (batch >= 0),
      bag_id uuid not null,
      drawn_at timestamptz not null,
      mass_g double precision not null,
      primary key (workshop_id, pour_id, batch),
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`create index bag_draw_by_bag on bag_draw (workshop_id, bag_id, drawn_at)`.execute(db)
  await sql`
    alter table bag
      add column taken_g double precision not null default 0,
      add column taken_by_pours integer not null default 0`.execute(db)
  await sql`
    create table mould_use (
      workshop_id uuid not null default current_workshop() references workshop (id),
      pour_id uuid not null,
      mould_id uuid not null,
      count integer not null check (count >= 0),
      piece text not null,
      poured_at timestamptz,
      outcome text not null,
      damages jsonb not null check (jsonb_typeof(damages) = 'array'),
      primary key (workshop_id, pour_id, mould_id),
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`
    create index mould_use_poured on mould_use (workshop_id, mould_id, poured_at desc) where poured_at is not null`.execute(
    db,
  )
  await sql`
    create index mould_use_damaged on mould_use (workshop_id, mould_id) where damages <> '[]'::jsonb`.execute(
    db,
  )
  await sql`alter table mould add column casts_here integer not null default 0`.execute(db)
}

async function changesByWorkshop(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table change
      drop constraint change_topic_check,
      add column event_id uuid,
      add column at timestamptz not null default clock_timestamp(),
      add constraint change_topic_check check (topic in
        ('pour', 'event', 'plaster', 'bag', 'bowl', 'recipe', 'mould', 'mould_set', 'settings'))`.execute(db)
  await sql`create index change_by_age on change (workshop_id, at)`.execute(db)
  // One lock a workshop: numbers are given out in the order of commits, so that no reader's cursor passes one by.
  await sql`
    create function note_change(of_workshop uuid, of_topic text, of_entity text, of_event uuid) returns void
    language plpgsql as $$
    begin
      perform pg_advisory_xact_lock(hashtextextended('nine_ripples.change ' || of_workshop, 0));
      insert into change (workshop_id, topic, entity_id, event_id)
      values (of_workshop, of_topic, of_entity, of_event);
      perform pg_notify('nine_ripples_change', of_workshop::text);
    end $$`.execute(db)
  for (const [table, topic, key, event] of WATCHED) {
    const [trigger, call] = [sql.ref(`${table}_change`), sql.ref(`${table}_changed`)]
    await sql`drop trigger ${trigger} on ${sql.table(table)}`.execute(db)
    await sql`
      create function ${call}() returns trigger language plpgsql as $$
      declare changed ${sql.table(table)};
      begin
        if tg_op = 'DELETE' then changed := old; else changed := new; end if;
        perform note_change(changed.workshop_id, ${sql.lit(topic)}, changed.${sql.ref(key)}::text,
          ${event ? sql`changed.${sql.ref(event)}` : sql`null`});
        return null;
      end $$`.execute(db)
    // At the very end of the transaction: nothing slow happens under the lock, and no other lock is waited for.
    await sql`
      create constraint trigger ${trigger} after insert or update or delete on ${sql.table(table)}
      deferrable initially deferred for each row execute function ${call}()`.execute(db)
  }
  await sql`drop function record_change()`.execute(db)
}

/** Row-level security: the application's own role sees and writes nothing but the workshop its connection is set to. */
async function secondWall(db: Kysely<unknown>): Promise<void> {
  await sql`
    do $$ begin
      create role ripples_app nologin nosuperuser nocreatedb nocreaterole noinherit nobypassrls;
    exception when duplicate_object or unique_violation then null;
    end $$`.execute(db)
  await sql`grant usage on schema public to ripples_app`.execute(db)
  const all = {
    ...TABLES,
    ...Object.fromEntries(SUMMARIES.map((t) => [t, 'select, insert, update, delete'])),
  }
  for (const [table, may] of Object.entries(all)) {
    await sql`alter table ${sql.table(table)} enable row level security`.execute(db)
    await sql`
      create policy own_workshop on ${sql.table(table)} to ripples_app
      using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
    await sql`grant ${sql.raw(may)} on ${sql.table(table)} to ripples_app`.execute(db)
  }
  await sql`alter table workshop enable row level security`.execute(db)
  await sql`
    create policy own_workshop on workshop to ripples_app using (id = current_workshop())`.execute(db)
  await sql`grant select on workshop to ripples_app`.execute(db)
  // There is one, and no sign-in to say which: the first is everybody's.
  await sql`
    create function sole_workshop() returns uuid language sql stable security definer
    set search_path = pg_catalog, public as
    $$ select id from workshop order by created_at, id limit 1 $$`.execute(db)
  // A pattern is no leak-proof condition, so row security would keep the planner from its index. This looks by itself,
  // in the caller's own workshop alone.
  await sql`
    create function search_pours(pattern text, want_open boolean, want_verdict text, before_at timestamptz,
      before_id uuid, most integer) returns setof pour_summary
    language plpgsql stable security definer set search_path = pg_catalog, public as $$
    begin
      return query execute
        'select * from pour_summary where workshop_id = $1 and searched like $2'
        || case when want_open then ' and is_open' when not want_open then ' and not is_open' else '' end
        || case when want_verdict is null then '' else ' and verdict = $3' end
        || case when before_id is null then '' else ' and (created_at, pour_id) < ($4, $5)' end
        || ' order by created_at desc, pour_id desc limit $6'
      using current_workshop(), pattern, want_verdict, before_at, before_id, most;
    end $$`.execute(db)
  await sql`
    create function count_pours(pattern text, want_open boolean, want_verdict text, most integer) returns integer
    language plpgsql stable security definer set search_path = pg_catalog, public as $$
    declare found_here integer;
    begin
      execute
        'select count(*) from (select from pour_summary where workshop_id = $1 and searched like $2'
        || case when want_open then ' and is_open' when not want_open then ' and not is_open' else '' end
        || case when want_verdict is null then '' else ' and verdict = $3' end
        || ' limit $4) as found'
      into found_here using current_workshop(), pattern, want_verdict, most;
      return found_here;
    end $$`.execute(db)
}

/** Revisions for what had none, and photos and events that say a little more of themselves. */
async function revisions(db: Kysely<unknown>): Promise<void> {
  for (const table of ['bowl', 'recipe', 'mould_set', 'settings'])
    await sql`
      alter table ${sql.table(table)} add column revision integer not null default 1 check (revision >= 1)`.execute(
      db,
    )
  // Several in one transaction keep the order they were put in.
  await sql`alter table mould_photo alter column created_at set default clock_timestamp()`.execute(db)
  // When the device's own clock had it, where that was set right by the server's.
  await sql`alter table event add column claimed_at timestamptz`.execute(db)
}

/** Plans knew their plaster and bowl by name: from here on by id, as far as the name still leads to just one. */
async function namesToIds(db: Kysely<unknown>): Promise<void> {
  await sql`alter table pour disable trigger pour_change`.execute(db)
  for (const table of ['pour', 'recipe']) {
    await sql`
      update ${sql.table(table)} set plan = jsonb_set(plan, '{plaster,plasterId}', to_jsonb(known.id))
      from (select name, min(id::text) as id from plaster group by name having count(*) = 1) known
      where plan -> 'plaster' ->> 'name' = known.name and plan -> 'plaster' -> 'plasterId' is null`.execute(
      db,
    )
    await sql`
      update ${sql.table(table)} set plan = jsonb_set(plan, '{batching,bowl,bowlId}', to_jsonb(known.id))
      from (select name, volume_ml, min(id::text) as id from bowl group by name, volume_ml having count(*) = 1) known
      where plan -> 'batching' -> 'bowl' ->> 'name' = known.name
        and (plan -> 'batching' -> 'bowl' ->> 'volumeMl')::float = known.volume_ml`.execute(db)
  }
  await sql`alter table pour enable trigger pour_change`.execute(db)
}

/** Every row belongs to a workshop; what lists show is summed up; changes are numbered for each workshop. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await namesToIds(db)
  await eachRowAWorkshops(db)
  await keysByWorkshop(db)
  await revisions(db)
  await summaries(db)
  await changesByWorkshop(db)
  await secondWall(db)
}
