import { isDeepStrictEqual } from 'node:util'
import { sql, type Transaction } from 'kysely'
import type { z } from 'zod'
import type { EventBody, PourEvent, PourPlan } from '../../core/pour'
import type { listQuerySchema, NewEvent, Page, PourRecord } from '../../shared/contracts'
import type { Db } from '../db/client'
import type { Database, EventRow, PourRow } from '../db/schema'
import { DomainError } from './domainError'

/** Tablets' clocks are rarely exact; further ahead than this is a mistake. */
const MAX_AHEAD_MS = 10 * 60_000

/** Events after which the plan is history and may not change. */
const LOCKING_TYPES: EventBody['type'][] = ['weighed', 'sift_started', 'sifted', 'poured', 'finished']

function toEvent(row: EventRow): PourEvent {
  return {
    id: row.id,
    occurredAtMs: row.occurred_at.getTime(),
    receivedAtMs: row.received_at.getTime(),
    who: row.who,
    body: row.body,
  }
}

function toRecord(pour: PourRow, events: EventRow[]): PourRecord {
  return {
    id: pour.id,
    plan: pour.plan,
    revision: pour.revision,
    createdAtMs: pour.created_at.getTime(),
    events: events.map(toEvent),
  }
}

async function withEvents(db: Db, pours: PourRow[]): Promise<PourRecord[]> {
  if (pours.length === 0) return []
  const rows = await db
    .selectFrom('event')
    .selectAll()
    .where(
      'pour_id',
      'in',
      pours.map((p) => p.id),
    )
    .orderBy('occurred_at')
    .orderBy('id')
    .execute()
  const byPour = new Map<string, EventRow[]>(pours.map((p) => [p.id, []]))
  for (const row of rows) byPour.get(row.pour_id)!.push(row)
  return pours.map((p) => toRecord(p, byPour.get(p.id)!))
}

/** Whether a pour has an ending that still counts, optionally with a given verdict. */
function finished(verdict?: string) {
  return sql<boolean>`exists (
    select from event e where e.pour_id = pour.id and e.type = 'finished'
      and not exists (select from event v where v.voids_event_id = e.id)
      ${verdict ? sql`and e.body ->> 'verdict' = ${verdict}` : sql``})`
}

/** Newest first. `state` open: no ending that counts. `q` looks in the piece, the mould's and the plaster's name. */
export async function listPours(db: Db, query: z.output<typeof listQuerySchema>): Promise<Page<PourRecord>> {
  let base = db.selectFrom('pour')
  if (query.state !== 'all')
    base = base.where(query.state === 'closed' ? finished() : sql<boolean>`not ${finished()}`)
  if (query.verdict) base = base.where(finished(query.verdict))
  if (query.q !== '') {
    const pattern = `%${query.q.replace(/[\\%_]/g, '\\$&')}%`
    base = base.where(
      sql<boolean>`(plan ->> 'piece' ilike ${pattern} or plan -> 'mould' ->> 'name' ilike ${pattern}
        or plan -> 'plaster' ->> 'name' ilike ${pattern})`,
    )
  }
  const [pours, count] = await Promise.all([
    base
      .selectAll('pour')
      .orderBy('created_at', 'desc')
      .orderBy('id')
      .offset(query.offset)
      .limit(query.limit)
      .execute(),
    base.select((eb) => eb.fn.countAll<number>().as('total')).executeTakeFirstOrThrow(),
  ])
  return { items: await withEvents(db, pours), total: count.total }
}

export async function getPour(db: Db, id: string): Promise<PourRecord> {
  const pour = await db.selectFrom('pour').selectAll().where('id', '=', id).executeTakeFirst()
  if (!pour) throw new DomainError('not_found')
  const [record] = await withEvents(db, [pour])
  return record!
}

/** Idempotent: the same id with the same plan is one pour. */
export async function createPour(db: Db, id: string, plan: PourPlan): Promise<PourRecord> {
  await db
    .insertInto('pour')
    .values({ id, plan: JSON.stringify(plan) })
    .onConflict((c) => c.column('id').doNothing())
    .execute()
  const record = await getPour(db, id)
  if (!isDeepStrictEqual(record.plan, plan)) throw new DomainError('pour_id_conflict')
  return record
}

/** The row, locked, so that a plan change and an event cannot pass each other. */
async function lockPour(trx: Transaction<Database>, id: string): Promise<PourRow> {
  const pour = await trx.selectFrom('pour').selectAll().where('id', '=', id).forUpdate().executeTakeFirst()
  if (!pour) throw new DomainError('not_found')
  return pour
}

/** Changes a plan that has not been weighed out yet, if it is still the one the caller saw. */
export async function changePlan(db: Db, id: string, revision: number, plan: PourPlan): Promise<PourRecord> {
  await db.transaction().execute(async (trx) => {
    const pour = await lockPour(trx, id)
    if (pour.revision !== revision) throw new DomainError('stale_plan')
    const locked = await trx
      .selectFrom('event as e')
      .select('e.id')
      .where('e.pour_id', '=', id)
      .where('e.type', 'in', LOCKING_TYPES)
      .where(({ not, exists, selectFrom }) =>
        not(exists(selectFrom('event as v').select('v.id').whereRef('v.voids_event_id', '=', 'e.id'))),
      )
      .executeTakeFirst()
    if (locked) throw new DomainError('plan_locked')
    await trx
      .updateTable('pour')
      .set({ plan: JSON.stringify(plan), revision: revision + 1 })
      .where('id', '=', id)
      .execute()
  })
  return getPour(db, id)
}

async function checkVoidTarget(trx: Transaction<Database>, pourId: string, targetId: string): Promise<void> {
  const target = await trx
    .selectFrom('event')
    .select('type')
    .where('id', '=', targetId)
    .where('pour_id', '=', pourId)
    .executeTakeFirst()
  if (!target) throw new DomainError('unknown_event', [{ path: 'body.targetId', message: 'no such event' }])
  if (target.type === 'void') throw new DomainError('cannot_void_void')
}

/**
 * Records an event. Sending the same one again answers with the row already there; the same id with another
 * content is a conflict.
 */
export async function recordEvent(
  db: Db,
  pourId: string,
  event: NewEvent,
  nowMs: number,
): Promise<PourEvent> {
  if (event.occurredAtMs > nowMs + MAX_AHEAD_MS) {
    throw new DomainError('time_in_future', [{ path: 'occurredAtMs', message: 'is in the future' }])
  }
  return db.transaction().execute(async (trx) => {
    await lockPour(trx, pourId)
    const targetId = event.body.type === 'void' ? event.body.targetId : null
    if (targetId) await checkVoidTarget(trx, pourId, targetId)
    await trx
      .insertInto('event')
      .values({
        id: event.id,
        pour_id: pourId,
        type: event.body.type,
        body: JSON.stringify(event.body),
        occurred_at: new Date(event.occurredAtMs),
        who: event.who,
        voids_event_id: targetId,
      })
      .onConflict((c) => c.column('id').doNothing())
      .execute()
    const row = await trx.selectFrom('event').selectAll().where('id', '=', event.id).executeTakeFirstOrThrow()
    const stored = toEvent(row)
    const same =
      row.pour_id === pourId &&
      stored.occurredAtMs === event.occurredAtMs &&
      isDeepStrictEqual(stored.body, event.body)
    if (!same) throw new DomainError('event_id_conflict', [{ path: 'id', message: 'already used' }])
    return stored
  })
}
