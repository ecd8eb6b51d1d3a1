import { z } from 'zod'
import { DRY_TARGETS } from '../core/drying'
import { MOULD_KINDS, PREPARATIONS, PURPOSES } from '../core/mould'
import { MAX_BATCHES, MAX_WATER_TEMP_C, SIFT_STAGES, type BatchLimits } from '../core/mix'
import { ADDITIONS, ADDITION_IDS, PACKINGS, PLASTER_CLASS_IDS } from '../core/plaster'
import {
  ADDING_WAYS,
  CORRECTIONS,
  DEFECT_KINDS,
  DEMOULD_OUTCOMES,
  MOULD_DAMAGES,
  TOUCH_CUES,
  VERDICTS,
  WEIGHED,
  evaluatePlan,
  type EventBody,
  type PourEvent,
  type PourPlan,
} from '../core/pour'
import type { Provenance } from '../core/provenance'
import { cavityDescriptionSchema, mouldFactsSchema } from './moulds'
import { name, text } from './text'

/** What crosses the wire. Both sides parse with these; past them the data is trusted. */

const positive = (max: number) => z.number().gt(0).max(max)
const temp = z.number().min(-20).max(95)

export const provenanceSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('measured') }),
  z.object({ kind: z.literal('label') }),
  z.object({ kind: z.literal('calibrated'), pours: z.int().min(1) }),
  z.object({ kind: z.literal('spoon_tests'), tests: z.int().min(1) }),
  z.object({ kind: z.literal('class_default'), source: text(200) }),
  z.object({ kind: z.literal('common_practice') }),
  z.object({ kind: z.literal('model'), source: text(200) }),
]) satisfies z.ZodType<Provenance>

const plasterPropertiesSchema = z.object({
  classId: z.enum(PLASTER_CLASS_IDS),
  useConsistency: z.number().min(15).max(200),
  consistencyLow: z.number().min(15).max(200),
  consistencyHigh: z.number().min(15).max(200),
  referenceConsistency: z.number().min(15).max(200),
  particleDensityKgM3: z.number().min(2000).max(3200),
  hemihydrateFraction: z.number().min(0.3).max(1),
  expansionPct: z.number().min(-1).max(3),
  halfHydrationMin: z.number().min(2).max(240),
  strengthFactor: z.number().min(0.05).max(3),
  fillerRatio: z.number().min(0).max(4),
  fillerDensityKgM3: z.number().min(500).max(8000),
  admixWaterRatio: z.number().min(0).max(1).optional(),
  dryAddRatio: z.number().min(0).max(10).optional(),
  timeSigmaLn: z.number().min(0.01).max(2).optional(),
})

export const airSchema = z.object({
  tempC: z.number().min(-10).max(60),
  rhPct: z.number().min(1).max(99),
  speedMS: z.number().min(0.02).max(10),
})

const cavityMl = z.number().min(1).max(500_000)

const planMemberSchema = z.object({
  mouldId: z.uuid().nullable(),
  name,
  count: z.int().min(1).max(100),
  cavityMl,
  purpose: z.enum(PURPOSES),
  thinnestMm: z.number().min(0).max(5000).nullable(),
  facts: mouldFactsSchema,
  volume: cavityDescriptionSchema,
})

export const additionsSchema = z
  .array(z.object({ id: z.enum(ADDITION_IDS), pct: z.number().gt(0).max(300) }))
  .max(ADDITION_IDS.length)
  .refine((all) => new Set(all.map((a) => a.id)).size === all.length, 'names an addition twice')
  .refine((all) => all.every((a) => a.pct <= ADDITIONS[a.id].maxPct), 'is more than anybody puts in')

const batchingSchema = z.object({
  split: z.discriminatedUnion('by', [
    z.object({ by: z.literal('need') }),
    z.object({
      by: z.literal('layers'),
      layers: z
        .array(z.object({ name, sharePct: z.number().gt(0).max(100) }))
        .min(1)
        .max(12),
    }),
    z.object({ by: z.literal('casts'), castsPerBag: z.int().min(1).max(10) }),
    z.object({ by: z.literal('whole_bags'), bagPowderG: positive(1_000_000) }),
  ]),
  bowl: z
    .object({ name, volumeMl: z.number().min(50).max(500_000), tareG: z.number().min(0).max(100_000) })
    .nullable(),
  pourRateMlMin: z.number().min(10).max(100_000).nullable(),
  scaleCapacityG: z.number().min(10).max(2_000_000).nullable(),
}) satisfies z.ZodType<BatchLimits>

