import type { Db } from '../db/client'
import { DomainError } from './domainError'

/** Tables whose rows are changed only by those who saw their latest state. */
type Revisioned = 'plaster' | 'bag'

/**
 * Puts a new row in (`seenRevision` null) or changes the one the caller saw. Sending the same new row again is one
 * row: `isSame` compares what is there with what was sent.
 * @throws DomainError card_id_conflict, stale_card or not_found.
 */
export async function putRevisioned<Row extends { id: string; revision: number }>(
  db: Db,
  table: Revisioned,
  id: string,
  seenRevision: number | null,
  columns: Record<string, unknown>,
  isSame: (row: Row) => boolean,
): Promise<void> {
  // Both tables have an id and a revision; what else they hold is the caller's, who builds the columns from its type.
  const at = table as 'plaster'
  if (seenRevision === null) {
    const inserted = await db
      .insertInto(at)
      .values({ id, ...columns } as never)
      .onConflict((c) => c.column('id').doNothing())
      .returning('id')
      .executeTakeFirst()
    if (inserted) return
    const row = await db.selectFrom(at).selectAll().where('id', '=', id).executeTakeFirstOrThrow()
    if (!isSame(row as never)) throw new DomainError('card_id_conflict')
    return
  }
  const changed = await db
    .updateTable(at)
    .set({ ...columns, revision: seenRevision + 1 } as never)
    .where('id', '=', id)
    .where('revision', '=', seenRevision)
    .returning('id')
    .executeTakeFirst()
  if (changed) return
  const there = await db.selectFrom(at).select('id').where('id', '=', id).executeTakeFirst()
  throw new DomainError(there ? 'stale_card' : 'not_found')
}
