import type { DryingSpot, Exposure } from '../drying'
import type { CauseId, Fault, FinishTask, Recalled, Upkeep } from '../finish'
import type { TouchCue } from '../forecast'
import type { AirTactic, Preparation } from '../mould'
import type { StirManner } from '../setting'
import type { PlanPlaster } from './plan/plaster'

export const DEMOULD_OUTCOMES = ['whole', 'damaged', 'broken'] as const
export type DemouldOutcome = (typeof DEMOULD_OUTCOMES)[number]

export const MOULD_DAMAGES = ['tear', 'crack', 'detail_lost', 'bits_stuck', 'out_of_shape'] as const
export type MouldDamage = (typeof MOULD_DAMAGES)[number]

export const VERDICTS = ['good', 'usable', 'failed', 'abandoned'] as const
export type Verdict = (typeof VERDICTS)[number]

/** What a slip in the bowl was put right with. */
export const CORRECTIONS = ['water_out', 'water_in', 'powder_in', 'powder_out'] as const
export type CorrectionKind = (typeof CORRECTIONS)[number]

/** What a leak is stopped with, from what lies about (common practice, no source). */
export const LEAK_PLUGS = ['clay', 'mud', 'tape'] as const
export type LeakPlug = (typeof LEAK_PLUGS)[number]

/** What is done to a piece while it holds a line and is not yet hard. */
export const SOFT_WORKS = ['marked', 'hanger_set', 'excess_cut', 'flush_scraped'] as const
export type SoftWork = (typeof SOFT_WORKS)[number]

/** After the pour, in this order: the bowl first, while it sets. */
export const CLEAN_UPS = [
  'bowl_left',
  'tools_cleaned',
  'hands_rinsed',
  'floor_wiped',
  'buckets_marked',
] as const
export type CleanUp = (typeof CLEAN_UPS)[number]

/** With what a cause stays once it was accepted: later plans of it are reminded. */
export type HeedSubject = `mould:${string}` | `recipe:${string}` | `bag:${string}`

/** Which bowl, counted from 0; the first where it is not said. */
interface InBatch {
  batch?: number
}

/** Which pieces of the pour, by their numbers from 1; all of them where it is not said. */
interface OfPieces {
  pieces?: number[]
}

/** What a device can be put to a bowl with, and how that is written: its mass, its button, one of its thermometers. */
export const DEVICE_CHANNELS = { mass: 'mass', button: 'button', t: 't([1-9]|1[0-6])' } as const
export type TempChannel = `t${number}`
export type DeviceChannel = Exclude<keyof typeof DEVICE_CHANNELS, 't'> | TempChannel

/** Whether a channel reads temperatures. */
export const isTempChannel = (channel: DeviceChannel): channel is TempChannel => channel.startsWith('t')

/** Which reading of which device it was taken from; where it is not said, somebody typed it. */
export interface ReadingRef {
  device: string
  channel: DeviceChannel
  atMs: number
}
interface FromReading {
  reading?: ReadingRef
}

/**
 * What somebody says of a doubted thermometer: it reads °F; it hung in the air, sat in another pour, or is switched off, so
 * that what it read until then counts for nothing; or it is right, whatever the models think.
 */
export const THERMOMETER_TOLD = ['fahrenheit', 'in_air', 'elsewhere', 'off', 'right'] as const
export type ThermometerTold = (typeof THERMOMETER_TOLD)[number]

export const WEIGHED = ['water', 'admix', 'powder', 'filler'] as const
export type WeighedWhat = (typeof WEIGHED)[number]

/** How often a measure was filled. */
export interface Scoops {
  count: number
  measureMl: number
}

