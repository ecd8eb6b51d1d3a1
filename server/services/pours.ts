import { isDeepStrictEqual } from 'node:util'
import { sql, type Transaction } from 'kysely'
import type { z } from 'zod'
import { PLAN_BINDING_TYPES, type KeptPlan, type PourEvent } from '../../core/pour'
import {
  eventBodySchema,
  storedPlanSchema,
  type listQuerySchema,
  type NewEvent,
} from '../../shared/contracts'
import { isUnreadable, type Page, type PourAnswer, type PourRecord } from '../../shared/records'
import type { Db } from '../db/client'
import type { Database, EventRow, PlanRevisionRow, PourRow } from '../db/schema'
import { complaints } from './complaints'
import { DomainError } from './domainError'

/** Tablets' clocks are rarely exact; further ahead than this is a mistake. */
const MAX_AHEAD_MS = 10 * 60_000

/** @throws ZodError where the body is none that is known. */
function toEvent(row: EventRow): PourEvent {
  return {
    id: row.id,
    occurredAtMs: row.occurred_at.getTime(),
    receivedAtMs: row.received_at.getTime(),
    who: row.who,
    ...(row.plan_revision === null ? {} : { planRevision: row.plan_revision }),
    body: eventBodySchema.parse(row.body),
  }
}

/** A plan never changes without its revision, so it is read once for each: lists are read far more often than written. */
const readPlans = new Map<string, KeptPlan>()
const MOST_READ_PLANS = 2000

/** @throws ZodError where the plan is of no version. */
function planOf(pourId: string, revision: number, stored: unknown): KeptPlan {
  const key = `${pourId} ${revision}`
  const known = readPlans.get(key)
  if (known) return known
  const plan = storedPlanSchema.parse(stored)
  if (readPlans.size >= MOST_READ_PLANS) readPlans.delete(readPlans.keys().next().value!)
  readPlans.set(key, plan)
  return plan
}

/** A pour as it is read: of any version, or as itself where it cannot be. */
function toAnswer(pour: PourRow, events: EventRow[], earlier: PlanRevisionRow[]): PourAnswer {
  const { id, revision } = pour
  const createdAtMs = pour.created_at.getTime()
  try {
    return {
      id,
      plan: planOf(id, revision, pour.plan),
      revision,
      earlierPlans: earlier.map((e) => ({ revision: e.revision, plan: planOf(id, e.revision, e.plan) })),
      createdAtMs,
      events: events.map(toEvent),
    }
  } catch (error) {
    return { id, unreadable: complaints(error), createdAtMs, raw: { plan: pour.plan, revision, events } }
  }
}

async function withEvents(db: Db, pours: PourRow[]): Promise<PourAnswer[]> {
  if (pours.length === 0) return []
  const ids = pours.map((p) => p.id)
  const rows = await db
    .selectFrom('event')
    .selectAll()
    .where('pour_id', 'in', ids)
    .orderBy('occurred_at')
    .orderBy('id')
    .execute()
  const byPour = new Map<string, EventRow[]>(pours.map((p) => [p.id, []]))
  for (const row of rows) byPour.get(row.pour_id)!.push(row)
  // Only a changed plan has earlier ones, and only an event that names one asks for it.
  const changed = pours.filter((p) =>
    byPour.get(p.id)!.some((e) => e.plan_revision !== null && e.plan_revision < p.revision),
  )
  const earlier =
    changed.length === 0
      ? []
      : await db
          .selectFrom('plan_revision')
          .selectAll()
          .where(
            'pour_id',
            'in',
            changed.map((p) => p.id),
          )
          .orderBy('revision')
          .execute()
  return pours.map((p) => {
    const events = byPour.get(p.id)!
    const named = new Set(events.map((e) => e.plan_revision))
    return toAnswer(
      p,
      events,
      earlier.filter((e) => e.pour_id === p.id && named.has(e.revision)),
    )
  })
}

/** Whether a pour has an ending that still counts, optionally with a given verdict. */
function finished(verdict?: string) {
  return sql<boolean>`exists (
    select from event e where e.pour_id = pour.id and e.type = 'finished'
      and not exists (select from event v where v.voids_event_id = e.id)
      ${verdict ? sql`and e.body ->> 'verdict' = ${verdict}` : sql``})`
}

/** Newest first. `state` open: no ending that counts. `q` looks in the piece, the mould's and the plaster's name. */
export async function listPours(db: Db, query: z.output<typeof listQuerySchema>): Promise<Page<PourAnswer>> {
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

export async function getPour(db: Db, id: string): Promise<PourAnswer> {
  const pour = await db.selectFrom('pour').selectAll().where('id', '=', id).executeTakeFirst()
  if (!pour) throw new DomainError('not_found')
  const [record] = await withEvents(db, [pour])
  return record!
}

/** For what has just been written, which is read again as it was meant or not at all. */
export async function getReadable(db: Db, id: string): Promise<PourRecord> {
  const pour = await getPour(db, id)
  if (isUnreadable(pour)) throw new DomainError('record_unreadable')
  return pour
}

/** Idempotent: the same id with the same plan is one pour. */
export async function createPour(db: Db, id: string, plan: KeptPlan): Promise<PourRecord> {
  await db
    .insertInto('pour')
    .values({ id, plan: JSON.stringify(plan) })
    .onConflict((c) => c.column('id').doNothing())
    .execute()
  const record = await getReadable(db, id)
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
export async function changePlan(db: Db, id: string, revision: number, plan: KeptPlan): Promise<PourRecord> {
  await db.transaction().execute(async (trx) => {
    const pour = await lockPour(trx, id)
    if (pour.revision !== revision) throw new DomainError('stale_plan')
    const locked = await sql`
      select from event e where e.pour_id = ${id} and e.type = any(${PLAN_BINDING_TYPES})
        and not exists (select from event v where v.voids_event_id = e.id)
        and (e.plan_revision is null or e.plan_revision >= ${revision} or exists (
          -- Weighed for an earlier plan, and somebody has said that it holds for this one.
          select from event h where h.pour_id = e.pour_id and h.type = 'plan_holds'
            and (h.body ->> 'revision')::int = e.plan_revision and h.plan_revision >= ${revision}
            and not exists (select from event v where v.voids_event_id = h.id)))
      limit 1`
      .execute(trx)
      .then(({ rows }) => rows.length > 0)
    if (locked) throw new DomainError('plan_locked')
    await trx
      .insertInto('plan_revision')
      .values({ pour_id: id, revision, plan: JSON.stringify(pour.plan) })
      .execute()
    await trx
      .updateTable('pour')
      .set({ plan: JSON.stringify(plan), revision: revision + 1 })
      .where('id', '=', id)
      .execute()
  })
  return getReadable(db, id)
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
    const pour = await lockPour(trx, pourId)
    if ((event.planRevision ?? 1) > pour.revision)
      throw new DomainError('invalid_input', [
        { path: 'planRevision', message: 'is not a revision of this plan' },
      ])
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
        plan_revision: event.planRevision ?? null,
      })
      .onConflict((c) => c.column('id').doNothing())
      .execute()
    const row = await trx.selectFrom('event').selectAll().where('id', '=', event.id).executeTakeFirstOrThrow()
    const stored = toEvent(row)
    const same =
      row.pour_id === pourId &&
      stored.occurredAtMs === event.occurredAtMs &&
      stored.planRevision === event.planRevision &&
      isDeepStrictEqual(stored.body, event.body)
    if (!same) throw new DomainError('event_id_conflict', [{ path: 'id', message: 'already used' }])
    return stored
  })
}
