import { sql, type Selectable } from 'kysely'
import type { PageQuery } from '../../../shared/contracts'
import type { Page, UnreadableCard } from '../../../shared/records'
import { bagInputSchema, type BagCard, type BagInput, type SpoonTestRecord } from '../../../shared/stock'
import { inTransaction, type Db } from '../../db/client'
import type { BagTable, Columns } from '../../db/schema'
import { readRow, readable } from '../complaints'
import { DomainError } from '../domainError'
import { pageOf, readKey, requireId } from '../paging'
import { putRevisioned } from '../revisioned'
import { sumBag } from '../pours/summaries'

type BagRow = Selectable<BagTable>

function inputOf(r: BagRow): BagInput {
  return {
    plasterId: r.plaster_id,
    name: r.name,
    boughtG: r.bought_g,
    price: r.price,
    openedOn: r.opened_on,
    keeping: r.keeping,
    scoop: r.scoop,
    counted:
      r.counted_g === null || r.counted_at === null
        ? null
        : { leftG: r.counted_g, atMs: r.counted_at.getTime() },
    usedUp: r.used_up,
    note: r.note,
  }
}

function columnsOf(bag: BagInput): Columns<BagTable> {
  return {
    plaster_id: bag.plasterId,
    name: bag.name,
    bought_g: bag.boughtG,
    price: bag.price,
    opened_on: bag.openedOn,
    keeping: bag.keeping,
    scoop: bag.scoop && JSON.stringify(bag.scoop),
    counted_g: bag.counted?.leftG ?? null,
    counted_at: bag.counted && new Date(bag.counted.atMs),
    used_up: bag.usedUp,
    note: bag.note,
  }
}

async function cardsOf(db: Db, rows: readonly BagRow[]): Promise<(BagCard | UnreadableCard)[]> {
  if (rows.length === 0) return []
  const ids = rows.map((r) => r.id)
  const tests = await db
    .selectFrom('spoon_test')
    .selectAll()
    .where('bag_id', 'in', ids)
    .orderBy('tested_at')
    .orderBy('id')
    .execute()
  const cardOf = (row: BagRow): BagCard => {
    const input = bagInputSchema.parse(inputOf(row))
    return {
      ...input,
      id: row.id,
      revision: row.revision,
      leftG: input.usedUp ? 0 : Math.max(0, (input.counted?.leftG ?? input.boughtG) - row.taken_g),
      pours: row.taken_by_pours,
      spoonTests: tests
        .filter((t) => t.bag_id === row.id)
        .map((t) => ({
          id: t.id,
          atMs: t.tested_at.getTime(),
          consistency: t.consistency,
          waterTempC: t.water_temp_c,
          stirS: t.stir_s,
          tookS: t.took_s,
        })),
    }
  }
  return rows.map((row) => readRow(row, () => cardOf(row)))
}

export async function listBags(db: Db, { after, limit }: PageQuery): Promise<Page<BagCard | UnreadableCard>> {
  const key = readKey(after, 3)
  let query = db
    .selectFrom('bag')
    .selectAll()
    .select(sql<string>`created_at::text`.as('at'))
    .orderBy('used_up')
    .orderBy('created_at')
    .orderBy('id')
    .limit(limit + 1)
  if (key)
    query = query.where(
      sql<boolean>`(used_up, created_at, id) > (${key[0]}::boolean, ${key[1]}::timestamptz, ${requireId(key[2]!)}::uuid)`,
    )
  const rows = await query.execute()
  const cards = await cardsOf(db, rows.slice(0, limit))
  const { next } = pageOf(
    rows,
    limit,
    () => undefined,
    (r) => [String(r.used_up), r.at, r.id],
  )
  return { items: cards, ...(next === undefined ? {} : { next }) }
}

/** Those of these that are there, as cards. */
export async function bagsById(db: Db, ids: readonly string[]): Promise<(BagCard | UnreadableCard)[]> {
  return cardsOf(db, await db.selectFrom('bag').selectAll().where('id', 'in', ids).execute())
}

export async function getBag(db: Db, id: string): Promise<BagCard> {
  const row = await db.selectFrom('bag').selectAll().where('id', '=', id).executeTakeFirst()
  if (!row) throw new DomainError('not_found')
  const [card] = await cardsOf(db, [row])
  return readable(card!)
}

export async function putBag(
  db: Db,
  id: string,
  seenRevision: number | null,
  bag: BagInput,
): Promise<BagCard> {
  const plaster = await db
    .selectFrom('plaster')
    .select('id')
    .where('id', '=', bag.plasterId)
    .executeTakeFirst()
  if (!plaster)
    throw new DomainError('invalid_input', [{ path: 'bag.plasterId', message: 'is not a plaster here' }])
  await inTransaction(db, async (trx) => {
    const written = await putRevisioned(trx, 'bag', id, seenRevision, columnsOf(bag), bag, async (now) => {
      const row = await now.selectFrom('bag').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
      return { input: inputOf(row), card: (await cardsOf(now, [row]))[0] }
    })
    // Weighed anew, it counts down from there.
    if (written) await sumBag(trx, id)
  })
  return getBag(db, id)
}

/** Throws a bag away, with its spoon tests. Its pours keep what they knew of it. */
export async function deleteBag(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('bag').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}

/** Idempotent by the test's id. */
export async function addSpoonTest(db: Db, bagId: string, test: SpoonTestRecord): Promise<BagCard> {
  const bag = await getBag(db, bagId)
  await db
    .insertInto('spoon_test')
    .values({
      id: test.id,
      bag_id: bag.id,
      tested_at: new Date(test.atMs),
      consistency: test.consistency,
      water_temp_c: test.waterTempC,
      stir_s: test.stirS,
      took_s: test.tookS,
    })
    .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
    .execute()
  return getBag(db, bagId)
}

export async function deleteSpoonTest(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('spoon_test').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
