import { sql, type Kysely } from 'kysely'

const VERDICTS = ['good', 'usable', 'failed', 'abandoned']

/**
 * Six casts of one pour are six casts: summaries count pieces by their verdict and by what is wrong with them, and the log is
 * asked for pours with any piece of a verdict. What was summed up before is of pours whose pieces all came to the same.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table pour_summary
      ${sql.raw(VERDICTS.map((v) => `add column ${v} integer not null default 0 check (${v} >= 0)`).join(', '))},
      add column tag_pieces jsonb not null default '{}' check (jsonb_typeof(tag_pieces) = 'object')`.execute(
    db,
  )
  await sql`
    alter table mould_use
      add column outcomes jsonb not null default '{}' check (jsonb_typeof(outcomes) = 'object'),
      add column faults text[] not null default '{}'`.execute(db)
  await sql`
    create temporary table pieces_of on commit drop as
    select p.workshop_id, p.id as pour_id, m.of ->> 'mouldId' as mould_id,
      sum((m.of ->> 'count')::int * coalesce((m.of -> 'volume' ->> 'cavities')::int, 1))::int as pieces
    from pour p cross join lateral jsonb_array_elements(
      case jsonb_typeof(p.plan -> 'mould' -> 'members') when 'array' then p.plan -> 'mould' -> 'members' else '[]' end
    ) as m (of)
    group by 1, 2, 3`.execute(db)
  await sql`
    update pour_summary s set
      ${sql.raw(VERDICTS.map((v) => `${v} = case when s.verdict = '${v}' then n.pieces else 0 end`).join(', '))},
      tag_pieces = coalesce(
        (select jsonb_object_agg(tag, n.pieces) from unnest(s.tags) as tag where tag like 'fault:%' or tag like 'cause:%'),
        '{}')
    from (
      select s.workshop_id, s.pour_id, coalesce(sum(o.pieces), 1)::int as pieces
      from pour_summary s left join pieces_of o using (workshop_id, pour_id) group by 1, 2
    ) n
    where n.workshop_id = s.workshop_id and n.pour_id = s.pour_id and s.unreadable is null
      and (s.verdict is not null or 'faults' = any (s.teaches))`.execute(db)
  await sql`
    update mould_use u set
      outcomes = jsonb_build_object(u.outcome, o.pieces),
      faults = array(
        select substr(tag, 7) from pour_summary s, unnest(s.tags) as tag
        where s.workshop_id = u.workshop_id and s.pour_id = u.pour_id and tag like 'fault:%')
    from pieces_of o
    where o.workshop_id = u.workshop_id and o.pour_id = u.pour_id and o.mould_id = u.mould_id::text`.execute(
    db,
  )
  await sql`alter table mould_use drop column outcome`.execute(db)
  await sql`drop index pour_summary_by_verdict`.execute(db)
  for (const verdict of VERDICTS)
    await sql`
      create index ${sql.ref(`pour_summary_${verdict}`)} on pour_summary (workshop_id, created_at desc, pour_id desc)
      where ${sql.ref(verdict)} > 0`.execute(db)
  await sql`drop index pour_summary_ended`.execute(db)
  await sql`
    create index pour_summary_ended on pour_summary (workshop_id, ended_at desc)
    include (good, usable, failed, abandoned, place_id, dry_days, plaster_id, casts, cost)
    where ended_at is not null`.execute(db)
  await sql`drop function search_pours`.execute(db)
  await sql`drop function count_pours`.execute(db)
  // As before; a verdict is that of any piece. A name of a column is put in only where it is one of the four.
  const where = `
        where workshop_id = $1 and searched like $2'
        || case when want_open then ' and is_open' when not want_open then ' and not is_open' else '' end
        || case when want_verdict in (${VERDICTS.map((v) => `'${v}'`).join(', ')})
           then format(' and %I > 0', want_verdict) else '' end
        || case when cardinality(want_tags) = 0 then '' else ' and tags @> $3' end`
  await sql`
    create function search_pours(pattern text, want_open boolean, want_verdict text, want_tags text[],
      before_at timestamptz, before_id uuid, most integer) returns setof pour_summary
    language plpgsql stable security definer set search_path = pg_catalog, public as $$
    begin
      return query execute 'select * from pour_summary ${sql.raw(where)}
        || case when before_id is null then '' else ' and (created_at, pour_id) < ($4, $5)' end
        || ' order by created_at desc, pour_id desc limit $6'
      using current_workshop(), pattern, want_tags, before_at, before_id, most;
    end $$`.execute(db)
  await sql`
    create function count_pours(pattern text, want_open boolean, want_verdict text, want_tags text[], most integer)
    returns integer
    language plpgsql stable security definer set search_path = pg_catalog, public as $$
    declare found_here integer;
    begin
      execute 'select count(*) from (select from pour_summary ${sql.raw(where)} || ' limit $4) as found'
      into found_here using current_workshop(), pattern, want_tags, most;
      return found_here;
    end $$`.execute(db)
}
