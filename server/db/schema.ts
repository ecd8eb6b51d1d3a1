import type { ColumnType, Generated, InsertType, Selectable } from 'kysely'
import type {
  DeviceChannel,
  EventBody,
  HeedSubject,
  MouldDamage,
  MouldUse,
  PourTag,
  Stage,
  Verdict,
} from '../../core/pour'
import type { CauseId, FaultKind, UpkeepAct } from '../../core/finish'
import type { FactorId, Subject } from '../../core/learn'
import type { Provenance } from '../../core/provenance'
import type { Addition, PlasterClassId } from '../../core/plaster'
import type { SetTest, SettlingAct } from '../../core/stock'
import type { Settings } from '../../shared/contracts'
import type { ChangeTopic } from '../../shared/changes'
import type { PlaceInput } from '../../shared/learning'
import type { MouldCard } from '../../shared/moulds'
import type { Role } from '../../shared/roles'
import type { BagInput } from '../../shared/stock'

/** Whose it is; set by the connection, never by a query. */
interface OfWorkshop {
  workshop_id: ColumnType<string, never, never>
}

export interface PlasterTable extends OfWorkshop {
  id: string
  name: string
  class_id: PlasterClassId
  label_consistency: number | null
  /** Where it prints a range. */
  label_consistency_low: number | null
  label_consistency_high: number | null
  label_expansion_pct: number | null
  label_set_min: number | null
  label_set_test: SetTest
  label_dry_strength_mpa: number | null
  printed_ratio: string
  additions: ColumnType<Addition[], string, string>
  note: string
  revision: Generated<number>
}

export interface BagTable extends OfWorkshop {
  id: string
  plaster_id: string
  name: string
  bought_g: number
  price: number | null
  /** A day, as text: it has no time and no zone. */
  opened_on: string | null
  keeping: BagInput['keeping']
  scoop: ColumnType<BagInput['scoop'], string | null, string | null>
  counted_g: number | null
  counted_at: Date | null
  used_up: boolean
  note: string
  /** Running sums of `bag_draw` since it was last weighed. */
  taken_g: Generated<number>
  taken_by_pours: Generated<number>
  revision: Generated<number>
  created_at: Generated<Date>
}

export interface SpoonTestTable extends OfWorkshop {
  id: string
  bag_id: string
  tested_at: Date
  consistency: number
  water_temp_c: number
  stir_s: number
  took_s: number
}

export interface BowlTable extends OfWorkshop {
  id: string
  name: string
  volume_ml: number
  tare_g: number
  revision: Generated<number>
}

export interface RecipeTable extends OfWorkshop {
  id: string
  name: string
  /** Of any version: read through `planSchema`. */
  plan: ColumnType<unknown, string, string>
  revision: Generated<number>
}

export interface MouldTable extends OfWorkshop {
  id: string
  name: string
  kind: MouldCard['kind']
  cavity_ml: number
  plus_minus_ml: number
  volume_provenance: ColumnType<Provenance, string, string>
  thickness_mm: number
  thinnest_mm: number | null
  purpose: MouldCard['purpose']
  facts: ColumnType<MouldCard['facts'], string, string>
  volume: ColumnType<MouldCard['volume'], string, string>
  usual_plaster_id: string | null
  is_spill: boolean
  casts_before: number
  life_casts: number | null
  note: string
  find: ColumnType<MouldCard['find'], string | null, string | null>
  /** Running sum of `mould_use`. */
  casts_here: Generated<number>
  revision: Generated<number>
  created_at: Generated<Date>
}

export interface PhotoTable extends OfWorkshop {
  id: string
  /** Of a mould, or of a pour. */
  mould_id: string | null
  pour_id: string | null
  caption: string
  width_px: number
  height_px: number
  full_jpeg: Buffer
  thumb_jpeg: Buffer
  created_at: Generated<Date>
}

export interface MouldSetTable extends OfWorkshop {
  id: string
  name: string
  revision: Generated<number>
}

export interface MouldSetMemberTable extends OfWorkshop {
  set_id: string
  mould_id: string
  count: number
}

export interface PourTable extends OfWorkshop {
  id: string
  /** Of any version: read through `storedPlanSchema`. */
  plan: ColumnType<unknown, string, string>
  revision: Generated<number>
  created_at: Generated<Date>
}

