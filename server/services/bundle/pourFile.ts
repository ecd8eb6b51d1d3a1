import { isDeepStrictEqual } from 'node:util'
import type { Transaction } from 'kysely'
import { pourFileSchema, type PourFile } from '../../../shared/bundle'
import type { Db } from '../../db/client'
import type { Database } from '../../db/schema'
import { poursById } from '../pours'
import { summarise } from '../summaries'

/** A pour as a file, as it lies in the database; undefined where it is not there. */
export async function pourFileOf(db: Db, id: string): Promise<object | undefined> {
  const pour = await db.selectFrom('pour').selectAll().where('id', '=', id).executeTakeFirst()
  if (!pour) return undefined
  const plans = await db
    .selectFrom('plan_revision')
    .selectAll()
    .where('pour_id', '=', id)
    .orderBy('revision')
    .execute()
  const events = await db
    .selectFrom('event')
    .selectAll()
    .where('pour_id', '=', id)
    .orderBy('occurred_at')
    .orderBy('id')
    .execute()
  const readings = await db
    .selectFrom('reading')
    .selectAll()
    .where('pour_id', '=', id)
    .orderBy('device_id')
    .orderBy('channel')
    .orderBy('at')
    .execute()
  const photos = await db
    .selectFrom('photo')
    .select(['id', 'caption'])
    .where('pour_id', '=', id)
    .orderBy('created_at')
    .orderBy('id')
    .execute()
  return {
    format: 'nine-ripples.pour',
    version: 1,
    id,
    createdAtMs: pour.created_at.getTime(),
    revision: pour.revision,
    plan: pour.plan,
    earlierPlans: plans.map((p) => ({ revision: p.revision, plan: p.plan })),
    events: events.map((e) => ({
      id: e.id,
      occurredAtMs: e.occurred_at.getTime(),
      receivedAtMs: e.received_at.getTime(),
      ...(e.claimed_at ? { claimedAtMs: e.claimed_at.getTime() } : {}),
      who: e.who,
      ...(e.plan_revision === null ? {} : { planRevision: e.plan_revision }),
      body: e.body,
    })),
    readings: readings.map((r) => ({
      device: r.device_id,
      channel: r.channel,
      batch: r.batch,
      atMs: r.at.getTime(),
      value: r.value,
      stable: r.stable,
    })),
    photos,
  }
}

export type PourStanding = 'add' | 'same' | 'grow' | 'clash'

/** What of a pour's file is not here yet; a clash where the two say otherwise of one thing. */
export async function pourStanding(
  db: Db,
  file: PourFile,
): Promise<{ standing: PourStanding; missing: PourFile['events'] }> {
  const here = await pourFileOf(db, file.id)
  if (!here) return { standing: 'add', missing: file.events }
  const read = pourFileSchema.safeParse(here)
  // What cannot be read here is nobody's to overwrite.
  if (!read.success) return { standing: 'clash', missing: [] }
  const now = read.data
  const known = new Map(now.events.map((e) => [e.id, e]))
  const missing = file.events.filter((e) => !known.has(e.id))
  const told = (e: PourFile['events'][number]) => ({ ...e, receivedAtMs: 0 })
  const differs =
    now.revision !== file.revision ||
    !isDeepStrictEqual(now.plan, file.plan) ||
    file.events.some((e) => {
      const mine = known.get(e.id)
      return mine !== undefined && !isDeepStrictEqual(told(mine), told(e))
    })
  if (differs) return { standing: 'clash', missing: [] }
  return { standing: missing.length > 0 ? 'grow' : 'same', missing }
}

const PIECE = 1000

async function insertEvents(
  trx: Transaction<Database>,
  pourId: string,
  events: PourFile['events'],
): Promise<void> {
  for (let at = 0; at < events.length; at += PIECE)
    await trx
      .insertInto('event')
      .values(
        events.slice(at, at + PIECE).map((e) => ({
          id: e.id,
          pour_id: pourId,
          type: e.body.type,
          body: JSON.stringify(e.body),
          occurred_at: new Date(e.occurredAtMs),
          received_at: new Date(e.receivedAtMs),
          claimed_at: e.claimedAtMs === undefined ? null : new Date(e.claimedAtMs),
          who: e.who,
          voids_event_id: e.body.type === 'void' ? e.body.targetId : null,
          plan_revision: e.planRevision ?? null,
        })),
      )
      .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
      .execute()
}

/** Puts a pour in, or what is missing of it. Events are only ever added: a clash stays as it is here. */
export async function putPourFile(db: Db, file: PourFile): Promise<PourStanding> {
  const { standing, missing } = await pourStanding(db, file)
  if (standing === 'same' || standing === 'clash') return standing
  await db.transaction().execute(async (trx) => {
    if (standing === 'add') {
      await trx
        .insertInto('pour')
        .values({
          id: file.id,
          plan: JSON.stringify(file.plan),
          revision: file.revision,
          created_at: new Date(file.createdAtMs),
        })
        .execute()
      for (const { revision, plan } of file.earlierPlans)
        await trx
          .insertInto('plan_revision')
          .values({ pour_id: file.id, revision, plan: JSON.stringify(plan) })
          .execute()
    } else {
      await trx.selectFrom('pour').select('id').where('id', '=', file.id).forUpdate().execute()
    }
    await insertEvents(trx, file.id, missing)
    for (let at = 0; at < file.readings.length; at += PIECE)
      await trx
        .insertInto('reading')
        .values(
          file.readings.slice(at, at + PIECE).map((r) => ({
            device_id: r.device,
            channel: r.channel,
            pour_id: file.id,
            batch: r.batch,
            at: new Date(r.atMs),
            value: r.value,
            stable: r.stable,
          })),
        )
        .onConflict((c) => c.doNothing())
        .execute()
    const [answer] = await poursById(trx, [file.id])
    await summarise(trx, answer!)
  })
  return standing
}
