import { isDeepStrictEqual } from 'node:util'
import { sql, type Transaction } from 'kysely'
import { MS_PER } from '../../../core/units'
import { PLAN_BINDING_TYPES, type KeptPlan, type PourEvent } from '../../../core/pour'
import type { PostedEvent } from '../../../shared/pourEvents'
import { isUnreadable, type PourRecord } from '../../../shared/records'
import type { Db } from '../../db/client'
import type { Database, PourRow } from '../../db/schema'
import { DomainError } from '../domainError'
import { getPour, getReadable, toEvent, withEvents } from './pourRecords'
import { summarise } from './summaries'

/** Tablets' clocks are rarely exact; further ahead than this is a mistake. */
const MAX_AHEAD_MS = 10 * MS_PER.min

/**
 * Idempotent: the same id with the same plan is one pour.
 * @param createdAtMs when it was planned, where that was out of reach; what lies ahead is a clock that goes wrong.
 */
export async function createPour(
  db: Db,
  id: string,
  plan: KeptPlan,
  createdAtMs?: number,
): Promise<PourRecord> {
  const when =
    createdAtMs === undefined ? {} : { created_at: sql<Date>`least(now(), ${new Date(createdAtMs)})` }
  await db.transaction().execute(async (trx) => {
    const made = await trx
      .insertInto('pour')
      .values({ id, plan: JSON.stringify(plan), ...when })
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

/** Somebody whom the server knows by more than what they call themselves. */
export interface Known {
  personId: string
  name: string
}

/** Whose it is: of whoever was let in, unless a device on the bench was pressed, which every window hears and tells. */
async function whoseIs(trx: Transaction<Database>, who: string, by: Known | undefined) {
  if (!by) return { who, who_id: null }
  if (who !== by.name && who !== '') {
    const device = await trx.selectFrom('device').select('id').where('name', '=', who).executeTakeFirst()
    if (device) return { who, who_id: null }
  }
  return { who: by.name, who_id: by.personId }
}

/** It came once before, from a device that had been put out; now it is let in, or a keeper has taken it. */
async function noLongerHeld(trx: Transaction<Database>, id: string): Promise<void> {
  const held = await trx
    .deleteFrom('held_event')
    .where('id', '=', id)
    .returning('refused_at')
    .executeTakeFirst()
  if (held?.refused_at) throw new DomainError('refused_by_keeper')
}

/**
 * Records an event. Sending the same one again answers with the row already there; the same id with another
 * content is a conflict.
 * @param by who was let in on the device that sends it; at the machine itself its window says who it is.
 */
export async function recordEvent(
  db: Db,
  pourId: string,
  event: PostedEvent,
  nowMs: number,
  by?: Known,
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
    if (by) await noLongerHeld(trx, event.id)
    const inserted = await trx
      .insertInto('event')
      .values({
        id: event.id,
        pour_id: pourId,
        type: event.body.type,
        body: JSON.stringify(event.body),
        occurred_at: at,
        ...(await whoseIs(trx, event.who, by)),
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