export interface EventTable extends OfWorkshop {
  id: string
  pour_id: string
  type: EventBody['type']
  /** Read through `eventBodySchema`. */
  body: ColumnType<unknown, string, never>
  occurred_at: ColumnType<Date, Date, never>
  received_at: Generated<Date>
  who: string
  /** Null from the machine itself, and from before there were people. */
  who_id: ColumnType<string | null, string | null | undefined, never>
  voids_event_id: string | null
  /** Revision of the plan it was recorded against; null from before events named it. */
  plan_revision: ColumnType<number | null, number | null, never>
  /** When the device's clock had it, where that was set right. */
  claimed_at: ColumnType<Date | null, Date | null | undefined, never>
}

/** Plans that were changed, as they were. */
export interface PlanRevisionTable extends OfWorkshop {
  pour_id: string
  revision: number
  plan: ColumnType<unknown, string, never>
}

export interface SettingsTable extends OfWorkshop {
  revision: Generated<number>
  workshop_name: string
  system: Settings['system']
  scale_division_g: number
  room_temp_c: number
  room_rh_pct: number
  air_speed_m_s: number
  tap_temp_c: number
  hot_tap_temp_c: number
  scale_capacity_g: number | null
  currency: string
  decimal_sign: Settings['decimalSign']
  kitchen: Settings['kitchen']
  scoop_ml: number | null
}

export interface ChangeTable extends OfWorkshop {
  seq: Generated<number>
  topic: ChangeTopic
  entity_id: string
  event_id: string | null
  at: Generated<Date>
}

/** What a pour comes to for lists, kept from its fold by `summarise`. */
export interface PourSummaryTable extends OfWorkshop {
  pour_id: string
  created_at: Date
  piece: string
  mould: string
  plaster: string
  searched: string
  consistency: number | null
  mould_id: string | null
  plaster_id: string | null
  actual_consistency: number | null
  is_open: boolean
  stage: Stage
  rings: ColumnType<number[], string, string>
  verdict: Verdict | null
  /** Pieces by their verdict. */
  good: number
  usable: number
  failed: number
  abandoned: number
  /** With each fault and cause among the tags, how many pieces. */
  tag_pieces: ColumnType<Partial<Record<PourTag, number>>, string, string>
  reason: string
  unreadable: string | null
  /** Of whom it may teach something; `faults` where something is wrong with it. */
  teaches: (Subject | 'faults')[]
  /** Looked through for that, as it is now. */
  is_observed: boolean
  /** Events it was summed up from. */
  event_count: number
  tags: PourTag[]
  casts: number
  cost: number | null
  dry_days: number | null
  /** Where it dried first. */
  place_id: string | null
  ended_at: Date | null
  /** What the piece, in use, wants next, and from when on. */
  upkeep_act: UpkeepAct | null
  upkeep_at: Date | null
}

/** Plaster that one bowl of a pour took out of a bag. */
export interface BagDrawTable extends OfWorkshop {
  pour_id: string
  batch: number
  bag_id: string
  drawn_at: Date
  mass_g: number
}

/** What a pour did with a mould, and to it. */
export interface MouldUseTable extends OfWorkshop {
  pour_id: string
  mould_id: string
  count: number
  piece: string
  poured_at: Date | null
  outcomes: ColumnType<MouldUse['outcomes'], string, string>
  faults: FaultKind[]
  damages: ColumnType<{ kind: MouldDamage; atMs: number }[], string, string>
}

/** A cause that was accepted, with what it stays with. */
export interface HeedTable extends OfWorkshop {
  pour_id: string
  subject: HeedSubject
  cause: CauseId
  at: Date
}

export interface PlaceTable extends OfWorkshop {
  id: string
  name: string
  kind: PlaceInput['kind']
  air: ColumnType<PlaceInput['air'], string, string>
  night_air: ColumnType<PlaceInput['nightAir'], string | null, string | null>
  revision: Generated<number>
}

/** What a pour showed of a factor; made anew when it changes. */
export interface ObservationTable extends OfWorkshop {
  pour_id: string
  factor: FactorId
  subject: Subject
  at: Date
  ratio: number
  sigma_ln: number
}

