import { sql } from 'kysely'
import type { CauseId, FaultKind } from '../../../core/finish'
import { VERDICTS, type Verdict } from '../../../core/pour'
import type { Figures } from '../../../shared/figures'
import type { Db } from '../../db/client'

interface DaysOf {
  days: number
  pours: number
}

/** How many pours in all, and the middle of their days: of an even number the mean of the two in the middle. */
function middleOf(spells: readonly DaysOf[]): DaysOf {
  const sorted = [...spells].sort((a, b) => a.days - b.days)
  const pours = sorted.reduce((sum, s) => sum + s.pours, 0)
  const at = (rank: number) => {
    let before = 0
    return sorted.find((s) => (before += s.pours) > rank)!.days
  }
  return { pours, days: (at(Math.floor((pours - 1) / 2)) + at(Math.floor(pours / 2))) / 2 }
}

/** What the log comes to in this month and those before it, from sums that are kept with each pour. */
export async function figuresOf(db: Db, months: number): Promise<Omit<Figures, 'pending'>> {
  const since = sql`(date_trunc('month', now()) - make_interval(months => ${months - 1}::integer))::date`
  const [verdicts, { rows }] = await Promise.all([
    sql<{ month: string; verdict: Verdict; casts: number }>`
      select to_char(month, 'YYYY-MM') as month, key as verdict, casts from figure_sum
      where month >= ${since} and kind = 'verdict' and pours > 0 order by 1`.execute(db),
    sql<{ kind: 'tag' | 'drying' | 'cost'; key: string; casts: number; cost: number } & DaysOf>`
      select kind, key, days::float, sum(pours)::int as pours, sum(casts)::int as casts, sum(cost)::float as cost
      from figure_sum where month >= ${since} and kind <> 'verdict'
      group by kind, key, days having sum(pours) > 0`.execute(db),
  ])
  const of = (kind: (typeof rows)[number]['kind']) => rows.filter((r) => r.kind === kind)
  const tagged = <Id extends string>(prefix: string) =>
    of('tag')
      .filter(({ key }) => key.startsWith(prefix))
      .map(({ key, casts }) => ({ id: key.slice(prefix.length) as Id, casts }))
      .sort((a, b) => b.casts - a.casts || (a.id < b.id ? -1 : 1))
  const dried = of('drying')
  return {
    months: [...new Set(verdicts.rows.map((r) => r.month))].map((month) => ({
      month,
      verdicts: Object.fromEntries(
        VERDICTS.map((v) => [v, verdicts.rows.find((r) => r.month === month && r.verdict === v)?.casts ?? 0]),
      ) as Record<Verdict, number>,
    })),
    causes: tagged<CauseId>('cause:').map(({ id, casts }) => ({ cause: id, casts })),
    faults: tagged<FaultKind>('fault:').map(({ id, casts }) => ({ kind: id, casts })),
    drying: [...new Set(dried.map(({ key }) => key))]
      .map((placeId) => ({ placeId, ...middleOf(dried.filter(({ key }) => key === placeId)) }))
      .sort((a, b) => a.days - b.days),
    costs: of('cost')
      .map(({ key, casts, cost }) => ({ plasterId: key, casts, cost }))
      .sort((a, b) => b.cost - a.cost),
  }
}
