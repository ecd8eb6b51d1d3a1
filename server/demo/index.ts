/**
 * The made-up workshop that a first start shows: Saltmarsh Shed, a museum of tides. Everything is dated relative
 * to the moment it is loaded, so that its clocks run.
 */
import { randomUUID } from 'node:crypto'
import { lightFormat } from 'date-fns'
import { sql, type Transaction } from 'kysely'
import sharp from 'sharp'
import { takePlan, type PourPlan } from '../../core/pour'
import { propertiesOfCard, spoonTestForecastS } from '../../core/stock'
import { DEMO_PIECE, SettingPiece } from '../../devices/probeModel'
import { inTransaction, type Db } from '../db/client'
import type { Database } from '../db/schema'
import { addSpoonTest, putBag } from '../services/shelf/bags'
import { putBowl, putPlace, putRecipe } from '../services/shelf/cupboard'
import { meetDevice, putDevice } from '../services/devices'
import { insertMould } from '../services/shelf/moulds'
import { putMouldSet } from '../services/shelf/mouldSets'
import { insertPhoto, reducePhoto } from '../services/photos'
import { putPlaster } from '../services/shelf/plasters'
import { getPour } from '../services/pours/pourRecords'
import { addSettling } from '../services/learnt/settling'
import { summarise } from '../services/pours/summaries'
import { getSettings, saveSettings } from '../services/workshop'
import { settingsSchema } from '../../shared/contracts'
import type { PlaceInput } from '../../shared/learning'
import { mouldInputSchema } from '../../shared/moulds'
import type { PlasterInput } from '../../shared/stock'
import { DEMO_MOULDS, DEMO_SETS, type DemoMouldKey } from './moulds'
import { DEMO_PLASTERS, type DemoPlasterKey } from './plasters'
import { demoPours } from './pours'
import { demoPrint } from './print'
import {
  DEMO_BAGS,
  DEMO_BOWLS,
  DEMO_DEVICES,
  DEMO_PLACES,
  plan,
  type BagIds,
  type MakePlan,
  type MouldIds,
  type PlaceIds,
  type PlasterIds,
} from './shed'
import { DAY, HOUR, toEvents, type Timed } from './timed'

/** What a thermometer in a setting piece has read since it was poured, each ten seconds. */
async function loadReadings(trx: Db, pourId: string, of: PourPlan, timed: readonly Timed[], nowMs: number) {
  const pouredS = timed.find(([, , body]) => body.type === 'poured')?.[0]
  if (pouredS === undefined) return
  const { classId, consistency, tempC, ageS, pace } = DEMO_PIECE
  const piece = new SettingPiece(classId, consistency, of.air.tempC, tempC, ageS + pouredS, pace)
  const rows: { at: Date; value: number }[] = []
  for (let s = pouredS; s < 0; s++) {
    piece.step(1)
    if (Math.round(s - pouredS) % 10 === 0)
      rows.push({ at: new Date(nowMs + s * 1000), value: Math.round(piece.tempC * 10) / 10 })
  }
  await trx
    .insertInto('reading')
    .values(
      rows.map((r) => ({
        ...r,
        device_id: 'shed-thermometer',
        channel: 't1',
        pour_id: pourId,
        batch: 0,
        stable: true,
      })),
    )
    .execute()
}

/** Empties the connection's workshop; its settings and the numbers of the change log stay. */
export async function clearWorkshop(db: Db): Promise<void> {
  await sql`select clear_workshop()`.execute(db)
}

/** The same for the owner, where nobody is at it: whatever its size, nothing is told of each row. */
export function clearUnseen(owner: Db): Promise<void> {
  return owner.transaction().execute(async (trx) => {
    await sql`set local session_replication_role = replica`.execute(trx)
    await clearWorkshop(trx)
  })
}

/** Plasters, their bags with what was tried of them, and the bowls. */
async function loadStock(trx: Db, nowMs: number) {
  const day = (daysAgo: number) => lightFormat(nowMs - daysAgo * DAY * 1000, 'yyyy-MM-dd')
  const plasterIds = {} as PlasterIds
  const bagIds: BagIds = {}
  for (const [key, card] of Object.entries(DEMO_PLASTERS) as [DemoPlasterKey, PlasterInput][]) {
    plasterIds[key] = randomUUID()
    await putPlaster(trx, plasterIds[key], null, card)
    const bag = DEMO_BAGS[key]
    if (!bag) continue
    const { openDays, spoonTests, ...rest } = bag
    const bagId = (bagIds[key] = randomUUID())
    await putBag(trx, bagId, null, {
      ...rest,
      plasterId: plasterIds[key],
      openedOn: day(openDays),
      counted: null,
      usedUp: false,
      note: '',
    })
    for (const [daysAgo, ratio] of spoonTests) {
      const properties = propertiesOfCard(card.label)
      const mix = { consistency: properties.useConsistency, waterTempC: 16, stirS: 60 }
      const tookS = Math.round(spoonTestForecastS(properties, mix).mid * ratio)
      const atMs = Math.round(nowMs - daysAgo * DAY * 1000)
      await addSpoonTest(trx, bagId, { id: randomUUID(), atMs, ...mix, tookS })
    }
  }
  for (const { bowlId, ...bowl } of DEMO_BOWLS) await putBowl(trx, bowlId, null, bowl)
  return { plasterIds, bagIds }
}