export type EventBody =
  /** One line of the preparation list, ticked. */
  | { type: 'prepared'; item: Preparation }
  | { type: 'mould_ready' }
  /** `scoops` where it was measured by volume: its mass is then what they should weigh. */
  | ({ type: 'weighed'; what: WeighedWhat; massG: number; scoops?: Scoops } & InBatch & FromReading)
  /** The masses that the scale told are not to be trusted, it turned out: the ratio is as good as by eye. */
  | { type: 'scale_doubted' }
  /** It was made of this plaster, not of the plan's, it turned out; the last one counts. */
  | { type: 'plaster_was'; plaster: PlanPlaster }
  /** What a thermometer in it was really doing, asked for where it was doubted; the last answer of each counts. */
  | { type: 'thermometer_told'; device: string; channel: TempChannel; is: ThermometerTold }
  /** From here on it is measured by volume: masses are what the volumes should weigh. */
  | { type: 'scale_failed' }
  | ({ type: 'corrected'; how: CorrectionKind; massG: number } & InBatch)
  /** Far more or less water is in than planned: whether plaster is weighed to it, or as planned. */
  | ({ type: 'powder_follows'; follows: boolean } & InBatch)
  /** A known volume of slurry was weighed: its consistency is known from its density. */
  | ({ type: 'slurry_checked'; massG: number; volumeMl: number } & InBatch)
  | ({ type: 'sift_started' } & InBatch)
  | ({ type: 'sifted' } & InBatch)
  | ({ type: 'soaked' } & InBatch)
  | ({ type: 'stirred'; manner: StirManner } & InBatch)
  | { type: 'extraction_checked' }
  | { type: 'layer_keyed' }
  | ({ type: 'face_coated' } & InBatch)
  | ({ type: 'bond_coated' } & InBatch)
  | ({ type: 'squeezed' } & InBatch)
  | ({ type: 'part_filled' } & InBatch)
  | ({ type: 'thickened' } & InBatch)
  | ({ type: 'reinforced' } & InBatch)
  | ({ type: 'built' } & InBatch)
  | ({ type: 'turned' } & InBatch)
  | ({ type: 'roughened' } & InBatch)
  | { type: 'vibrated' }
  | ({ type: 'levelled' } & InBatch)
  /** A step of the caster's own, by its id in the plan. */
  | ({ type: 'own_done'; own: string } & InBatch)
  /** One thing done about the air, ticked. */
  | { type: 'air_freed'; how: AirTactic }
  /** Slurry ran out of the mould; what that cost the piece is part of what went in. */
  | ({ type: 'leaked'; plug: LeakPlug; lostMl: number } & InBatch)
  /** What was left over filled a small mould: a pour of its own. */
  | { type: 'leftover_poured'; mouldId: string; fillMl: number }
  /** How much was over once the mould was full: what the bowl really gave. */
  | { type: 'left_over'; volumeMl: number }
  | { type: 'worked_soft'; work: SoftWork }
  | { type: 'cleaned_up'; what: CleanUp }
  | ({ type: 'poured' } & InBatch)
  /** The bowl is empty and the mould is not full: another bowl follows for what is missing. */
  | ({ type: 'ran_short'; missingMl: number } & InBatch)
  | ({ type: 'tapped' } & InBatch)
  /** Looked for and felt: seen just then, seen and so already for who knows how long, or not there yet. */
  | { type: 'touch'; cue: TouchCue; seen: boolean; already?: boolean }
  | ({ type: 'temperature'; place: 'slurry' | 'surface' | 'room'; tempC: number } & InBatch & FromReading)
  /** How it came out; the release did not do its work where it gripped. */
  | ({ type: 'demoulded'; outcome: DemouldOutcome; gripped?: boolean } & OfPieces)
  /** Something happened to the mould itself, not to the piece. */
  | { type: 'mould_damage'; mouldId: string | null; kind: MouldDamage }
  | ({ type: 'weighing'; massG: number } & OfPieces & FromReading)
  /** From here on it dries elsewhere, or lies otherwise. */
  | { type: 'dries_at'; spot: DryingSpot; lies: Exposure }
  /** Felt with the hand: cold and clammy, or not any more. */
  | { type: 'felt_dry'; clammy: boolean }
  /** Done to the piece once it was out. */
  | { type: 'finish_done'; task: FinishTask }
  /** Done with or to a piece that is in use. */
  | { type: 'kept_up'; what: Upkeep }
  /** Something is wrong with the piece. */
  | ({ type: 'defect' } & Fault & OfPieces)
  /** What nobody recorded and somebody still knew when it was asked for; the last answer counts. */
  | { type: 'recalled'; said: Recalled }
  /** This is why: later plans of what it stays with are reminded of it. */
  | { type: 'cause_kept'; cause: CauseId }
  /** It is no cause any more: mended, or not to be feared again. */
  | { type: 'cause_mended'; cause: CauseId; subject: HeedSubject }
  /** A photograph was taken; the picture itself goes by its id. */
  | ({ type: 'photographed'; photoId: string; caption: string } & OfPieces)
  | ({ type: 'finished'; verdict: Verdict; reason: string } & OfPieces)
  | { type: 'note'; text: string }
  /** What was recorded for an earlier revision of the plan holds for the present one. */
  | { type: 'plan_holds'; revision: number }
  /** Undo: takes another event back. A void cannot itself be voided; doing the thing again is a new event. */
  | { type: 'void'; targetId: string }

export type EventType = EventBody['type']

interface EventDefinition<T extends EventType> {
  /**
   * Whether it says something of the plan's own figures: what was weighed, mixed and poured for one plan does not count
   * for another until somebody says so, and changes no plan any more once it counts.
   */
  bindsPlan: boolean
  /** Whether it is of one bowl; held to its shape. */
  ofBowl: 'batch' extends keyof Extract<EventBody, { type: T }> ? true : false
  /** It is part of how the slurry was mixed, and so of what was left over of it. */
  mixes?: true
  /** Once it is recorded there is slurry in the mould. */
  inMould?: true
}

