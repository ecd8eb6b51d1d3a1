import type { UpkeepLine } from '../../../shared/upkeep'
import type { Db } from '../../db/client'

/** More is no list for a bench. */
const MOST = 50

/** What pieces in use want, the longest due first. */
export async function listUpkeep(db: Db): Promise<UpkeepLine[]> {
  const rows = await db
    .selectFrom('pour_summary')
    .select(['pour_id', 'piece', 'upkeep_act', 'upkeep_at'])
    .where('upkeep_at', 'is not', null)
    .orderBy('upkeep_at')
    .orderBy('pour_id')
    .limit(MOST)
    .execute()
  return rows.map((r) => ({
    pourId: r.pour_id,
    piece: r.piece,
    act: r.upkeep_act!,
    fromMs: r.upkeep_at!.getTime(),
  }))
}