const planShape = z.object({
  schemaVersion: z.literal(1),
  piece: name,
  mould: z.object({
    name,
    kind: z.enum(MOULD_KINDS),
    cavityMl,
    plusMinusMl: z.number().min(0).max(500_000).optional(),
    volumeProvenance: provenanceSchema,
    thicknessMm: z.number().min(1).max(500),
    members: z.array(planMemberSchema).min(1).max(24).optional(),
  }),
  spill: z
    .array(z.object({ mouldId: z.uuid(), name, cavityMl }))
    .max(24)
    .optional(),
  plaster: z.object({
    name,
    properties: plasterPropertiesSchema,
    additions: additionsSchema.optional(),
    bag: z
      .object({
        bagId: z.uuid(),
        name,
        boughtG: positive(2_000_000),
        price: z.number().min(0).max(1_000_000).nullable(),
      })
      .optional(),
    origins: z
      .object({
        consistency: provenanceSchema,
        setTime: provenanceSchema,
        expansion: provenanceSchema,
        strength: provenanceSchema,
      })
      .optional(),
  }),
  consistency: z.number().min(15).max(200),
  ratioMethod: z.enum(['weighed', 'by_volume', 'by_eye']),
  scoop: z
    .object({
      measureMl: z.number().min(1).max(50_000),
      packing: z.enum(PACKINGS),
      weighedKgM3: z.number().min(300).max(2500).nullable(),
    })
    .optional(),
  siftStage: z.enum(SIFT_STAGES).optional(),
  batching: batchingSchema.optional(),
  addingWay: z.enum(ADDING_WAYS).optional(),
  taps: z
    .object({
      coldTempC: z.number().min(0.5).max(MAX_WATER_TEMP_C),
      hotTempC: z.number().min(1).max(95),
      targetTempC: z.number().min(2).max(40),
    })
    .optional(),
  sparePct: z.number().min(0).max(200),
  airFraction: z.number().min(0).max(0.3),
  waterTempC: temp,
  powderTempC: temp,
  soakS: z.number().min(0).max(3600),
  stirS: z.number().min(10).max(3600),
  stirManner: z.enum(['gentle', 'hand', 'whisk', 'drill']),
  air: airSchema,
  dryingExposure: z.enum(['both_faces', 'one_face']),
  dryTarget: z.enum(DRY_TARGETS),
  scaleDivisionG: z.number().min(0.01).max(1000),
})

/** A plan that can be computed: shape, and the core's own refusals (too little water to harden, and the like). */
export const planSchema = planShape.superRefine((plan, context) => {
  // A field out of its range has been reported already; the models want every field within it.
  if (context.issues.length > 0) return
  for (const issue of evaluatePlan(plan).issues) {
    if (issue.severity === 'error')
      context.addIssue({ code: 'custom', path: issue.path.split('.'), message: issue.code })
  }
}) satisfies z.ZodType<PourPlan>

/** Planned bowls, and a few more for what ran short. */
const inBatch = {
  batch: z
    .int()
    .min(0)
    .max(2 * MAX_BATCHES)
    .optional(),
}