/** Every event there is. Its body is above, its schema in `shared/pourEvents.ts`, its words in the app: each by its type. */
export const EVENT: { [T in EventType]: EventDefinition<T> } = {
  prepared: { bindsPlan: false, ofBowl: false },
  mould_ready: { bindsPlan: false, ofBowl: false },
  weighed: { bindsPlan: true, ofBowl: true, mixes: true },
  scale_failed: { bindsPlan: false, ofBowl: false, mixes: true },
  scale_doubted: { bindsPlan: false, ofBowl: false },
  plaster_was: { bindsPlan: false, ofBowl: false },
  thermometer_told: { bindsPlan: false, ofBowl: false },
  corrected: { bindsPlan: true, ofBowl: true, mixes: true },
  powder_follows: { bindsPlan: true, ofBowl: true, mixes: true },
  slurry_checked: { bindsPlan: true, ofBowl: true, mixes: true },
  sift_started: { bindsPlan: true, ofBowl: true, mixes: true },
  sifted: { bindsPlan: true, ofBowl: true, mixes: true },
  soaked: { bindsPlan: true, ofBowl: true, mixes: true },
  stirred: { bindsPlan: true, ofBowl: true, mixes: true },
  extraction_checked: { bindsPlan: false, ofBowl: false },
  layer_keyed: { bindsPlan: false, ofBowl: false },
  face_coated: { bindsPlan: true, ofBowl: true },
  bond_coated: { bindsPlan: true, ofBowl: true },
  squeezed: { bindsPlan: true, ofBowl: true },
  part_filled: { bindsPlan: true, ofBowl: true },
  thickened: { bindsPlan: true, ofBowl: true },
  reinforced: { bindsPlan: true, ofBowl: true },
  built: { bindsPlan: true, ofBowl: true, inMould: true },
  turned: { bindsPlan: true, ofBowl: true },
  roughened: { bindsPlan: true, ofBowl: true },
  vibrated: { bindsPlan: true, ofBowl: false },
  levelled: { bindsPlan: true, ofBowl: true },
  own_done: { bindsPlan: false, ofBowl: true },
  air_freed: { bindsPlan: false, ofBowl: false },
  leaked: { bindsPlan: true, ofBowl: true },
  leftover_poured: { bindsPlan: false, ofBowl: false },
  left_over: { bindsPlan: true, ofBowl: false },
  worked_soft: { bindsPlan: false, ofBowl: false },
  cleaned_up: { bindsPlan: false, ofBowl: false },
  poured: { bindsPlan: true, ofBowl: true, inMould: true },
  ran_short: { bindsPlan: true, ofBowl: true },
  tapped: { bindsPlan: true, ofBowl: true, inMould: true },
  touch: { bindsPlan: false, ofBowl: false },
  temperature: { bindsPlan: false, ofBowl: true },
  demoulded: { bindsPlan: false, ofBowl: false, inMould: true },
  mould_damage: { bindsPlan: false, ofBowl: false },
  weighing: { bindsPlan: false, ofBowl: false },
  dries_at: { bindsPlan: false, ofBowl: false },
  felt_dry: { bindsPlan: false, ofBowl: false },
  finish_done: { bindsPlan: false, ofBowl: false },
  kept_up: { bindsPlan: false, ofBowl: false },
  defect: { bindsPlan: false, ofBowl: false },
  recalled: { bindsPlan: false, ofBowl: false },
  cause_kept: { bindsPlan: false, ofBowl: false },
  cause_mended: { bindsPlan: false, ofBowl: false },
  photographed: { bindsPlan: false, ofBowl: false },
  finished: { bindsPlan: true, ofBowl: false },
  note: { bindsPlan: false, ofBowl: false },
  plan_holds: { bindsPlan: false, ofBowl: false },
  void: { bindsPlan: false, ofBowl: false },
}
export const PLAN_BINDING_TYPES = (Object.keys(EVENT) as EventType[]).filter((type) => EVENT[type].bindsPlan)

export function bindsPlan(body: EventBody): boolean {
  return EVENT[body.type].bindsPlan
}

/** One thing that happened, as somebody recorded it. Never changed once made. */
export interface PourEvent {
  /** Made by the client, so that sending it twice is harmless. */
  id: string
  occurredAtMs: number
  /** When the server had it; undefined until then. */
  receivedAtMs?: number
  who: string
  /** Which person of the workshop that was, where they had been let in; a name is all there is otherwise. */
  whoId?: string
  /** Revision of the plan that stood before whoever recorded it; undefined from before events named it. */
  planRevision?: number
  body: EventBody
}

/** What a name is known by: written otherwise it is the same hand. */
export const handOfName = (name: string): string => name.trim().normalize('NFC').toLowerCase()

/** Whose hand it was: a person's id, else the name that was said; empty where none was. */
export const handOf = ({ who, whoId }: Pick<PourEvent, 'who' | 'whoId'>): string => whoId ?? handOfName(who)

export function batchOf(body: EventBody): number {
  return 'batch' in body ? (body.batch ?? 0) : 0
}

/** A total order that does not depend on arrival. */
function compareEvents(a: PourEvent, b: PourEvent): number {
  return a.occurredAtMs - b.occurredAtMs || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
}

/**
 * The events that count, in order of happening: duplicates by id dropped, voided ones and the voids left out.
 * Independent of the order and number of arrivals.
 */
export function liveEvents(events: readonly PourEvent[]): PourEvent[] {
  const byId = new Map(events.map((e) => [e.id, e]))
  const voided = new Set<string>()
  for (const { body } of byId.values()) if (body.type === 'void') voided.add(body.targetId)
  return [...byId.values()].filter((e) => e.body.type !== 'void' && !voided.has(e.id)).sort(compareEvents)
}
