import { sql, type Selectable } from 'kysely'
import { NOTHING_G } from '../../core/mix'
import type { DeviceChannel } from '../../core/pour'
import type { DeviceCard, KeptReading } from '../../shared/devices'
import type { Db } from '../db/client'
import type { ReadingTable } from '../db/schema'
import { DomainError } from './domainError'

async function cardsOf(db: Db, ids?: readonly string[]): Promise<DeviceCard[]> {
  let wanted = db.selectFrom('device').select(['id', 'name']).orderBy('name').orderBy('id')
  if (ids) wanted = wanted.where('id', 'in', ids)
  const devices = await wanted.execute()
  if (devices.length === 0) return []
  const uses = await db
    .selectFrom('device_use')
    .selectAll()
    .where(
      'device_id',
      'in',
      devices.map((d) => d.id),
    )
    .orderBy('channel')
    .execute()
  return devices.map(({ id, name }) => ({
    id,
    name,
    uses: uses
      .filter((u) => u.device_id === id)
      .map((u) => ({
        channel: u.channel,
        pourId: u.pour_id,
        batch: u.batch,
        sinceMs: u.since.getTime(),
      })),
  }))
}

export const listDevices = (db: Db): Promise<DeviceCard[]> => cardsOf(db)

/** Those of these that are there. */
export const devicesById = (db: Db, ids: readonly string[]): Promise<DeviceCard[]> => cardsOf(db, ids)

/** More than stand in any workshop: what is not used can be forgotten. */
const MOST_DEVICES = 200

/** A device has said its name. Writes only where that is news. @returns whether it is known. */
export async function renameDevice(db: Db, id: string, name: string): Promise<boolean> {
  const known = await db.selectFrom('device').select('name').where('id', '=', id).executeTakeFirst()
  if (known && known.name !== name)
    await db.updateTable('device').set({ name }).where('id', '=', id).execute()
  return known !== undefined
}

/** Notes a device that nobody knew. @returns false where the workshop knows too many. */
export async function meetDevice(db: Db, id: string, name: string): Promise<boolean> {
  const { n } = await db
    .selectFrom('device')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow()
  if (n >= MOST_DEVICES) return false
  await db
    .insertInto('device')
    .values({ id, name })
    .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
    .execute()
  return true
}

/** Puts a channel of a device to a pour's bowl, or takes it off. The same again changes nothing. */
export async function putDevice(
  db: Db,
  id: string,
  channel: DeviceChannel,
  to: { pourId: string; batch: number } | null,
): Promise<DeviceCard> {
  const [known] = await cardsOf(db, [id])
  if (!known) throw new DomainError('not_found')
  const now = known.uses.find((u) => u.channel === channel)
  if (!to) {
    if (now)
      await db.deleteFrom('device_use').where('device_id', '=', id).where('channel', '=', channel).execute()
  } else if (now?.pourId !== to.pourId || now.batch !== to.batch) {
    const pour = await db.selectFrom('pour').select('id').where('id', '=', to.pourId).executeTakeFirst()
    if (!pour) throw new DomainError('not_found')
    const use = { pour_id: to.pourId, batch: to.batch, since: new Date() }
    await db
      .insertInto('device_use')
      .values({ device_id: id, channel, ...use })
      .onConflict((c) => c.columns(['workshop_id', 'device_id', 'channel']).doUpdateSet(use))
      .execute()
  }
  return (await cardsOf(db, [id]))[0]!
}

/** Forgets a device; it is there again when it next says its name. What it read stays with its pours. */
export async function deleteDevice(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('device').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}

export interface ReadingToKeep {
  device: string
  channel: DeviceChannel
  atMs: number
  value: number
  stable: boolean
}

/** Keeps those readings whose channel is put to a bowl. */
export async function keepReadings(db: Db, readings: readonly ReadingToKeep[]): Promise<void> {
  if (readings.length === 0) return
  const rows = JSON.stringify(
    readings.map((r) => ({ d: r.device, c: r.channel, at: r.atMs, v: r.value, s: r.stable })),
  )
  await sql`
    insert into reading (device_id, channel, at, value, stable, pour_id, batch)
    select r.d, r.c, to_timestamp(r.at / 1000), r.v, r.s, u.pour_id, u.batch
    from jsonb_to_recordset(${rows}::jsonb) as r (d text, c text, at double precision, v double precision, s boolean)
    join device_use u on u.device_id = r.d and u.channel = r.c
    on conflict do nothing`.execute(db)
}

/** A weighing takes no longer: what a scale stood at before is of no bowl that is being filled. */
const WEIGHING_MS = 3_600_000

