import { MS_PER } from '../../core/units'
import { isDeepStrictEqual } from 'node:util'
import { sql, type Transaction } from 'kysely'
import { ZodError, type z } from 'zod'
import { PLAN_BINDING_TYPES, VERDICTS, type KeptPlan, type PourEvent } from '../../core/pour'
import { eventBodySchema, type PostedEvent } from '../../shared/pourEvents'
import { storedPlanSchema } from '../../shared/plans'
import type { jobQuerySchema, listQuerySchema, PageQuery } from '../../shared/contracts'
import {
  MOST_COUNTED,
  isUnreadable,
  type CastLine,
  type CastPage,
  type Page,
  type PourAnswer,
  type PourRecord,
} from '../../shared/records'
import type { Db } from '../db/client'
import type { Database, EventRow, PlanRevisionRow, PourRow, PourSummaryRow } from '../db/schema'
import { complaints } from './complaints'
import { DomainError } from './domainError'
import { pageOf, readKey, requireId } from './paging'
import { summarise } from './summaries'

/** Tablets' clocks are rarely exact; further ahead than this is a mistake. */
const MAX_AHEAD_MS = 10 * MS_PER.min

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

/**
 * A plan never changes without its revision, so it is read once for each: lists are read far more often than written.
 * What a transaction reads is not remembered: it may never come to be.
 */
const readPlans = new Map<string, KeptPlan>()
const MOST_READ_PLANS = 2000

/** @throws ZodError where the plan is of no version. */
function planOf(
  { id, workshop_id }: PourRow,
  revision: number,
  stored: unknown,
  remember: boolean,
): KeptPlan {
  const key = `${workshop_id} ${id} ${revision}`
  const known = readPlans.get(key)
  if (known) return known
  const plan = storedPlanSchema.parse(stored)
  if (!remember) return plan
  if (readPlans.size >= MOST_READ_PLANS) readPlans.delete(readPlans.keys().next().value!)
  readPlans.set(key, plan)
  return plan
}

/** A pour as it is read: of any version, or as itself where it cannot be. */
function toAnswer(
  pour: PourRow,
  events: EventRow[],
  earlier: PlanRevisionRow[],
  remember: boolean,
): PourAnswer {
  const { id, revision } = pour
  const createdAtMs = pour.created_at.getTime()
  try {
    return {
      id,
      plan: planOf(pour, revision, pour.plan, remember),
      revision,
      earlierPlans: earlier.map((e) => ({
        revision: e.revision,
        plan: planOf(pour, e.revision, e.plan, remember),
      })),
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
      !db.isTransaction,
    )
  })
}

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

/** Pours that are on the go, whole, newest first: the bench. */
export async function listOpen(db: Db, { after, limit }: PageQuery): Promise<Page<PourAnswer>> {
  const key = readKey(after, 2)
  let query = db
    .selectFrom('pour_summary')
    .select(['pour_id', 'created_at'])
    .where('is_open', '=', true)
    .orderBy('created_at', 'desc')
    .orderBy('pour_id', 'desc')
    .limit(limit + 1)
  if (key)
    query = query.where(
      sql<boolean>`(created_at, pour_id) < (${key[0]}::timestamptz, ${requireId(key[1]!)}::uuid)`,
    )
  const { items: ids, ...rest } = pageOf(
    await query.execute(),
    limit,
    (r) => r.pour_id,
    (r) => [r.created_at.toISOString(), r.pour_id],
  )
  const answers = new Map((await poursById(db, ids)).map((p) => [p.id, p]))
  return { items: ids.map((id) => answers.get(id)!), ...rest }
}

/** Those of these that are there, whole. */
export async function poursById(db: Db, ids: readonly string[]): Promise<PourAnswer[]> {
  if (ids.length === 0) return []
  return withEvents(db, await db.selectFrom('pour').selectAll().where('id', 'in', ids).execute())
}

