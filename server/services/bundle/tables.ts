import Papa from 'papaparse'
import { sql } from 'kysely'
import type { Db } from '../../db/client'

/** Every table as CSV, for whoever reads no JSON; a piece at a time. Times in ISO 8601, UTC. */
export const TABLES = {
  casts: sql`
    select s.pour_id, s.created_at, s.piece, s.mould, s.plaster, s.consistency, s.actual_consistency, s.stage,
      s.verdict, s.good, s.usable, s.failed, s.abandoned, s.reason, s.casts, s.cost, s.dry_days, s.ended_at
    from pour_summary s order by s.created_at, s.pour_id`,
  weighings: sql`
    select e.pour_id, s.piece, e.occurred_at, (e.body ->> 'massG')::float as mass_g, e.who
    from event e join pour_summary s using (pour_id)
    where e.type = 'weighing' and not exists (select from event v where v.pour_id = e.pour_id and v.voids_event_id = e.id)
    order by e.pour_id, e.occurred_at`,
  temperatures: sql`
    select e.pour_id, s.piece, e.occurred_at, e.body ->> 'place' as place, (e.body ->> 'tempC')::float as temp_c, e.who
    from event e join pour_summary s using (pour_id)
    where e.type = 'temperature' and not exists (select from event v where v.pour_id = e.pour_id and v.voids_event_id = e.id)
    order by e.pour_id, e.occurred_at`,
  readings: sql`
    select pour_id, device_id, channel, batch, at, value, stable from reading order by pour_id, device_id, channel, at`,
  events: sql`
    select e.pour_id, s.piece, e.occurred_at, e.type, e.who, e.body::text as body
    from event e join pour_summary s using (pour_id)
    where not exists (select from event v where v.pour_id = e.pour_id and v.voids_event_id = e.id) and e.type <> 'void'
    order by e.pour_id, e.occurred_at, e.id`,
  plasters: sql`
    select id, name, class_id, label_consistency, label_set_min, label_set_test, label_expansion_pct,
      label_dry_strength_mpa, printed_ratio, note from plaster order by name, id`,
  bags: sql`
    select id, plaster_id, name, bought_g, price, opened_on, keeping, taken_g, used_up, note from bag order by created_at, id`,
  spoon_tests: sql`
    select bag_id, tested_at, consistency, water_temp_c, stir_s, took_s from spoon_test order by bag_id, tested_at`,
  bowls: sql`select id, name, volume_ml, tare_g from bowl order by name, id`,
  places: sql`select id, name, kind, air::text, night_air::text from place order by name, id`,
  moulds: sql`
    select id, name, kind, cavity_ml, plus_minus_ml, thickness_mm, thinnest_mm, purpose, is_spill, casts_before,
      casts_here, life_casts, note from mould order by name, id`,
} as const
export type TableName = keyof typeof TABLES
export const TABLE_NAMES = Object.keys(TABLES) as TableName[]

const PIECE = 2000

const plain = (value: unknown) => (value instanceof Date ? value.toISOString() : value)

/** One table, in pieces of a few thousand rows. */
export async function* tableCsv(db: Db, name: TableName): AsyncGenerator<string> {
  // A cursor holds one state of the table, and hands its rows out as they are wanted.
  const trx = await db.startTransaction().execute()
  try {
    await sql`declare rows no scroll cursor for ${TABLES[name]}`.execute(trx)
    for (let header = true; ; header = false) {
      const { rows } = await sql<Record<string, unknown>>`fetch ${sql.lit(PIECE)} from rows`.execute(trx)
      if (rows.length === 0) return
      const shown = rows.map((r) => Object.fromEntries(Object.entries(r).map(([k, v]) => [k, plain(v)])))
      yield `${Papa.unparse(shown, { header, escapeFormulae: true })}\r\n`
    }
  } finally {
    await trx.rollback().execute()
  }
}