async function loadPlaces(trx: Db): Promise<PlaceIds> {
  const ids = {} as PlaceIds
  for (const [key, place] of Object.entries(DEMO_PLACES) as [keyof PlaceIds, PlaceInput][])
    await putPlace(trx, (ids[key] = randomUUID()), null, place)
  return ids
}

async function loadPrint(trx: Transaction<Database>, usualPlasterId: string, nowMs: number) {
  const [id, photoId] = [randomUUID(), randomUUID()]
  const { mould, picture } = demoPrint(nowMs, photoId)
  await insertMould(trx, id, mouldInputSchema.parse({ ...mould, usualPlasterId }))
  const drawn = await sharp(Buffer.from(picture)).jpeg().toBuffer()
  await insertPhoto(trx, { mould: id }, photoId, '', await reducePhoto(drawn, 'mould'))
}

/** Loads the demo workshop into an empty database, all or nothing. */
export async function loadDemo(db: Db, nowMs: number): Promise<void> {
  await inTransaction(db, async (trx) => {
    const { revision } = await getSettings(trx)
    await saveSettings(
      trx,
      revision,
      settingsSchema.parse({
        workshopName: 'Saltmarsh Shed',
        system: 'metric',
        scaleDivisionG: 1,
        roomTempC: 18,
        roomRhPct: 55,
        airSpeedMS: 0.1,
        tapTempC: 16,
        hotTapTempC: 52,
        scaleCapacityG: 5000,
        currency: '€',
        decimalSign: null,
        kitchen: null,
      }),
    )
    const mouldIds = Object.fromEntries(
      Object.keys(DEMO_MOULDS).map((key) => [key, randomUUID()]),
    ) as MouldIds
    const stock = { ...(await loadStock(trx, nowMs)), placeIds: await loadPlaces(trx) }
    for (const [key, { plaster, ...described }] of Object.entries(DEMO_MOULDS)) {
      const mould = mouldInputSchema.parse({ ...described, usualPlasterId: stock.plasterIds[plaster] })
      await insertMould(trx, mouldIds[key as DemoMouldKey], mould)
    }
    await loadPrint(trx, stock.plasterIds.moulding, nowMs)
    for (const { name, members } of DEMO_SETS) {
      const set = { name, members: members.map(([key, count]) => ({ mouldId: mouldIds[key], count })) }
      await putMouldSet(trx, randomUUID(), null, set)
    }
    await putRecipe(trx, randomUUID(), null, {
      name: 'Hand pieces, thinner',
      plan: plan(mouldIds, stock, 'Hand piece', 'ammonite', { consistency: 36, soakS: 180, sparePct: 12 }),
    })
    const shellRecipe = { recipeId: randomUUID(), name: 'Shell, all in at once' }
    await putRecipe(trx, shellRecipe.recipeId, null, {
      name: shellRecipe.name,
      plan: plan(mouldIds, stock, 'Shell', 'shell', { addingWay: 'tipped_in', soakS: 180, sparePct: 5 }),
    })
    await putRecipe(trx, randomUUID(), null, {
      name: 'Prints in cold mud',
      plan: plan(mouldIds, stock, 'Print', 'ripple', {
        addingWay: 'kneaded',
        waterTempC: 8,
        powderTempC: 8,
        stirS: 90,
        batching: {
          split: { by: 'casts', castsPerBag: 1 },
          bowl: null,
          pourRateMlMin: null,
          scaleCapacityG: null,
        },
      }),
    })
    const makePlan: MakePlan = (piece, mouldKey, change) => ({
      ...plan(mouldIds, stock, piece, mouldKey, change),
      ...(mouldKey === 'shell' ? { recipe: shellRecipe } : {}),
    })
    for (const { id, name } of DEMO_DEVICES) await meetDevice(trx, id, name)
    for (const { of, timed, ageS, photo, devices = [] } of demoPours(makePlan)) {
      const pourId = randomUUID()
      await trx
        .insertInto('pour')
        .values({ id: pourId, plan: JSON.stringify(takePlan(of)), created_at: new Date(nowMs - ageS * 1000) })
        .execute()
      const taken: Timed[] = photo
        ? [[-photo.agoS, photo.who, { type: 'photographed', photoId: photo.id, caption: '' }]]
        : []
      if (photo)
        await insertPhoto(
          trx,
          { pour: pourId },
          photo.id,
          '',
          await reducePhoto(await sharp(Buffer.from(photo.svg)).png().toBuffer(), 'pour'),
        )
      for (const e of toEvents(nowMs, [...timed, ...taken])) {
        await trx
          .insertInto('event')
          .values({
            id: e.id,
            pour_id: pourId,
            type: e.body.type,
            body: JSON.stringify(e.body),
            occurred_at: new Date(e.occurredAtMs),
            received_at: new Date(e.occurredAtMs + 300),
            who: e.who,
            voids_event_id: null,
            plan_revision: 1,
          })
          .execute()
      }
      for (const { id, channel } of devices) {
        await putDevice(trx, id, channel, { pourId, batch: 0 })
        if (channel === 't1') await loadReadings(trx, pourId, of, timed, nowMs)
      }
      await summarise(trx, await getPour(trx, pourId))
    }
    for (const [hoursAgo, what] of [
      [40, 'poured_off'],
      [15, 'filled'],
    ] as const)
      await addSettling(trx, {
        id: randomUUID(),
        what,
        atMs: nowMs - hoursAgo * HOUR * 1000,
        who: 'Mina',
      })
  })
}
