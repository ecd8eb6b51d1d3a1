import type { Selectable } from 'kysely'
import type { SettlingEntry } from '../../../shared/stock'
import type { Db } from '../../db/client'
import type { SettlingTable } from '../../db/schema'
import { DomainError } from '../domainError'

/** More than that tells nothing of what comes next. */
const MOST_SHOWN = 40

const entryOf = ({ id, what, at, who }: Selectable<SettlingTable>): SettlingEntry => ({
  id,
  what,
  atMs: at.getTime(),
  who,
})

/** The latest first. */
export async function listSettling(db: Db): Promise<SettlingEntry[]> {
  const rows = await db
    .selectFrom('settling')
    .selectAll()
    .orderBy('at', 'desc')
    .orderBy('id')
    .limit(MOST_SHOWN)
    .execute()
  return rows.map(entryOf)
}

export async function settlingById(db: Db, ids: readonly string[]): Promise<SettlingEntry[]> {
  return (await db.selectFrom('settling').selectAll().where('id', 'in', ids).execute()).map(entryOf)
}

/** Written down once, however often it is sent. */
export async function addSettling(db: Db, { id, what, atMs, who }: SettlingEntry): Promise<SettlingEntry> {
  await db
    .insertInto('settling')
    .values({ id, what, at: new Date(atMs), who })
    .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
    .execute()
  return entryOf(await db.selectFrom('settling').selectAll().where('id', '=', id).executeTakeFirstOrThrow())
}

export async function deleteSettling(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('settling').where('id', '=', id).executeTakeFirst()
  if (gone.numDeletedRows === 0n) throw new DomainError('not_found')
}
