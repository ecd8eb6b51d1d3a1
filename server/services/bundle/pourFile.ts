import { isDeepStrictEqual } from 'node:util'
import type { Transaction } from 'kysely'
import { z } from 'zod'
import { MOST_IN_PIECE, pourFileSchema, type PourFile, type PourMore } from '../../../shared/bundle'
import type { Db } from '../../db/client'
import type { Database } from '../../db/schema'
import { readingOf } from '../devices'
import { poursById } from '../pours/pourRecords'
import { summarise } from '../pours/summaries'

type Event = PourFile['events'][number]
type FileReading = PourFile['readings'][number]

/** What a pour is without what happened: undefined where it is not there. */
async function headOf(db: Db, id: string) {
  const pour = await db.selectFrom('pour').selectAll().where('id', '=', id).executeTakeFirst()
  if (!pour) return undefined
  const plans = await db
    .selectFrom('plan_revision')
    .selectAll()
    .where('pour_id', '=', id)
    .orderBy('revision')
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
    plan: pour.plan as unknown,
    earlierPlans: plans.map((p) => ({ revision: p.revision, plan: p.plan as unknown })),
    photos,
  }
}

async function eventsOf(db: Db, id: string): Promise<object[]> {
  const events = await db
    .selectFrom('event')
    .selectAll()
    .where('pour_id', '=', id)
    .orderBy('occurred_at')
    .orderBy('id')
    .execute()
  return events.map((e) => ({
    id: e.id,
    occurredAtMs: e.occurred_at.getTime(),
    receivedAtMs: e.received_at.getTime(),
    ...(e.claimed_at ? { claimedAtMs: e.claimed_at.getTime() } : {}),
    who: e.who,
    ...(e.plan_revision === null ? {} : { planRevision: e.plan_revision }),
    body: e.body,
  }))
}

/** Readings by device, channel and time, from where the ones before ended. */
async function readingsAfter(db: Db, id: string, last: FileReading | undefined): Promise<FileReading[]> {
  let wanted = db.selectFrom('reading').selectAll().where('pour_id', '=', id)
  if (last)
    wanted = wanted.where((eb) =>
      eb(
        eb.refTuple('device_id', 'channel', 'at'),
        '>',
        eb.tuple(last.device, last.channel, new Date(last.atMs)),
      ),
    )
  const rows = await wanted
    .orderBy('device_id')
    .orderBy('channel')
    .orderBy('at')
    .limit(MOST_IN_PIECE.readings)
    .execute()
  return rows.map(readingOf)
}

/** A pour as files, as it lies in the database, a piece at a time; none where it is not there. */
export async function* pourPieces(db: Db, id: string): AsyncGenerator<object> {
  const head = await headOf(db, id)
  if (!head) return
  const events = await eventsOf(db, id)
  let readings = await readingsAfter(db, id, undefined)
  const { photos, ...rest } = head
  yield { ...rest, events: events.slice(0, MOST_IN_PIECE.events), readings, photos }
  for (let nth = 1; ; nth++) {
    readings = readings.length < MOST_IN_PIECE.readings ? [] : await readingsAfter(db, id, readings.at(-1))
    const more = events.slice(nth * MOST_IN_PIECE.events, (nth + 1) * MOST_IN_PIECE.events)
    if (more.length === 0 && readings.length === 0) return
    yield { format: 'nine-ripples.pour_more', version: 1, id, events: more, readings } as const
  }
}

export type PourStanding = 'add' | 'same' | 'grow' | 'clash'

const HEAD = pourFileSchema
  .omit({ readings: true })
  .extend({ events: z.array(pourFileSchema.shape.events.element) })

/** What of a pour's file is not here yet; a clash where the two say otherwise of one thing. */
export async function pourStanding(
  db: Db,
  file: PourFile,
): Promise<{ standing: PourStanding; missing: Event[] }> {
  const here = await headOf(db, file.id)
  if (!here) return { standing: 'add', missing: file.events }
  const read = HEAD.safeParse({ ...here, events: await eventsOf(db, file.id) })
  // What cannot be read here is nobody's to overwrite.
  if (!read.success) return { standing: 'clash', missing: [] }
  const now = read.data
  const known = new Map(now.events.map((e) => [e.id, e]))
  const missing = file.events.filter((e) => !known.has(e.id))
  const told = (e: Event) => ({ ...e, receivedAtMs: 0 })
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

/** @returns how many were not here yet. */
async function insertEvents(
  trx: Transaction<Database>,
  pourId: string,
  events: readonly Event[],
): Promise<number> {
  let added = 0
  for (let at = 0; at < events.length; at += PIECE) {
    const { numInsertedOrUpdatedRows } = await trx
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
      .executeTakeFirst()
    added += Number(numInsertedOrUpdatedRows ?? 0)
  }
  return added
}

/** @returns how many were not here yet. */
async function insertReadings(
  trx: Transaction<Database>,
  pourId: string,
  readings: readonly FileReading[],
): Promise<number> {
  let added = 0
  for (let at = 0; at < readings.length; at += PIECE) {
    const { numInsertedOrUpdatedRows } = await trx
      .insertInto('reading')
      .values(
        readings.slice(at, at + PIECE).map((r) => ({
          device_id: r.device,
          channel: r.channel,
          pour_id: pourId,
          batch: r.batch,
          at: new Date(r.atMs),
          value: r.value,
          stable: r.stable,
        })),
      )
      .onConflict((c) => c.doNothing())
      .executeTakeFirst()
    added += Number(numInsertedOrUpdatedRows ?? 0)
  }
  return added
}

async function sumUp(trx: Transaction<Database>, id: string): Promise<void> {
  const [answer] = await poursById(trx, [id])
  await summarise(trx, answer!)
}

/** Puts a pour in, or what is missing of it. Events are only ever added: a clash stays as it is here. */
export async function putPourFile(db: Db, file: PourFile): Promise<PourStanding> {
  const { standing, missing } = await pourStanding(db, file)
  if (standing === 'clash') return standing
  return db.transaction().execute(async (trx) => {
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
    const added = await insertReadings(trx, file.id, file.readings)
    if (standing === 'same' && added === 0) return standing
    await sumUp(trx, file.id)
    return standing === 'same' ? 'grow' : standing
  })
}

/** Puts in what the files of a pour before this one could not hold. @returns whether anything of it was new. */
export async function putPourMore(db: Db, more: PourMore): Promise<boolean> {
  return db.transaction().execute(async (trx) => {
    const events = await insertEvents(trx, more.id, more.events)
    const readings = await insertReadings(trx, more.id, more.readings)
    if (events + readings > 0) await sumUp(trx, more.id)
    return events + readings > 0
  })
}
