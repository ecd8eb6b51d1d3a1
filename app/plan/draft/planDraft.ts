import type { CauseId } from '#core/finish'
import type { BatchSplit, Scoop, SiftStage } from '#core/mix'
import { type Addition, plasterProperties, type WaterKind } from '#core/plaster'
import {
  type AddingWay,
  type Deadline,
  type FillingWay,
  FIRST_SCOOP,
  type PourPlan,
  type ScriptEdits,
  type Sun,
} from '#core/pour'
import type { Settings } from '~~/shared/contracts'
import type { PlaceCard } from '~~/shared/learning'
import type { MouldCard, MouldSet } from '~~/shared/moulds'
import type { BowlCard } from '~~/shared/stock'
import { firstMouldDraft, type MouldDraft } from '~/parts/mould/mouldDraft'
import type { Shelf } from '~/parts/plaster/plasterChoice'

/** Where the plan's mould comes from: one off the shelf, a set of them, or one described for this pour. */
export type MouldSource = 'shelf' | 'set' | 'describe'

/** The worksheet as the caster leaves it: every field, also those the chosen way of giving a mould does not use. */
export interface PlanDraft {
  piece: string
  source: MouldSource
  shelfId: string
  shelfCount: number
  setId: string
  described: MouldDraft
  /** Over the print off the shelf, of this pour alone, mm; null: as its card says. */
  coverMm: number | null
  /** What is left over goes to the shelf's spill moulds. */
  useSpill: boolean
  /** `class:<id>` or a plaster card's id. */
  plasterKey: string
  bagId: string
  additions: Addition[]
  consistency: number
  ratioMethod: PourPlan['ratioMethod']
  scoop: Scoop
  siftStage: SiftStage
  sparePct: number
  addingWay: AddingWay
  filling: FillingWay
  /** What was changed in the steps; null: they follow from the rest. */
  script: ScriptEdits | null
  /** Empty: whichever bowl is large enough. */
  bowlId: string
  splitBy: BatchSplit['by']
  /** All of it in as few bowls as hold it, against the rule of a third water. */
  toTheRim: boolean
  bowlCount: number
  /** How many sift and pour at once. */
  hands: number
  layers: { name: string; sharePct: number }[]
  castsPerBag: number
  bagPowderG: number
  /** 0: fast enough. */
  pourRateMlMin: number
  waterFrom: 'one_tap' | 'two_taps'
  targetTempC: number
  coldTempC: number
  hotTempC: number
  waterTempC: number
  water: WaterKind
  powderTempC: number
  mouldTempC: number
  sun: Sun | 'none'
  soakMin: number
  stirMin: number
  stirManner: PourPlan['stirManner']
  roomTempC: number
  roomRhPct: number
  airSpeedMS: number
  /** Empty: in the air it sets in. */
  dryingPlaceId: string
  dryingExposure: PourPlan['dryingExposure']
  dryTarget: PourPlan['dryTarget']
  /** What went wrong with an earlier one, to be kept in mind. */
  heed: CauseId[]
  /** Of this pour alone. */
  deadline: Deadline | null
  /** The recipe it was begun from. */
  recipe: NonNullable<PourPlan['recipe']> | null
}

/** What the workshop has to plan with. */
export interface Stock extends Shelf {
  moulds: readonly MouldCard[]
  mouldSets: readonly MouldSet[]
  bowls: readonly BowlCard[]
  places: readonly PlaceCard[]
  settings: Settings
  /** Whoever stands at the bench, by whose hand it is sifted. */
  hand?: string
}

/** Coats and pours as a shell or a jacketed head is built: the caster changes names and shares. */
export const FIRST_LAYERS = [
  { name: 'Face coat', sharePct: 25 },
  { name: 'Fill', sharePct: 75 },
]

/** The cup this workshop measures with. */
export const ownScoop = ({ scoopMl }: Pick<Settings, 'scoopMl'>): Scoop => ({
  ...FIRST_SCOOP,
  measureMl: scoopMl ?? FIRST_SCOOP.measureMl,
})

export function emptyDraft(settings: Settings): PlanDraft {
  return {
    piece: '',
    source: 'describe',
    shelfId: '',
    shelfCount: 1,
    setId: '',
    described: firstMouldDraft(),
    coverMm: null,
    useSpill: true,
    plasterKey: 'class:pottery',
    bagId: '',
    additions: [],
    consistency: plasterProperties('pottery').useConsistency,
    ratioMethod: 'weighed',
    scoop: ownScoop(settings),
    siftStage: 'lake_bed',
    sparePct: 10,
    addingWay: 'sifted',
    filling: 'poured',
    script: null,
    bowlId: '',
    splitBy: 'need',
    toTheRim: false,
    bowlCount: 2,
    hands: 1,
    layers: FIRST_LAYERS,
    castsPerBag: 1,
    bagPowderG: 1000,
    pourRateMlMin: 0,
    waterFrom: 'one_tap',
    targetTempC: 20,
    coldTempC: settings.tapTempC,
    hotTempC: settings.hotTapTempC,
    waterTempC: settings.tapTempC,
    water: 'soft',
    powderTempC: settings.roomTempC,
    mouldTempC: settings.roomTempC,
    sun: 'none',
    soakMin: 2,
    stirMin: 2,
    stirManner: 'hand',
    roomTempC: settings.roomTempC,
    roomRhPct: settings.roomRhPct,
    airSpeedMS: settings.airSpeedMS,
    dryingPlaceId: '',
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
    heed: [],
    deadline: null,
    recipe: null,
  }
}
