import { sql, type Kysely } from 'kysely'

/** What a workshop holds, what hangs on a row before that row. Its settings and the numbers of its change log are no contents. */
const CONTENTS = [
  'heed',
  'pour_summary',
  'figure_sum',
  'observation',
  'learn_choice',
  'place',
  'bag_draw',
  'mould_use',
  'photo',
  'reading',
  'device_use',
  'device',
  'settling',
  'event',
  'plan_revision',
  'pour',
  'mould_set_member',
  'mould_set',
  'mould',
  'spoon_test',
  'bag',
  'plaster',
  'bowl',
  'recipe',
]

/** Several workshops on one server: they are made, listed, and, where they are only for looking round in, emptied. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table workshop add column is_demo boolean not null default false`.execute(db)
  // There is one for looking round in, whoever makes it first.
  await sql`create unique index workshop_demo on workshop (is_demo) where is_demo`.execute(db)
  await sql`grant insert on workshop, settings to ripples_definer`.execute(db)
  await sql`grant select on settings to ripples_definer`.execute(db)
  await sql`grant select, delete on ${sql.join(CONTENTS.map((t) => sql.table(t)))} to ripples_definer`.execute(
    db,
  )
  // Summaries that go are taken off its sums.
  await sql`grant insert, update on figure_sum to ripples_definer`.execute(db)
  await sql`drop function sole_workshop()`.execute(db)
  // What this machine opens at first touch.
  await sql`
    create function home_workshop() returns uuid language sql stable security definer as
    $$ select id from workshop where not is_demo order by created_at, id limit 1 $$`.execute(db)
  await sql`
    create function workshops_here() returns table (id uuid, name text, is_demo boolean, created_at timestamptz)
    language sql stable security definer as $$
      select w.id, s.workshop_name, w.is_demo, w.created_at
      from workshop w join settings s on s.workshop_id = w.id order by w.created_at, w.id
    $$`.execute(db)
  // The connection's own; again, and it is there.
  await sql`
    create function make_workshop(demo boolean) returns void language plpgsql security definer as $$
    begin
      insert into workshop (id, is_demo) values (current_workshop(), demo) on conflict do nothing;
      if not found then return; end if;
      insert into settings (workshop_id, workshop_name, system, scale_division_g, room_temp_c, room_rh_pct,
        air_speed_m_s, tap_temp_c)
      values (current_workshop(), 'My workshop', 'metric', 1, 20, 50, 0.1, 15);
    end $$`.execute(db)
  await sql`
    create or replace function event_is_append_only() returns trigger language plpgsql as $$
    begin
      -- Nobody enters as it: this is a whole workshop that is emptied.
      if tg_op = 'DELETE' and current_user = 'ripples_definer' then return old; end if;
      raise exception 'events are never changed or deleted' using errcode = 'restrict_violation';
    end $$`.execute(db)
  // The connection's own, and by the application only one that is for looking round in.
  await sql`
    create function clear_workshop() returns void language plpgsql security definer as $$
    begin
      if session_user = 'ripples_app'
        and not exists (select from workshop where id = current_workshop() and is_demo) then
        raise exception 'only a demo is emptied' using errcode = '42501';
      end if;
      ${sql.raw(CONTENTS.map((t) => `delete from ${t} where workshop_id = current_workshop();`).join('\n      '))}
    end $$`.execute(db)
  for (const signature of [
    'home_workshop()',
    'workshops_here()',
    'make_workshop(boolean)',
    'clear_workshop()',
  ]) {
    await sql`alter function ${sql.raw(signature)} set search_path = pg_catalog, public, pg_temp`.execute(db)
    await sql`alter function ${sql.raw(signature)} owner to ripples_definer`.execute(db)
  }
}
