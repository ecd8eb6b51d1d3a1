import type { ColumnType, Generated, Selectable } from 'kysely'
import type { EventBody, PourPlan } from '../../core/pour'
import type { Provenance } from '../../core/provenance'
import type { CHANGE_TOPICS, MouldCard, PlasterCard, Settings } from '../../shared/contracts'

export interface PlasterTable {
  id: string
  name: string
  class_id: PlasterCard['classId']
  label_consistency: number | null
  label_expansion_pct: number | null
  note: string
}

export interface MouldTable {
  id: string
  name: string
  kind: MouldCard['kind']
  cavity_ml: number
  volume_provenance: ColumnType<Provenance, string, string>
  thickness_mm: number
  usual_plaster_id: string | null
  note: string
}

export interface PourTable {
  id: string
  plan: ColumnType<PourPlan, string, string>
  revision: Generated<number>
  created_at: Generated<Date>
}

export interface EventTable {
  id: string
  pour_id: string
  type: EventBody['type']
  body: ColumnType<EventBody, string, never>
  occurred_at: ColumnType<Date, Date, never>
  received_at: Generated<Date>
  who: string
  voids_event_id: string | null
}

export interface SettingsTable {
  only_row: Generated<boolean>
  workshop_name: string
  system: Settings['system']
  scale_division_g: number
  room_temp_c: number
  room_rh_pct: number
  air_speed_m_s: number
  tap_temp_c: number
}

export interface ChangeTable {
  seq: Generated<number>
  topic: (typeof CHANGE_TOPICS)[number]
  entity_id: string
}

export interface Database {
  plaster: PlasterTable
  mould: MouldTable
  pour: PourTable
  event: EventTable
  settings: SettingsTable
  change: ChangeTable
}

export type PourRow = Selectable<PourTable>
export type EventRow = Selectable<EventTable>
