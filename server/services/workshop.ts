import type { z } from 'zod'
import type { MouldCard, Page, pageQuerySchema, PlasterCard, Settings } from '../../shared/contracts'
import type { Db } from '../db/client'
import type { Database } from '../db/schema'

type PageQuery = z.output<typeof pageQuerySchema>

async function countRows(db: Db, table: keyof Database & ('plaster' | 'mould')): Promise<number> {
  const { total } = await db
    .selectFrom(table)
    .select((eb) => eb.fn.countAll<number>().as('total'))
    .executeTakeFirstOrThrow()
  return total
}

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

export async function listMoulds(db: Db, { offset, limit }: PageQuery): Promise<Page<MouldCard>> {
  const rows = await db
    .selectFrom('mould')
    .selectAll()
    .orderBy('name')
    .orderBy('id')
    .offset(offset)
    .limit(limit)
    .execute()
  const items = rows.map((r) => ({
    id: r.id,
    name: r.name,
    kind: r.kind,
    cavityMl: r.cavity_ml,
    volumeProvenance: r.volume_provenance,
    thicknessMm: r.thickness_mm,
    usualPlasterId: r.usual_plaster_id,
    note: r.note,
  }))
  return { items, total: await countRows(db, 'mould') }
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
