import type { HeedLine } from '../../../shared/heeds'
import type { Db } from '../../db/client'

/** More is kept in nobody's mind: the newest count. */
const MOST = 1000

/** Causes that were accepted and not mended since, the newest first. */
export async function listHeeds(db: Db): Promise<HeedLine[]> {
  const rows = await db
    .selectFrom('heed as h')
    .innerJoin('pour_summary as s', 's.pour_id', 'h.pour_id')
    .select(['h.pour_id', 'h.subject', 'h.cause', 'h.at', 's.piece'])
    .orderBy('h.at', 'desc')
    .limit(MOST)
    .execute()
  return rows.map((r) => ({
    pourId: r.pour_id,
    piece: r.piece,
    subject: r.subject,
    cause: r.cause,
    atMs: r.at.getTime(),
  }))
}
