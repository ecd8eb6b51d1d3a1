import { sql, type Kysely } from 'kysely'

/**
 * What the log comes to, summed up by month as pours are recorded: a year is read in a few thousand lines, however many
 * pours it had. Of drying the days are kept to a tenth, so that the middle one can be found.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table figure_sum (
      workshop_id uuid not null default current_workshop() references workshop (id),
      month date not null,
      kind text not null check (kind in ('verdict', 'tag', 'drying', 'cost')),
      key text not null,
      days numeric not null default 0,
      pours integer not null,
      casts integer not null,
      cost numeric not null,
      primary key (workshop_id, month, kind, key, days)
    )`.execute(db)
  await sql`alter table figure_sum enable row level security`.execute(db)
  await sql`
    create policy own_workshop on figure_sum to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, update, delete on figure_sum to ripples_app`.execute(db)
  await sql`
    create function figure_lines(s pour_summary)
    returns table (month date, kind text, key text, days numeric, casts integer, cost numeric)
    language sql stable as $$
      select date_trunc('month', s.ended_at)::date, of.* from (
        select 'verdict', verdict, 0::numeric, n, 0::numeric
        from (values ('good', s.good), ('usable', s.usable), ('failed', s.failed), ('abandoned', s.abandoned)) as v (verdict, n)
        where n > 0
        union all
        select 'tag', tag, 0, n::integer, 0 from jsonb_each_text(s.tag_pieces) as t (tag, n) where 'faults' = any (s.teaches)
        union all
        select 'drying', s.place_id::text, round(s.dry_days::numeric, 1), 0, 0
        where s.place_id is not null and s.dry_days is not null
        union all
        select 'cost', s.plaster_id::text, 0, s.casts, s.cost::numeric
        where s.plaster_id is not null and s.cost is not null and s.casts > 0
      ) as of where s.ended_at is not null
    $$`.execute(db)
  await sql`
    create function sum_figures() returns trigger language plpgsql as $$
    begin
      insert into figure_sum as sum (workshop_id, month, kind, key, days, pours, casts, cost)
      select coalesce(new.workshop_id, old.workshop_id), month, kind, key, days, sum(d.pours), sum(d.casts), sum(d.cost)
      from (
        select l.*, 1 as pours from figure_lines(new) as l
        union all
        select month, kind, key, days, -casts, -cost, -1 from figure_lines(old)
      ) as d
      group by month, kind, key, days
      having (sum(d.pours), sum(d.casts), sum(d.cost)) <> (0, 0, 0)
      -- Always in the same order, so that two who end pours wait for each other and never both.
      order by month, kind, key, days
      on conflict (workshop_id, month, kind, key, days) do update set
        pours = sum.pours + excluded.pours, casts = sum.casts + excluded.casts, cost = sum.cost + excluded.cost;
      return null;
    end $$`.execute(db)
  await sql`
    create trigger figures_put after insert on pour_summary
    for each row when (new.ended_at is not null) execute function sum_figures()`.execute(db)
  await sql`
    create trigger figures_changed after update on pour_summary
    for each row when (new.ended_at is not null or old.ended_at is not null) execute function sum_figures()`.execute(
    db,
  )
  await sql`
    create trigger figures_taken after delete on pour_summary
    for each row when (old.ended_at is not null) execute function sum_figures()`.execute(db)
  // What has not been looked through for its causes is asked for with every answer, and is a few of very many.
  await sql`
    create index pour_summary_unseen on pour_summary (workshop_id, is_observed, created_at desc)`.execute(db)
  await sql`
    insert into figure_sum (workshop_id, month, kind, key, days, pours, casts, cost)
    select s.workshop_id, l.month, l.kind, l.key, l.days, count(*), sum(l.casts), sum(l.cost)
    from pour_summary s, figure_lines(s) as l group by 1, 2, 3, 4, 5`.execute(db)
}