/** When a scale was last read still and at nothing at the bowl that it is put to; null where it was not. */
export async function lastAtNothing(db: Db, device: string, nowMs: number): Promise<number | null> {
  const row = await db
    .selectFrom('reading as r')
    .innerJoin('device_use as u', (j) =>
      j
        .onRef('u.device_id', '=', 'r.device_id')
        .onRef('u.channel', '=', 'r.channel')
        .onRef('u.pour_id', '=', 'r.pour_id')
        .onRef('u.batch', '=', 'r.batch'),
    )
    .select((eb) => eb.fn.max('r.at').as('at'))
    .where('r.device_id', '=', device)
    .where('r.channel', '=', 'mass')
    .where('r.stable', '=', true)
    .where(sql<boolean>`abs(r.value) <= ${NOTHING_G}`)
    .where('r.at', '>', new Date(nowMs - WEIGHING_MS))
    .executeTakeFirst()
  return row?.at?.getTime() ?? null
}

/** A reading as it lies in the database, in the words of the wire. */
export const readingOf = (
  r: Pick<Selectable<ReadingTable>, 'device_id' | 'channel' | 'batch' | 'at' | 'value' | 'stable'>,
): KeptReading => ({
  device: r.device_id,
  channel: r.channel,
  batch: r.batch,
  atMs: r.at.getTime(),
  value: r.value,
  stable: r.stable,
})

/** More points than this no chart shows. */
const MOST_READINGS = 2000

/** What each device read for a pour, oldest first; thinned evenly, each channel and bowl by itself, where there is more than a chart shows. */
export async function readingsOf(db: Db, pourId: string): Promise<KeptReading[]> {
  const pour = await db.selectFrom('pour').select('id').where('id', '=', pourId).executeTakeFirst()
  if (!pour) throw new DomainError('not_found')
  const { rows } = await sql<{
    device_id: string
    channel: DeviceChannel
    batch: number
    at: Date
    value: number
    stable: boolean
  }>`
    select device_id, channel, batch, at, value, stable from (
      select *, row_number() over (partition by device_id, channel, batch order by at) as nth,
        count(*) over (partition by device_id, channel, batch) as of_all
      from reading where pour_id = ${pourId}) numbered
    where nth % greatest(1, of_all / ${MOST_READINGS}) = 0 or nth = of_all
    order by at`.execute(db)
  return rows.map(readingOf)
}

export interface LoggerReadings {
  file: string
  batch: number
  readings: { atMs: number; tempC: number }[]
}

/** A logger's file put to a pour. The same file again is the same readings. @returns how many are new. */
export async function addLoggerReadings(
  db: Db,
  pourId: string,
  of: LoggerReadings,
): Promise<{ added: number }> {
  const pour = await db.selectFrom('pour').select('id').where('id', '=', pourId).executeTakeFirst()
  if (!pour) throw new DomainError('not_found')
  const rows = JSON.stringify(of.readings.map((r) => ({ at: r.atMs, v: r.tempC })))
  const { rows: added } = await sql`
    insert into reading (device_id, channel, at, value, stable, pour_id, batch)
    select ${of.file}, 't1', to_timestamp(r.at / 1000), r.v, true, ${pourId}::uuid, ${of.batch}::int
    from jsonb_to_recordset(${rows}::jsonb) as r (at double precision, v double precision)
    on conflict do nothing returning 1`.execute(db)
  return { added: added.length }
}

/** Takes a logger's file off a pour. */
export async function deleteLoggerReadings(db: Db, pourId: string, file: string): Promise<void> {
  const gone = await db
    .deleteFrom('reading')
    .where('pour_id', '=', pourId)
    .where('device_id', '=', file)
    .executeTakeFirst()
  if (gone.numDeletedRows === 0n) throw new DomainError('not_found')
}

/** Readings of a scale serve the weighing; a week later nobody looks at how a bowl was filled. */
export async function pruneReadings(db: Db, olderThanMs: number, nowMs: number): Promise<void> {
  await db
    .deleteFrom('reading')
    .where('channel', '=', 'mass')
    .where('at', '<', new Date(nowMs - olderThanMs))
    .execute()
}

export const LIVE_CHANNEL = 'nine_ripples_live'
/** A notification holds 8000 bytes. */
const MOST_PAYLOAD = 7500

/** Tells every process that serves this workshop, in as few notifications as it takes. */
export async function tellLive(db: Db, workshopId: string, said: readonly object[]): Promise<void> {
  for (let from = 0; from < said.length;) {
    let payload = ''
    let to = from
    while (to < said.length) {
      const next = JSON.stringify({ w: workshopId, m: said.slice(from, to + 1) })
      if (to > from && Buffer.byteLength(next) > MOST_PAYLOAD) break
      payload = next
      to += 1
    }
    await sql`select pg_notify(${LIVE_CHANNEL}, ${payload})`.execute(db)
    from = to
  }
}
