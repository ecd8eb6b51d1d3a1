import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { takePlan, planMould, summarisePour, type PourEvent } from '../core/pour'
import { wholeRun, testPlan } from '../tests/unit/plans'
import type { TestDatabase } from '../tests/support/database'
import { putBag } from '../server/services/shelf/bags'
import { insertMould } from '../server/services/shelf/moulds'
import { putPlaster } from '../server/services/shelf/plasters'
import { faultTags, rebuildSummaries, searchable, sumFigures } from '../server/services/pours/summaries'
import { poursById } from '../server/services/pours/pourRecords'
import { mouldInputSchema } from '../shared/moulds'
import { DEMO_PLASTERS } from '../server/demo/plasters'
import { DEMO_MOULDS } from '../server/demo/moulds'

const MOULDS = 100
const BAGS = 60
const TEMPLATES = 120
/** So many of the newest have not been looked through for what they teach. */
const UNSEEN = 40

/**
 * Fills a workshop with pours that have ended, about 14 events each, of varied moulds, bags and verdicts: for measuring
 * only. A few are made as the application makes them, the rest are copies under other ids and days.
 */
export async function fillWorkshop({ owner, db, workshopId }: TestDatabase, pours: number): Promise<void> {
  const described = Object.values(DEMO_MOULDS).map(({ plaster: _, ...mould }) => mould)
  const mouldIds = Array.from({ length: MOULDS }, () => randomUUID())
  for (const [i, id] of mouldIds.entries()) {
    const mould = described[i % described.length]!
    await insertMould(
      db,
      id,
      mouldInputSchema.parse({ ...mould, name: `${mould.name} ${i}`, usualPlasterId: null }),
    )
  }
  const plasterId = randomUUID()
  await putPlaster(db, plasterId, null, { ...DEMO_PLASTERS.pottery, name: 'Measured plaster' })
  const bagIds = Array.from({ length: BAGS }, () => randomUUID())
  for (const [i, id] of bagIds.entries())
    await putBag(db, id, null, {
      plasterId,
      name: `Sack ${i}`,
      boughtG: 2_000_000,
      price: 20,
      openedOn: null,
      keeping: 'sealed',
      scoop: null,
      counted: null,
      usedUp: false,
      note: '',
    })
  const run = wholeRun().filter((e) => e.body.type !== 'finished')
  const verdicts = ['good', 'usable', 'failed', 'good', 'good'] as const
  const templates = Array.from({ length: Math.min(TEMPLATES, pours) }, (_, i) => {
    const mould = described[i % described.length]!
    const mouldId = mouldIds[i % MOULDS]!
    const base = testPlan('pottery', { piece: `Measured piece ${i}` })
    const plan = takePlan({
      ...base,
      mould: planMould([
        { ...mouldInputSchema.parse({ ...mould, usualPlasterId: null }), mouldId, count: 1 },
      ])!,
      plaster: {
        ...base.plaster,
        plasterId,
        bag: { bagId: bagIds[i % BAGS]!, name: `Sack ${i % BAGS}`, boughtG: 2_000_000, price: 20 },
      },
    })
    const end: PourEvent = {
      id: randomUUID(),
      occurredAtMs: run.at(-1)!.occurredAtMs + 86_400_000,
      who: 'Mina',
      body: { type: 'finished', verdict: verdicts[i % verdicts.length]!, reason: 'as measured' },
    }
    const fault: PourEvent = {
      id: randomUUID(),
      occurredAtMs: run.at(-1)!.occurredAtMs + 1000,
      who: 'Mina',
      body: { type: 'defect', kind: 'air_holes' },
    }
    const failed = end.body.type === 'finished' && end.body.verdict === 'failed'
    return { id: randomUUID(), plan, events: [...run, ...(failed ? [fault] : []), end] }
  })
  await owner.connection().execute(async (connection) => {
    const set = (name: string, value: string) =>
      sql`select set_config(${name}, ${value}, false)`.execute(connection)
    await set('nine_ripples.workshop', workshopId)
    // Neither numbered as changes nor checked row by row: nobody is looking yet.
    await set('session_replication_role', 'replica')
    await sql`create temporary table template (n integer, id uuid, plan jsonb)`.execute(connection)
    await sql`create temporary table template_event (template uuid, type text, body jsonb, at timestamptz)`.execute(
      connection,
    )
    for (const [n, { id, plan, events }] of templates.entries()) {
      await sql`insert into template values (${n}, ${id}, ${JSON.stringify(plan)})`.execute(connection)
      for (const e of events)
        await sql`insert into template_event values (${id}, ${e.body.type}, ${JSON.stringify(e.body)},
          ${new Date(e.occurredAtMs)})`.execute(connection)
    }
    await sql`
      create temporary table copy as
      select gen_random_uuid() as id, t.id as template, now() - g.n * interval '5 minutes' as at, g.n
      from generate_series(1, ${pours}::int) as g (n) join template t on t.n = g.n % ${templates.length}::int`.execute(
      connection,
    )
    await sql`
      insert into pour (id, plan, created_at)
      select c.id, jsonb_set(t.plan, '{piece}', to_jsonb((t.plan ->> 'piece') || ' no ' || c.n)), c.at
      from copy c join template t on t.id = c.template`.execute(connection)
    await sql`
      insert into event (id, pour_id, type, body, occurred_at, who, plan_revision)
      select gen_random_uuid(), c.id, e.type, e.body, c.at + (e.at - first.at), 'Mina', 1
      from copy c join template_event e on e.template = c.template
      cross join (select min(at) as at from template_event) first`.execute(connection)
    for (const { id, plan, events } of templates) {
      const sum = summarisePour(plan, events, 1)
      const [draw] = sum.draws
      const [use] = sum.uses
      await sql`
        insert into pour_summary (pour_id, created_at, piece, mould, plaster, searched, consistency, mould_id, plaster_id,
          actual_consistency, is_open, stage, rings, verdict, good, usable, failed, abandoned,
          tag_pieces, reason, tags, teaches, is_observed, event_count, casts, cost,
          dry_days, place_id, ended_at)
        select c.id, c.at, ${sum.piece} || ' no ' || c.n, ${sum.mould}, ${sum.plaster},
          ${searchable(sum.piece)} || ' no ' || c.n || ${`\n${searchable(sum.mould, sum.plaster)}`}, ${sum.consistency},
          ${sum.mouldId ?? null}::uuid, ${sum.plasterId ?? null}::uuid, ${sum.actualConsistency ?? null}, ${sum.open},
          ${sum.stage}, ${JSON.stringify(sum.rings)}, ${sum.verdict ?? null},
          ${sum.ended.good ?? 0}, ${sum.ended.usable ?? 0}, ${sum.ended.failed ?? 0}, ${sum.ended.abandoned ?? 0},
          ${JSON.stringify({ ...faultTags(sum), ...(sum.verdict === 'failed' ? { 'cause:no_tap': 1 } : {}) })}, ${sum.reason},
          ${[...sum.tags, ...(sum.verdict === 'failed' ? ['cause:no_tap'] : [])]}::text[], ${sum.teaches}::text[], c.n > ${UNSEEN},
          ${events.length}, ${sum.casts}, ${sum.cost ?? null}::float, ${sum.dryDays ?? null}::float, ${sum.placeId ?? null}::uuid, c.at + interval '2 days'
        from copy c where c.template = ${id}`.execute(connection)
      if (draw)
        await sql`
          insert into bag_draw (pour_id, batch, bag_id, drawn_at, mass_g)
          select c.id, 0, ${draw.bagId}, c.at, ${draw.massG} from copy c where c.template = ${id}`.execute(
          connection,
        )
      if (use)
        await sql`
          insert into mould_use (pour_id, mould_id, count, piece, poured_at, outcomes, faults, damages)
          select c.id, ${use.mouldId}, ${use.count}, ${sum.piece} || ' no ' || c.n, c.at,
            ${JSON.stringify(use.outcomes)}, ${use.faults}::text[], ${JSON.stringify(use.damages)}
          from copy c where c.template = ${id}`.execute(connection)
    }
    await sql`drop table template, template_event, copy`.execute(connection)
    await set('session_replication_role', 'origin')
  })
  await sql`analyze`.execute(owner)
  await sumFigures(db)
  // Nothing is missing: this only sets the running sums.
  const rebuilt = await rebuildSummaries(db, 'missing', poursById)
  if (rebuilt > 0) throw new Error(`${rebuilt} pours had no summary`)
}