export const eventBodySchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('prepared'), item: z.enum(PREPARATIONS) }),
  z.object({ type: z.literal('mould_ready') }),
  z.object({
    type: z.literal('weighed'),
    what: z.enum(WEIGHED),
    massG: positive(1_000_000),
    ...inBatch,
  }),
  z.object({ type: z.literal('scale_failed') }),
  z.object({
    type: z.literal('corrected'),
    how: z.enum(CORRECTIONS),
    massG: positive(1_000_000),
    ...inBatch,
  }),
  z.object({
    type: z.literal('slurry_checked'),
    massG: positive(1_000_000),
    volumeMl: positive(500_000),
    ...inBatch,
  }),
  z.object({ type: z.literal('sift_started'), ...inBatch }),
  z.object({ type: z.literal('sifted'), ...inBatch }),
  z.object({ type: z.literal('soaked'), ...inBatch }),
  z.object({
    type: z.literal('stirred'),
    manner: z.enum(['gentle', 'hand', 'whisk', 'drill']),
    ...inBatch,
  }),
  z.object({ type: z.literal('face_coated') }),
  z.object({ type: z.literal('part_filled') }),
  z.object({ type: z.literal('poured'), ...inBatch }),
  z.object({ type: z.literal('ran_short'), missingMl: z.number().min(1).max(500_000), ...inBatch }),
  z.object({ type: z.literal('tapped'), ...inBatch }),
  z.object({ type: z.literal('touch'), cue: z.enum(TOUCH_CUES), seen: z.boolean() }),
  z.object({
    type: z.literal('temperature'),
    place: z.enum(['slurry', 'surface', 'room']),
    tempC: temp,
  }),
  z.object({ type: z.literal('demoulded'), outcome: z.enum(DEMOULD_OUTCOMES) }),
  z.object({
    type: z.literal('mould_damage'),
    mouldId: z.uuid().nullable(),
    kind: z.enum(MOULD_DAMAGES),
  }),
  z.object({ type: z.literal('weighing'), massG: positive(1_000_000) }),
  z.object({ type: z.literal('defect'), kind: z.enum(DEFECT_KINDS) }),
  z.object({
    type: z.literal('finished'),
    verdict: z.enum(VERDICTS),
    reason: text(500),
  }),
  z.object({ type: z.literal('note'), text: text(2000).min(1) }),
  z.object({ type: z.literal('void'), targetId: z.uuid() }),
]) satisfies z.ZodType<EventBody>

/** An event as a client sends it. */
export const newEventSchema = z.object({
  id: z.uuid(),
  occurredAtMs: z.int().min(0).max(4_102_444_800_000),
  who: text(60),
  body: eventBodySchema,
}) satisfies z.ZodType<Omit<PourEvent, 'receivedAtMs'>>
export type NewEvent = z.infer<typeof newEventSchema>

export const newPourSchema = z.object({ id: z.uuid(), plan: planSchema })
export const planChangeSchema = z.object({ revision: z.int().min(1), plan: planSchema })

export const settingsSchema = z.object({
  workshopName: name,
  system: z.enum(['metric', 'us', 'imperial']),
  scaleDivisionG: z.number().min(0.01).max(1000),
  roomTempC: z.number().min(-10).max(50),
  roomRhPct: z.number().min(1).max(96),
  airSpeedMS: z.number().min(0.02).max(10),
  tapTempC: z.number().min(1).max(45),
  hotTapTempC: z.number().min(1).max(95),
  /** Most the scale takes, g; null: enough for anything here. */
  scaleCapacityG: z.number().min(10).max(2_000_000).nullable(),
  /** What prices are in. */
  currency: text(6).min(1),
})
export type Settings = z.infer<typeof settingsSchema>

const pageShape = {
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(100).default(50),
}
export const pageQuerySchema = z.object(pageShape)

export const listQuerySchema = z.object({
  state: z.enum(['open', 'closed', 'all']).default('all'),
  verdict: z.enum(VERDICTS).optional(),
  q: text(100).default(''),
  ...pageShape,
})
export type ListQuery = z.input<typeof listQuerySchema>

export interface Page<T> {
  items: T[]
  total: number
}

/** A pour as the server holds it: the plan, and everything that happened. */
export interface PourRecord {
  id: string
  plan: PourPlan
  /** Counts changes of the plan; a change must name the one it started from. */
  revision: number
  createdAtMs: number
  events: PourEvent[]
}

export const CHANGE_TOPICS = ['pour', 'plaster', 'bag', 'bowl', 'recipe', 'mould', 'settings'] as const
/** One line of the live stream: something of this kind changed; fetch it again. */
export interface ChangeMessage {
  seq: number
  topic: (typeof CHANGE_TOPICS)[number]
  id: string
}

/** First message of the live stream. `reset` asks the client to load everything again. */
export interface HelloMessage {
  seq: number
  serverTimeMs: number
  reset: boolean
}