/** Events as they stand in the log, each with its pour's id; those that cannot be read are left out. */
export async function eventsById(db: Db, ids: readonly string[]): Promise<Map<string, PourEvent>> {
  if (ids.length === 0) return new Map()
  const rows = await db.selectFrom('event').selectAll().where('id', 'in', ids).execute()
  return new Map(
    rows.flatMap((row) => {
      try {
        return [[row.id, toEvent(row)] as const]
      } catch (error) {
        if (error instanceof ZodError) return []
        throw error
      }
    }),
  )
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
  await db.transaction().execute(async (trx) => {
    const made = await trx
      .insertInto('pour')
      .values({ id, plan: JSON.stringify(plan) })
      .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
      .returning('id')
      .executeTakeFirst()
    if (made) await summarise(trx, await getPour(trx, id))
  })
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
    if (pour.revision !== revision) {
      const now = await getPour(trx, id)
      // The same change sent again, its answer lost on the way.
      if (!isUnreadable(now) && pour.revision === revision + 1 && isDeepStrictEqual(now.plan, plan)) return
      throw new DomainError('stale_plan', [], now)
    }
    const locked = await sql`
      select from event e where e.pour_id = ${id} and e.type = any(${PLAN_BINDING_TYPES})
        and not exists (select from event v where v.pour_id = e.pour_id and v.voids_event_id = e.id)
        and (e.plan_revision is null or e.plan_revision >= ${revision} or exists (
          -- Weighed for an earlier plan, and somebody has said that it holds for this one.
          select from event h where h.pour_id = e.pour_id and h.type = 'plan_holds'
            and (h.body ->> 'revision')::int = e.plan_revision and h.plan_revision >= ${revision}
            and not exists (select from event v where v.pour_id = h.pour_id and v.voids_event_id = h.id)))
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
    await summarise(trx, await getPour(trx, id))
  })
  return getReadable(db, id)
}

/**
 * An undo may come before what it takes back: another device sends it when it can. What is known must be of this pour, and
 * no undo itself.
 */
async function checkVoidTarget(trx: Transaction<Database>, pourId: string, targetId: string): Promise<void> {
  const target = await trx
    .selectFrom('event')
    .select(['type', 'pour_id'])
    .where('id', '=', targetId)
    .executeTakeFirst()
  if (!target) return
  if (target.pour_id !== pourId)
    throw new DomainError('unknown_event', [{ path: 'body.targetId', message: 'no such event' }])
  if (target.type === 'void') throw new DomainError('cannot_void_void')
}

/** When it happened, by the server's clock; `claimed` is what the device's had, where that was off. */
function happenedAt({ occurredAtMs, shiftMs = 0 }: PostedEvent, nowMs: number) {
  const atMs = occurredAtMs + shiftMs
  if (atMs > nowMs + MAX_AHEAD_MS || atMs < 0)
    throw new DomainError('time_in_future', [{ path: 'occurredAtMs', message: 'is in the future' }])
  return { at: new Date(atMs), claimed: shiftMs === 0 ? null : new Date(occurredAtMs) }
}

/**
 * Records an event. Sending the same one again answers with the row already there; the same id with another
 * content is a conflict.
 */
export async function recordEvent(
  db: Db,
  pourId: string,
  event: PostedEvent,
  nowMs: number,
): Promise<PourEvent> {
  const { at, claimed } = happenedAt(event, nowMs)
  return db.transaction().execute(async (trx) => {
    const pour = await lockPour(trx, pourId)
    if ((event.planRevision ?? 1) > pour.revision)
      throw new DomainError('invalid_input', [
        { path: 'planRevision', message: 'is not a revision of this plan' },
      ])
    const targetId = event.body.type === 'void' ? event.body.targetId : null
    if (targetId) await checkVoidTarget(trx, pourId, targetId)
    const inserted = await trx
      .insertInto('event')
      .values({
        id: event.id,
        pour_id: pourId,
        type: event.body.type,
        body: JSON.stringify(event.body),
        occurred_at: at,
        who: event.who,
        voids_event_id: targetId,
        plan_revision: event.planRevision ?? null,
        claimed_at: claimed,
      })
      .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
      .returning('id')
      .executeTakeFirst()
    if (inserted) {
      const [answer] = await withEvents(trx, [pour])
      await summarise(trx, answer!)
    }
    const row = await trx.selectFrom('event').selectAll().where('id', '=', event.id).executeTakeFirstOrThrow()
    const stored = toEvent(row)
    const same =
      row.pour_id === pourId &&
      (row.claimed_at ?? row.occurred_at).getTime() === event.occurredAtMs &&
      stored.planRevision === event.planRevision &&
      isDeepStrictEqual(stored.body, event.body)
    if (!same) throw new DomainError('event_id_conflict', [{ path: 'id', message: 'already used' }])
    return stored
  })
}
