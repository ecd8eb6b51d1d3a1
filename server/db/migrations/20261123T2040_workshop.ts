import { sql, type Kysely } from 'kysely'

/** What a workshop owns: plasters, moulds and its settings. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table plaster (
      id uuid primary key,
      name text not null check (name <> ''),
      class_id text not null check (class_id in
        ('pop', 'pottery', 'gc', 'lowexp', 'hsgc', 'dental2', 'dental3', 'dental4', 'investment')),
      label_consistency double precision check (label_consistency between 15 and 200),
      label_expansion_pct double precision check (label_expansion_pct between -1 and 3),
      note text not null default ''
    )`.execute(db)
  await sql`
    create table mould (
      id uuid primary key,
      name text not null check (name <> ''),
      kind text not null,
      cavity_ml double precision not null check (cavity_ml > 0 and cavity_ml <= 500000),
      volume_provenance jsonb not null,
      thickness_mm double precision not null check (thickness_mm > 0 and thickness_mm <= 500),
      usual_plaster_id uuid references plaster (id) on delete set null,
      note text not null default ''
    )`.execute(db)
  // One workshop, one row: the key can only ever be true.
  await sql`
    create table settings (
      only_row boolean primary key default true check (only_row),
      workshop_name text not null check (workshop_name <> ''),
      system text not null check (system in ('metric', 'us', 'imperial')),
      scale_division_g double precision not null check (scale_division_g > 0),
      room_temp_c double precision not null check (room_temp_c between -10 and 50),
      room_rh_pct double precision not null check (room_rh_pct between 1 and 96),
      air_speed_m_s double precision not null check (air_speed_m_s > 0),
      tap_temp_c double precision not null check (tap_temp_c between 1 and 45)
    )`.execute(db)
  await sql`
    insert into settings (workshop_name, system, scale_division_g, room_temp_c, room_rh_pct, air_speed_m_s, tap_temp_c)
    values ('My workshop', 'metric', 1, 20, 50, 0.1, 15)`.execute(db)
}
