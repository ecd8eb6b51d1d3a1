import { sql } from 'kysely'
import type { z } from 'zod'
import { VERDICTS } from '../../../core/pour'
import type { jobQuerySchema, listQuerySchema } from '../../../shared/contracts'
import { MOST_COUNTED, type CastLine, type CastPage } from '../../../shared/records'
import type { Db } from '../../db/client'
import type { PourSummaryRow } from '../../db/schema'
import { pageOf, readKey, requireId } from '../paging'

/** What lists say of pours: from their summaries, never from their events. */

const endedOf = (r: PourSummaryRow): CastLine['ended'] =>
  Object.fromEntries(VERDICTS.flatMap((v) => (r[v] > 0 ? [[v, r[v]]] : [])))

const lineOf = (r: PourSummaryRow): CastLine => ({
  id: r.pour_id,
  createdAtMs: r.created_at.getTime(),
  piece: r.piece,
  mould: r.mould,
  plaster: r.plaster,
  consistency: r.consistency,
  open: r.is_open,
  stage: r.stage,
  rings: r.rings,
  verdict: r.verdict,
  ended: endedOf(r),
  casts: r.casts,
  reason: r.reason,
  unreadable: r.unreadable !== null,
})

const OPEN = { open: true, closed: false, all: null } as const

/** One or two letters are in almost every text and in no index: they are looked for where words begin. */
const SHORT = 3

/** In small letters, as what is looked in; a percent sign is a character to find. */
function patternOf(q: string): string {
  const words = q.toLowerCase().replace(/[\\%_]/g, '\\$&')
  return words.length > 0 && words.length < SHORT ? `% ${words}%` : `%${words}%`
}

/** The log, newest first. `state` open: no ending that counts. `q` looks in the piece, the mould's and the plaster's name. */
export async function listCasts(db: Db, query: z.output<typeof listQuerySchema>): Promise<CastPage> {
  const key = readKey(query.after, 2)
  const pattern = patternOf(query.q)
  const [open, verdict] = [OPEN[query.state], query.verdict ?? null]
  const [found, counted] = await Promise.all([
    sql<PourSummaryRow>`
      select * from search_pours(${pattern}, ${open}::boolean, ${verdict}::text, ${query.tags}::text[], ${key?.[0] ?? null}::timestamptz,
        ${key ? requireId(key[1]!) : null}::uuid, ${query.limit + 1})`.execute(db),
    sql<{ total: number }>`
      select count_pours(${pattern}, ${open}::boolean, ${verdict}::text, ${query.tags}::text[], ${MOST_COUNTED}) as total`.execute(
      db,
    ),
  ])
  return {
    ...pageOf(found.rows, query.limit, lineOf, (r) => [r.created_at.toISOString(), r.pour_id]),
    total: counted.rows[0]!.total,
  }
}

/** At what consistency this mould was last really mixed with this plaster. */
export async function lastMixed(
  db: Db,
  { mouldId, plasterId }: z.output<typeof jobQuerySchema>,
): Promise<{ consistency: number | null }> {
  const row = await db
    .selectFrom('pour_summary')
    .select('actual_consistency')
    .where('mould_id', '=', mouldId)
    .where('plaster_id', '=', plasterId)
    .where('actual_consistency', 'is not', null)
    .orderBy('created_at', 'desc')
    .limit(1)
    .executeTakeFirst()
  return { consistency: row?.actual_consistency ?? null }
}
