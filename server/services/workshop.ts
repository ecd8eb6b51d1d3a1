import { isDeepStrictEqual } from 'node:util'
import type { Settings, SettingsRecord } from '../../shared/contracts'
import type { Db } from '../db/client'
import type { Columns, SettingsTable } from '../db/schema'
import { DomainError } from './domainError'

export async function getSettings(db: Db): Promise<SettingsRecord> {
  const r = await db.selectFrom('settings').selectAll().executeTakeFirstOrThrow()
  return {
    workshopName: r.workshop_name,
    system: r.system,
    scaleDivisionG: r.scale_division_g,
    roomTempC: r.room_temp_c,
    roomRhPct: r.room_rh_pct,
    airSpeedMS: r.air_speed_m_s,
    tapTempC: r.tap_temp_c,
    hotTapTempC: r.hot_tap_temp_c,
    scaleCapacityG: r.scale_capacity_g,
    currency: r.currency,
    decimalSign: r.decimal_sign,
    kitchen: r.kitchen,
    scoopMl: r.scoop_ml,
    revision: r.revision,
  }
}

function columnsOf(settings: Settings): Columns<SettingsTable> {
  return {
    workshop_name: settings.workshopName,
    system: settings.system,
    scale_division_g: settings.scaleDivisionG,
    room_temp_c: settings.roomTempC,
    room_rh_pct: settings.roomRhPct,
    air_speed_m_s: settings.airSpeedMS,
    tap_temp_c: settings.tapTempC,
    hot_tap_temp_c: settings.hotTapTempC,
    scale_capacity_g: settings.scaleCapacityG,
    currency: settings.currency,
    decimal_sign: settings.decimalSign,
    kitchen: settings.kitchen,
    scoop_ml: settings.scoopMl,
  }
}

/** @throws DomainError stale_card where they are not the ones the caller saw any more. */
export async function saveSettings(
  db: Db,
  seenRevision: number,
  settings: Settings,
): Promise<SettingsRecord> {
  const changed = await db
    .updateTable('settings')
    .set({ ...columnsOf(settings), revision: seenRevision + 1 })
    .where('revision', '=', seenRevision)
    .returning('revision')
    .executeTakeFirst()
  const record = await getSettings(db)
  const { revision, ...now } = record
  if (!changed && (revision < seenRevision || !isDeepStrictEqual(now, settings)))
    throw new DomainError('stale_card', [], record)
  return record
}
