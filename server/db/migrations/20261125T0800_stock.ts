import { sql, type Kysely } from 'kysely'

/** What is in stock and in the cupboard: cards with all their label says, bags with spoon tests, bowls, recipes. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table plaster
      add column label_set_min double precision check (label_set_min between 1 and 240),
      add column label_set_test text not null default 'vicat'
        check (label_set_test in ('initial', 'vicat', 'final')),
      add column label_dry_strength_mpa double precision check (label_dry_strength_mpa between 0.5 and 200),
      add column printed_ratio text not null default '',
      add column additions jsonb not null default '[]'::jsonb check (jsonb_typeof(additions) = 'array'),
      add column revision integer not null default 1 check (revision >= 1)`.execute(db)
  await sql`
    update plaster set printed_ratio = label_consistency || ' parts' where label_consistency is not null`.execute(
    db,
  )
  await sql`
    create table bag (
      id uuid primary key,
      plaster_id uuid not null references plaster (id),
      name text not null check (name <> ''),
      bought_g double precision not null check (bought_g > 0),
      price double precision check (price >= 0),
      opened_on text check (opened_on ~ '^\\d{4}-\\d{2}-\\d{2}$'),
      keeping text not null check (keeping in ('sealed', 'dry_open', 'damp')),
      scoop jsonb check (jsonb_typeof(scoop) = 'object'),
      counted_g double precision check (counted_g >= 0 and counted_g <= bought_g),
      counted_at timestamptz,
      used_up boolean not null default false,
      note text not null default '',
      revision integer not null default 1 check (revision >= 1),
      created_at timestamptz not null default now(),
      check ((counted_g is null) = (counted_at is null))
    )`.execute(db)
  await sql`create index bag_by_plaster on bag (plaster_id)`.execute(db)
  await sql`
    create table spoon_test (
      id uuid primary key,
      bag_id uuid not null references bag (id) on delete cascade,
      tested_at timestamptz not null,
      consistency double precision not null check (consistency between 15 and 200),
      water_temp_c double precision not null,
      stir_s double precision not null check (stir_s > 0),
      took_s double precision not null check (took_s > 0)
    )`.execute(db)
  await sql`create index spoon_test_by_bag on spoon_test (bag_id, tested_at)`.execute(db)
  await sql`
    create table bowl (
      id uuid primary key,
      name text not null check (name <> ''),
      volume_ml double precision not null check (volume_ml > 0),
      tare_g double precision not null check (tare_g >= 0)
    )`.execute(db)
  await sql`
    create table recipe (
      id uuid primary key,
      name text not null check (name <> ''),
      plan jsonb not null check (jsonb_typeof(plan) = 'object')
    )`.execute(db)
  await sql`
    alter table settings
      add column hot_tap_temp_c double precision not null default 50 check (hot_tap_temp_c between 1 and 95),
      add column scale_capacity_g double precision check (scale_capacity_g > 0),
      add column currency text not null default '€' check (currency <> '')`.execute(db)
  // What is left in a bag is a question to the pours out of it.
  await sql`create index pour_by_bag on pour ((plan -> 'plaster' -> 'bag' ->> 'bagId'))`.execute(db)
  await sql`
    alter table event add constraint event_correction_weighs
      check (type not in ('corrected', 'slurry_checked') or coalesce((body ->> 'massG')::double precision, 0) > 0)`.execute(
    db,
  )
  await sql`alter table change drop constraint change_topic_check`.execute(db)
  await sql`
    alter table change add constraint change_topic_check
      check (topic in ('pour', 'plaster', 'bag', 'bowl', 'recipe', 'mould', 'settings'))`.execute(db)
  const watched: [table: string, topic: string, key: string][] = [
    ['bag', 'bag', 'id'],
    ['spoon_test', 'bag', 'bag_id'],
    ['bowl', 'bowl', 'id'],
    ['recipe', 'recipe', 'id'],
  ]
  for (const [table, topic, key] of watched) {
    await sql`
      create trigger ${sql.ref(`${table}_change`)} after insert or update or delete on ${sql.table(table)}
      for each row execute function record_change(${sql.lit(topic)}, ${sql.lit(key)})`.execute(db)
  }
}
