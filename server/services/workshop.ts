import type { z } from 'zod'
import type { Page, pageQuerySchema, PlasterCard, Settings } from '../../shared/contracts'
import type { Db } from '../db/client'
import { countRows } from '../db/countRows'

type PageQuery = z.output<typeof pageQuerySchema>

export async function listPlasters(db: Db, { offset, limit }: PageQuery): Promise<Page<PlasterCard>> {
  const rows = await db
    .selectFrom('plaster')
    .selectAll()
    .orderBy('name')
    .orderBy('id')
    .offset(offset)
    .limit(limit)
    .execute()
  const items = rows.map((r) => ({
    id: r.id,
    name: r.name,
    classId: r.class_id,
    labelConsistency: r.label_consistency,
    labelExpansionPct: r.label_expansion_pct,
    note: r.note,
  }))
  return { items, total: await countRows(db, 'plaster') }
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
