import { sql } from 'kysely'
import type { CauseId, FaultKind } from '../../core/finish'
import type { Verdict } from '../../core/pour'
import type { Figures } from '../../shared/figures'
import type { Db } from '../db/client'
import { lookThrough } from './learning'

/** Pieces with something wrong, by what it was and by what made it, the most first. */
async function wrongSince(db: Db, since: Date) {
  const { rows } = await sql<{ tag: `fault:${FaultKind}` | `cause:${CauseId}`; casts: number }>`
    select tag, sum(pieces::int)::int as casts
    from pour_summary, jsonb_each_text(tag_pieces) as of (tag, pieces)
    where ended_at >= ${since} and 'faults' = any (teaches)
    group by 1 order by 2 desc, 1`.execute(db)
  const of = <Id extends string>(kind: string) =>
    rows.flatMap(({ tag, casts }) => {
      const [is, id] = tag.split(':')
      return is === kind ? [{ id: id as Id, casts }] : []
    })
  return { faults: of<FaultKind>('fault'), causes: of<CauseId>('cause') }
}

/** What the log comes to since a moment. One pass over the summaries of that time for each chart. */
export async function figuresOf(db: Db, since: Date): Promise<Figures> {
  const pending = await lookThrough(db, 'faults')
  const [months, drying, costs, { causes, faults }] = await Promise.all([
    sql<Record<Verdict, number> & { month: string }>`
      select to_char(date_trunc('month', ended_at), 'YYYY-MM') as month, sum(good)::int as good,
        sum(usable)::int as usable, sum(failed)::int as failed, sum(abandoned)::int as abandoned
      from pour_summary where ended_at >= ${since} group by date_trunc('month', ended_at)
      order by 1`.execute(db),
    sql<{ place: string; days: number; pours: number }>`
      select place_id as place, percentile_cont(0.5) within group (order by dry_days) as days, count(*)::int as pours
      from pour_summary where ended_at >= ${since} and dry_days is not null and place_id is not null
      group by 1 order by 2`.execute(db),
    sql<{ plaster: string; casts: number; cost: number }>`
      select plaster_id as plaster, sum(casts)::int as casts, sum(cost) as cost
      from pour_summary
      where ended_at >= ${since} and cost is not null and plaster_id is not null and casts > 0
      group by 1 order by 3 desc`.execute(db),
    wrongSince(db, since),
  ])
  return {
    months: months.rows.map(({ month, ...verdicts }) => ({ month, verdicts })),
    causes: causes.map(({ id, casts }) => ({ cause: id, casts })),
    faults: faults.map(({ id, casts }) => ({ kind: id, casts })),
    drying: drying.rows.map((r) => ({ placeId: r.place, days: r.days, pours: r.pours })),
    costs: costs.rows.map((r) => ({ plasterId: r.plaster, casts: r.casts, cost: r.cost })),
    pending,
  }
}
