import { sql } from 'kysely'
import { LRUCache } from 'lru-cache'
import { ZodError } from 'zod'
import type { KeptPlan, PourEvent } from '../../../core/pour'
import type { PageQuery } from '../../../shared/contracts'
import { storedPlanSchema } from '../../../shared/plans'
import { eventBodySchema } from '../../../shared/pourEvents'
import { isUnreadable, type Page, type PourAnswer, type PourRecord } from '../../../shared/records'
import type { Db } from '../../db/client'
import type { EventRow, PlanRevisionRow, PourRow } from '../../db/schema'
import { complaints } from '../complaints'
import { DomainError } from '../domainError'
import { pageOf, readKey, requireId } from '../paging'

/** Pours as they are read, with all that happened to them. */

/** @throws ZodError where the body is none that is known. */
export function toEvent(row: EventRow): PourEvent {
  return {
    id: row.id,
    occurredAtMs: row.occurred_at.getTime(),
    receivedAtMs: row.received_at.getTime(),
    who: row.who,
    ...(row.who_id === null ? {} : { whoId: row.who_id }),
    ...(row.plan_revision === null ? {} : { planRevision: row.plan_revision }),
    body: eventBodySchema.parse(row.body),
  }
}

/**
 * A plan never changes without its revision, so it is read once for each: lists are read far more often than written.
 * What a transaction reads is not remembered: it may never come to be.
 */
const readPlans = new LRUCache<string, KeptPlan>({ max: 2000 })

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

export async function withEvents(db: Db, pours: PourRow[]): Promise<PourAnswer[]> {
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

/** The last that ended, whole, newest first. */
export async function lastEnded(db: Db, most: number): Promise<PourAnswer[]> {
  const rows = await db
    .selectFrom('pour_summary')
    .select('pour_id')
    .where('is_open', '=', false)
    .orderBy('created_at', 'desc')
    .orderBy('pour_id', 'desc')
    .limit(most)
    .execute()
  return poursById(
    db,
    rows.map((r) => r.pour_id),
  )
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