export interface LearnChoiceTable extends OfWorkshop {
  subject: Subject
  factor: FactorId
  is_off: boolean
  since: Date | null
  left_out: string[]
}

export interface DeviceTable extends OfWorkshop {
  id: string
  name: string
  created_at: Generated<Date>
}

export interface DeviceUseTable extends OfWorkshop {
  device_id: string
  channel: DeviceChannel
  pour_id: string
  batch: number
  since: Date
}

/** What a device read at a bowl it was put to. */
export interface ReadingTable extends OfWorkshop {
  device_id: string
  channel: DeviceChannel
  at: Date
  pour_id: string
  batch: number
  value: number
  stable: boolean
}

export interface SettlingTable extends OfWorkshop {
  id: string
  what: SettlingAct
  at: Date
  who: string
}

export interface PersonTable extends OfWorkshop {
  id: string
  name: string
  role: Role
  /** What they sign in by, if they do. */
  account_id: ColumnType<string | null, string | null | undefined, string | null>
  created_at: Generated<Date>
  gone_at: ColumnType<Date | null, never, Date>
}

/** A name that a person's pours were recorded under before they were let in. */
export interface PersonNameTable extends OfWorkshop {
  name: string
  /** What it is known by (`handOfName`). */
  hand: string
  person_id: string
}

/** A device that a person was let in on. */
export interface SessionTable extends OfWorkshop {
  id: string
  person_id: string
  device: string
  created_at: Generated<Date>
  seen_at: Generated<Date>
  seen_from: ColumnType<string | null, never, string>
  ended_at: ColumnType<Date | null, never, Date>
}

/** A code that one device of this person may be let in by. */
export interface PairingTable extends OfWorkshop {
  person_id: string
  secret_hash: Buffer
  expires_at: Date
}

/** What one device of the network is let in by. */
export interface DeviceKeyTable extends OfWorkshop {
  id: string
  name: string
  key_hash: Buffer
  device_id: ColumnType<string | null, never, string>
  created_at: Generated<Date>
  ended_at: ColumnType<Date | null, never, Date>
}

/** Which process has a bundle in hand. */
export interface BundleJobTable extends OfWorkshop {
  id: string
  address: string
  created_at: Generated<Date>
}

/** What came from somebody who was put out. */
export interface HeldEventTable extends OfWorkshop {
  id: string
  pour_id: string
  person_id: string
  device: string
  event: ColumnType<unknown, string, never>
  came_at: Generated<Date>
  refused_at: ColumnType<Date | null, never, Date>
}

export interface Database {
  plaster: PlasterTable
  bag: BagTable
  bundle_job: BundleJobTable
  spoon_test: SpoonTestTable
  bowl: BowlTable
  recipe: RecipeTable
  mould: MouldTable
  photo: PhotoTable
  mould_set: MouldSetTable
  mould_set_member: MouldSetMemberTable
  pour: PourTable
  event: EventTable
  plan_revision: PlanRevisionTable
  settings: SettingsTable
  change: ChangeTable
  pour_summary: PourSummaryTable
  bag_draw: BagDrawTable
  mould_use: MouldUseTable
  heed: HeedTable
  device: DeviceTable
  device_use: DeviceUseTable
  device_key: DeviceKeyTable
  reading: ReadingTable
  settling: SettlingTable
  place: PlaceTable
  observation: ObservationTable
  learn_choice: LearnChoiceTable
  person: PersonTable
  person_name: PersonNameTable
  held_event: HeldEventTable
  session: SessionTable
  pairing: PairingTable
}

/**
 * What a row is made of when a card is written: every column that neither names the row nor is kept by the database
 * itself. A column that a service forgets does not compile.
 */
export type Columns<Table> = {
  [
    K in keyof Table as K extends 'id'
      ? never
      : [InsertType<Table[K]>] extends [never]
        ? never
        : undefined extends InsertType<Table[K]>
          ? never
          : K
  ]: InsertType<Table[K]>
}

export type MouldRow = Selectable<MouldTable>
export type PourSummaryRow = Selectable<PourSummaryTable>
export type PourRow = Selectable<PourTable>
export type EventRow = Selectable<EventTable>
export type PlanRevisionRow = Selectable<PlanRevisionTable>
