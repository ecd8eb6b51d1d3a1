import type { Settings } from '../../shared/contracts'
import type { Db } from '../db/client'

export async function getSettings(db: Db): Promise<Settings> {
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
  }
}

export async function saveSettings(db: Db, settings: Settings): Promise<Settings> {
  await db
    .updateTable('settings')
    .set({
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
    })
    .execute()
  return getSettings(db)
}
