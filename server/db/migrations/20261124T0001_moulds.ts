import { sql, type Kysely } from 'kysely'

/** Moulds as they are described, with sets and photos. What was on the shelf keeps its volume as one known before. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table mould
      add column purpose text not null default 'figure',
      add column facts jsonb,
      add column volume jsonb,
      add column plus_minus_ml double precision check (plus_minus_ml >= 0),
      add column thinnest_mm double precision check (thinnest_mm >= 0),
      add column is_spill boolean not null default false,
      add column casts_before integer not null default 0 check (casts_before >= 0),
      add column life_casts integer check (life_casts > 0),
      add column revision integer not null default 1 check (revision >= 1),
      add column created_at timestamptz not null default now()`.execute(db)
  await sql`
    update mould set
      plus_minus_ml = cavity_ml * 0.05,
      volume = jsonb_build_object(
        'parts', jsonb_build_array(jsonb_build_object('role', 'add', 'count', 1, 'method',
          jsonb_build_object('by', 'known', 'volumeMl', cavity_ml, 'plusMinusPct', 5))),
        'cavities', 1, 'check', null, 'trust', 'parts'),
      facts = jsonb_build_object(
        'material', case kind
          when 'plaster_piece' then 'plaster' when 'box' then 'wood' when 'waste_clay' then 'wet_clay'
          when 'impression_tray' then 'impression_compound' when 'shell' then 'wet_clay'
          when 'ground' then 'sand_soil' else kind end,
        'flex', case when kind in ('plaster_piece', 'box', 'impression_tray') then 'rigid'
          when kind = 'rigid_plastic' then 'springy' else 'flexible' end,
        'build', 'one_piece',
        'oneTime', kind in ('waste_clay', 'alginate', 'impression_tray', 'shell', 'ground'),
        'support', 'none', 'opening', 'wide', 'undercut', 'none', 'airTraps', '[]'::jsonb)`.execute(db)
  await sql`
    alter table mould
      alter column facts set not null,
      alter column volume set not null,
      alter column plus_minus_ml set not null,
      add check (jsonb_typeof(facts) = 'object'),
      add check (jsonb_typeof(volume) = 'object')`.execute(db)
  await sql`
    create table mould_photo (
      id uuid primary key,
      mould_id uuid not null references mould (id) on delete cascade,
      caption text not null default '',
      width_px integer not null check (width_px > 0),
      height_px integer not null check (height_px > 0),
      full_jpeg bytea not null,
      thumb_jpeg bytea not null,
      created_at timestamptz not null default now()
    )`.execute(db)
  await sql`create index mould_photo_by_mould on mould_photo (mould_id, created_at)`.execute(db)
  await sql`
    create table mould_set (
      id uuid primary key,
      name text not null check (name <> '')
    )`.execute(db)
  await sql`
    create table mould_set_member (
      set_id uuid not null references mould_set (id) on delete cascade,
      mould_id uuid not null references mould (id) on delete cascade,
      count integer not null check (count > 0),
      primary key (set_id, mould_id)
    )`.execute(db)
  await sql`create index mould_set_member_by_mould on mould_set_member (mould_id)`.execute(db)
  // How often a mould was poured is a question to the plans.
  await sql`
    create index pour_by_mould on pour using gin ((plan -> 'mould' -> 'members') jsonb_path_ops)`.execute(db)
  await sql`
    create index event_mould_damage on event ((body ->> 'mouldId')) where type = 'mould_damage'`.execute(db)
  const watched: [table: string, key: string][] = [
    ['mould_photo', 'mould_id'],
    ['mould_set', 'id'],
    ['mould_set_member', 'set_id'],
  ]
  for (const [table, key] of watched) {
    await sql`
      create trigger ${sql.ref(`${table}_change`)} after insert or update or delete on ${sql.table(table)}
      for each row execute function record_change('mould', ${sql.lit(key)})`.execute(db)
  }
}
