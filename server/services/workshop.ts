import type { MouldCard, PlasterCard, Settings } from '../../shared/contracts'
import type { Db } from '../db/client'

export async function listPlasters(db: Db): Promise<PlasterCard[]> {
  const rows = await db.selectFrom('plaster').selectAll().orderBy('name').orderBy('id').limit(1000).execute()
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    classId: r.class_id,
    labelConsistency: r.label_consistency,
    labelExpansionPct: r.label_expansion_pct,
    note: r.note,
  }))
}

export async function listMoulds(db: Db): Promise<MouldCard[]> {
  const rows = await db.selectFrom('mould').selectAll().orderBy('name').orderBy('id').limit(1000).execute()
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    kind: r.kind,
    cavityMl: r.cavity_ml,
    volumeProvenance: r.volume_provenance,
    thicknessMm: r.thickness_mm,
    usualPlasterId: r.usual_plaster_id,
    note: r.note,
  }))
}

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
    })
    .execute()
  return getSettings(db)
}
