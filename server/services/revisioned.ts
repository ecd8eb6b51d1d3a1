import { isDeepStrictEqual } from 'node:util'
import type { Db } from '../db/client'
import type { Columns, Database } from '../db/schema'
import { DomainError } from './domainError'

/** Tables whose rows are changed only by those who saw their latest state. */
type Revisioned = 'plaster' | 'bag' | 'bowl' | 'place' | 'recipe' | 'mould' | 'mould_set'

/**
 * Puts a new row in (`seenRevision` null) or changes the one the caller saw. Sending the same again is harmless: what is
 * there already, word for word, is an answer like any other.
 * @param wanted what it is to say; `readNow` gives what it says.
 * @returns whether a row was written.
 * @throws DomainError card_id_conflict, stale_card (with what is there) or not_found.
 */
export async function putRevisioned<Table extends Revisioned, Input>(
  db: Db,
  table: Table,
  id: string,
  seenRevision: number | null,
  columns: Columns<Database[Table]>,
  wanted: Input,
  readNow: (db: Db) => Promise<{ input: Input; card: unknown }>,
): Promise<boolean> {
  // All of these tables have an id and a revision; what else they hold, `columns` has by its type.
  const at = table as Revisioned as 'plaster'
  if (seenRevision === null) {
    const inserted = await db
      .insertInto(at)
      .values({ id, ...columns } as never)
      .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
      .returning('id')
      .executeTakeFirst()
    if (inserted) return true
    const { input, card } = await readNow(db)
    if (!isDeepStrictEqual(input, wanted)) throw new DomainError('card_id_conflict', [], card)
    return false
  }
  const changed = await db
    .updateTable(at)
    .set({ ...columns, revision: seenRevision + 1 } as never)
    .where('id', '=', id)
    .where('revision', '=', seenRevision)
    .returning('id')
    .executeTakeFirst()
  if (changed) return true
  const there = await db.selectFrom(at).select('id').where('id', '=', id).executeTakeFirst()
  if (!there) throw new DomainError('not_found')
  const { input, card } = await readNow(db)
  if (!isDeepStrictEqual(input, wanted)) throw new DomainError('stale_card', [], card)
  return false
}
