import { isDeepStrictEqual } from 'node:util'
import { sql, type Selectable } from 'kysely'
import type { z } from 'zod'
import type { pageQuerySchema } from '../../shared/contracts'
import type { Page, UnreadableCard } from '../../shared/records'
import { bagInputSchema, type BagCard, type BagInput, type SpoonTestRecord } from '../../shared/stock'
import type { Db } from '../db/client'
import { countRows } from '../db/countRows'
import type { BagTable } from '../db/schema'
import { readRow, readable } from './complaints'
import { DomainError } from './domainError'
import { putRevisioned } from './revisioned'

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

function columnsOf(bag: BagInput) {
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

/**
 * Plaster that pours took out of these bags since they were bought or last weighed, g: of each bowl the last weighing
 * that was not taken back, and what was put in or taken out after it.
 */
async function takenFrom(
  db: Db,
  ids: readonly string[],
): Promise<Map<string, { takenG: number; pours: number }>> {
  const { rows } = await sql<{ id: string; taken: number; pours: number }>`
    with counting as (
      select b.id as bag_id, e.pour_id, coalesce((e.body ->> 'batch')::int, 0) as batch, e.type, e.body,
        e.occurred_at, e.id
      from bag b
      join pour p on p.plan -> 'plaster' -> 'bag' ->> 'bagId' = b.id::text
      join event e on e.pour_id = p.id
        and (e.type = 'weighed' and e.body ->> 'what' = 'powder'
          or e.type = 'corrected' and e.body ->> 'how' in ('powder_in', 'powder_out'))
        and e.occurred_at > coalesce(b.counted_at, '-infinity')
        and not exists (select from event v where v.voids_event_id = e.id)
      where b.id = any(${ids}::uuid[])
    ), last_weighed as (
      select distinct on (bag_id, pour_id, batch) * from counting where type = 'weighed'
      order by bag_id, pour_id, batch, occurred_at desc, id desc
    )
    select w.bag_id as id, count(distinct w.pour_id)::int as pours,
      sum((w.body ->> 'massG')::float + coalesce((
        select sum(case when c.body ->> 'how' = 'powder_in' then 1 else -1 end * (c.body ->> 'massG')::float)
        from counting c where c.type = 'corrected' and c.pour_id = w.pour_id and c.batch = w.batch
          and c.occurred_at >= w.occurred_at), 0)) as taken
    from last_weighed w group by w.bag_id`.execute(db)
  return new Map(rows.map((r) => [r.id, { takenG: r.taken, pours: r.pours }]))
}

async function cardsOf(db: Db, rows: readonly BagRow[]): Promise<(BagCard | UnreadableCard)[]> {
  if (rows.length === 0) return []
  const ids = rows.map((r) => r.id)
  const [taken, tests] = await Promise.all([
    takenFrom(db, ids),
    db
      .selectFrom('spoon_test')
      .selectAll()
      .where('bag_id', 'in', ids)
      .orderBy('tested_at')
      .orderBy('id')
      .execute(),
  ])
  const cardOf = (row: BagRow): BagCard => {
    const input = bagInputSchema.parse(inputOf(row))
    const { takenG, pours } = taken.get(row.id) ?? { takenG: 0, pours: 0 }
    return {
      ...input,
      id: row.id,
      revision: row.revision,
      leftG: input.usedUp ? 0 : Math.max(0, (input.counted?.leftG ?? input.boughtG) - takenG),
      pours,
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

export async function listBags(
  db: Db,
  { offset, limit }: z.output<typeof pageQuerySchema>,
): Promise<Page<BagCard | UnreadableCard>> {
  const rows = await db
    .selectFrom('bag')
    .selectAll()
    .orderBy('used_up')
    .orderBy('created_at')
    .orderBy('id')
    .offset(offset)
    .limit(limit)
    .execute()
  return { items: await cardsOf(db, rows), total: await countRows(db, 'bag') }
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
  await putRevisioned<BagRow>(db, 'bag', id, seenRevision, columnsOf(bag), (row) =>
    isDeepStrictEqual(inputOf(row), bag),
  )
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
    .onConflict((c) => c.column('id').doNothing())
    .execute()
  return getBag(db, bagId)
}

export async function deleteSpoonTest(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('spoon_test').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
