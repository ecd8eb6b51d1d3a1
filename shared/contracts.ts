import { z } from 'zod'
import {
  MOST_PRICE,
  MOST_SCOOPS,
  MOST_TOLD_APART,
  MOST_STOCKED_G,
  MOST_VOLUME_ML,
  MOST_WEIGHED_G,
} from '../core/bounds'
import { DRY_TARGETS, EXPOSURES, type DryingSpot } from '../core/drying'
import { CAUSES, FAULT_KINDS, FAULT_PLACES, FINISH_TASKS, UPKEEPS } from '../core/finish'
import { AIR_TACTICS, MOULD_KINDS, PREPARATIONS, PURPOSES, type CavityDescription } from '../core/mould'
import { MAX_BATCHES, SIFT_STAGES, type Batch, type BatchLimits, type LearntShare } from '../core/mix'
import {
  ADDITIONS,
  ADDITION_IDS,
  LEAST_ADDITION_PCT,
  PACKINGS,
  PLASTER_CLASS_IDS,
  WATER_KINDS,
  type PlasterProperties,
} from '../core/plaster'
import {
  ADDING_WAYS,
  CLEAN_UPS,
  CORRECTIONS,
  DEMOULD_OUTCOMES,
  HOTTEST_DRYING_AIR_C,
  FILLING_WAYS,
  KNOWN_STEPS,
  LEAK_PLUGS,
  MOULD_DAMAGES,
  OWN_STAGES,
  SOFT_WORKS,
  STEP_IDS,
  SUNS,
  TAG_KINDS,
  VERDICTS,
  WEIGHED,
  batchesOf,
  currentPlan,
  decisionsOf,
  refusalsOf,
  type EventBody,
  type KeptPlan,
  type OwnStep,
  type PlanKept,
  type PlanStep,
  type PlanV1,
  type PourEvent,
  type PourPlan,
  type PourTag,
} from '../core/pour'
import { TOUCH_CUES } from '../core/forecast'
import { BAG_KEEPINGS } from '../core/stock'
import type { Provenance } from '../core/provenance'
import { cavityDescriptionSchema, mouldFactsSchema, storedCavitySchema } from './moulds'
import { readingRefSchema } from './devices'
import { id, instantMs, name, revision, text } from './text'

/** A clock that is further off than this tells nothing: ten years. */
const MAX_SHIFT_MS = 315_360_000_000

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

const figure = z.number()

/** What the plaster's values come to once bag, additions and water are worked in: derived, so only sound numbers. */
const above0 = z.number().gt(0)
const plasterPropertiesSchema = z.object({
  classId: z.enum(PLASTER_CLASS_IDS),
  useConsistency: above0,
  consistencyLow: above0,
  consistencyHigh: above0,
  referenceConsistency: above0,
  particleDensityKgM3: above0,
  hemihydrateFraction: above0.max(1),
  expansionPct: z.number().gt(-50).max(50),
  halfHydrationMin: above0,
  strengthFactor: above0,
  fillerRatio: z.number().min(0),
  fillerDensityKgM3: above0,
  admixWaterRatio: z.number().min(0).optional(),
  dryAddRatio: z.number().min(0).optional(),
  dissolved: z
    .object({
      gPerPowder: z.number().min(0),
      mlPerPowder: z.number().min(0),
      gPerWater: z.number().min(0),
      mlPerWater: z.number().min(0),
    })
    .optional(),
  timeSigmaLn: above0.optional(),
})

const airSchema = z.object({ tempC: figure, rhPct: figure, speedMS: figure })

const learntShareSchema = z.object({
  factor: z.number().min(0.2).max(5),
  sigmaLn: above0.max(2),
  pours: z.int().min(1),
}) satisfies z.ZodType<LearntShare>

const dryingSpotSchema = z.object({
  placeId: id.nullable(),
  name: text(120),
  air: airSchema,
  nightAir: airSchema.optional(),
  pace: z
    .object({ meanLn: z.number().min(-3).max(3), sigmaLn: above0.max(2), pours: z.int().min(0) })
    .optional(),
}) satisfies z.ZodType<DryingSpot>

const planMemberOf = (volume: z.ZodType<CavityDescription>) =>
  z.object({
    mouldId: id.nullable(),
    name,
    unnamed: z.boolean().optional(),
    count: z.int(),
    cavityMl: figure,
    purpose: z.enum(PURPOSES),
    thinnestMm: z.number().min(0).nullable(),
    facts: mouldFactsSchema,
    volume,
  })

const additionSchema = z.object({ id: z.enum(ADDITION_IDS), pct: figure })
const eachOnce = (all: readonly { id: string }[]) => new Set(all.map((a) => a.id)).size === all.length
const planAdditionsSchema = z
  .array(additionSchema)
  .max(ADDITION_IDS.length)
  .refine(eachOnce, 'names an addition twice')

/** What always goes in with a plaster, as its card says. */
export const additionsSchema = planAdditionsSchema.refine(
  (all) => all.every((a) => a.pct >= LEAST_ADDITION_PCT && a.pct <= ADDITIONS[a.id].maxPct),
  'is more than anybody puts in',
)

const batchingSchema = z.object({
  split: z.discriminatedUnion('by', [
    z.object({ by: z.literal('need') }),
    z.object({ by: z.literal('bowls'), count: z.int() }),
    z.object({
      by: z.literal('layers'),
      layers: z
        .array(z.object({ name, sharePct: figure }))
        .min(1)
        .max(12),
    }),
    z.object({ by: z.literal('casts'), castsPerBag: z.int() }),
    z.object({ by: z.literal('whole_bags'), bagPowderG: figure }),
  ]),
  bowl: z.object({ bowlId: id.optional(), name, volumeMl: figure, tareG: figure }).nullable(),
  pourRateMlMin: figure.nullable(),
  scaleCapacityG: figure.nullable(),
}) satisfies z.ZodType<BatchLimits>

const ownStepSchema = z.object({
  id,
  name: name,
  stage: z.enum(OWN_STAGES),
  timeS: figure.nullable(),
  eachBowl: z.boolean(),
}) satisfies z.ZodType<OwnStep>

const scriptSchema = z.object({
  order: z
    .array(z.union([z.object({ step: z.enum(KNOWN_STEPS) }), z.object({ own: ownStepSchema })]))
    .max(60),
  leftOut: z.array(z.enum(KNOWN_STEPS)).max(KNOWN_STEPS.length),
})

/** What every version of a plan says. Figures are only numbers here: `refusalsOf` judges them. */
const decisionsOn = (volume: z.ZodType<CavityDescription>) => ({
  piece: name,
  mould: z.object({
    name,
    kind: z.enum(MOULD_KINDS),
    cavityMl: figure,
    plusMinusMl: figure.optional(),
    volumeProvenance: provenanceSchema,
    thicknessMm: figure,
    members: z.array(planMemberOf(volume)).min(1).max(24).optional(),
  }),
  spill: z
    .array(z.object({ mouldId: id, name, cavityMl: figure }))
    .max(24)
    .optional(),
  plaster: z.object({
    name,
    plasterId: id.optional(),
    properties: plasterPropertiesSchema,
    additions: planAdditionsSchema.optional(),
    bag: z
      .object({
        bagId: id,
        name,
        boughtG: positive(MOST_STOCKED_G),
        price: z.number().min(0).max(MOST_PRICE).nullable(),
        keeping: z.enum(BAG_KEEPINGS).optional(),
        openDays: z.int().min(0).optional(),
        setFactor: above0.optional(),
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
  consistency: figure,
  ratioMethod: z.enum(['weighed', 'by_volume', 'by_eye']),
  scoop: z
    .object({
      measureMl: figure,
      packing: z.enum(PACKINGS),
      weighedKgM3: figure.nullable(),
      learnt: learntShareSchema.optional(),
    })
    .optional(),
  siftStage: z.enum(SIFT_STAGES).optional(),
  batching: batchingSchema.optional(),
  addingWay: z.enum(ADDING_WAYS).optional(),
  taps: z.object({ coldTempC: figure, hotTempC: figure, targetTempC: figure }).optional(),
  sparePct: figure,
  airFraction: figure,
  waterTempC: figure,
  powderTempC: figure,
  soakS: figure,
  stirS: figure,
  stirManner: z.enum(['gentle', 'hand', 'whisk', 'drill']),
  air: airSchema,
  dryingExposure: z.enum(EXPOSURES),
  dryTarget: z.enum(DRY_TARGETS),
  scaleDivisionG: figure,
})

/** A plan of any version: what a later one added, an earlier one simply lacks. */
const planShapeOn = (volume: z.ZodType<CavityDescription>) =>
  z.object({
    schemaVersion: z.literal([1, 2]),
    ...decisionsOn(volume),
    water: z.enum(WATER_KINDS).optional(),
    hands: z.int().optional(),
    mouldTempC: figure.optional(),
    sun: z.enum(SUNS).optional(),
    filling: z.enum(FILLING_WAYS).optional(),
    script: scriptSchema.optional(),
    recipe: z.object({ recipeId: id, name }).optional(),
    leftoverOf: z.object({ pourId: id, piece: name }).optional(),
    dryingPlace: dryingSpotSchema.optional(),
    learnt: z
      .object({
        heat: learntShareSchema.optional(),
        sprinkled: learntShareSchema.optional(),
        slurryYield: learntShareSchema.optional(),
      })
      .optional(),
    heed: z.array(z.enum(CAUSES)).max(CAUSES.length).optional(),
  })
const planShape = planShapeOn(cavityDescriptionSchema)
// A field that the plan has and the wire forgets would be dropped in silence: this does not compile then.
planShape.shape satisfies Record<keyof PourPlan, z.ZodType>
plasterPropertiesSchema.shape satisfies Record<keyof PlasterProperties, z.ZodType>
/** As parsed; which of the versions it is, its own field says. */
type AnyPlan = PlanV1 | PourPlan | KeptPlan

const massG = z.number().min(0).max(MOST_STOCKED_G)
const batchSchema = z.object({
  name: text(120),
  waterG: massG.gt(0),
  powderG: massG.gt(0),
  fillerG: massG,
  slurryMl: z.number().gt(0),
  bowlMl: z.number().gt(0),
  bowlFill: z.number().min(0).max(1).optional(),
  weighings: z.object({ water: z.int().min(1), powder: z.int().min(1) }),
  start: z.enum(['first', 'at_once', 'when_it_thickens']),
}) satisfies z.ZodType<Batch>

const keptSchema = z.object({
  modelVersion: z.int().min(1),
  batches: z.array(batchSchema).min(1).max(MAX_BATCHES),
  because: z.enum(['bowl', 'working_time', 'layers', 'bags']).nullable(),
  steps: z
    .array(
      z.object({
        id: z.enum(STEP_IDS),
        batch: z
          .int()
          .min(0)
          .max(2 * MAX_BATCHES),
        own: ownStepSchema.optional(),
      }) satisfies z.ZodType<PlanStep>,
    )
    .min(1),
  classValues: z.object({ fillerRatio: z.number().min(0), bulkKgM3: z.number().gt(0) }),
}) satisfies z.ZodType<PlanKept>

const kept = { kept: keptSchema.optional() }

/** Refusals of the core as complaints at their fields: what the worksheet refuses, the server does, and no more. */
function judge(plan: PourPlan, context: z.RefinementCtx): void {
  // A field that is none has been reported already.
  if (context.issues.length > 0) return
  const refused = refusalsOf(plan)
  const tooMany = refused.length > 0 ? [] : batchesOf(plan).issues.filter((i) => i.severity === 'error')
  for (const issue of [...refused, ...tooMany])
    context.addIssue({ code: 'custom', path: issue.path.split('.'), message: issue.code })
}

/** A plan as a recipe holds it: what was decided, of any version. */
export const planSchema = planShape
  .transform((plan): PourPlan => decisionsOf(plan as AnyPlan))
  .superRefine(judge)

/** A plan as it is taken to the bench: with the bowls it was planned with, or those it comes to. */
export const benchPlanSchema = planShape
  .extend(kept)
  .superRefine((plan, context) => judge(decisionsOf(plan as AnyPlan), context))
  .transform((plan): KeptPlan => currentPlan(plan as AnyPlan))

/** A plan as the database has it. It was judged when it was made; only its shape must hold. */
export const storedPlanSchema = planShapeOn(storedCavitySchema)
  .extend(kept)
  .transform((plan): KeptPlan => currentPlan(plan as AnyPlan))

/** Planned bowls, and a few more for what ran short. */
const inBatch = {
  batch: z
    .int()
    .min(0)
    .max(2 * MAX_BATCHES)
    .optional(),
}

/** Where a piece is carried: unlike a plan's, nobody judges it after this. */
export const dryingAirSchema = z.object({
  tempC: z.number().min(0).max(HOTTEST_DRYING_AIR_C),
  rhPct: z.number().min(1).max(96),
  speedMS: z.number().min(0.02).max(10),
})
const placeSpotSchema = dryingSpotSchema.extend({
  air: dryingAirSchema,
  nightAir: dryingAirSchema.optional(),
})

/** Which pieces it is of, by number; a list that names none would say nothing. */
const ofPieces = {
  pieces: z.array(z.int().min(1).max(MOST_TOLD_APART)).min(1).max(MOST_TOLD_APART).optional(),
}

/** What was taken from a device. */
const fromReading = { reading: readingRefSchema.optional() }

const heedSubjectSchema = z.templateLiteral([z.enum(['mould', 'recipe', 'bag']), ':', z.uuid()])

export const eventBodySchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('prepared'), item: z.enum(PREPARATIONS) }),
  z.object({ type: z.literal('mould_ready') }),
  z.object({
    type: z.literal('weighed'),
    what: z.enum(WEIGHED),
    massG: positive(MOST_WEIGHED_G),
    scoops: z.object({ count: positive(MOST_SCOOPS), measureMl: positive(MOST_VOLUME_ML) }).optional(),
    ...inBatch,
    ...fromReading,
  }),
  z.object({ type: z.literal('scale_failed') }),
  z.object({ type: z.literal('powder_follows'), follows: z.boolean(), ...inBatch }),
  z.object({
    type: z.literal('corrected'),
    how: z.enum(CORRECTIONS),
    massG: positive(MOST_WEIGHED_G),
    ...inBatch,
  }),
  z.object({
    type: z.literal('slurry_checked'),
    massG: positive(MOST_WEIGHED_G),
    volumeMl: positive(MOST_VOLUME_ML),
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
  z.object({ type: z.literal('extraction_checked') }),
  z.object({ type: z.literal('layer_keyed') }),
  z.object({ type: z.literal('face_coated'), ...inBatch }),
  z.object({ type: z.literal('bond_coated'), ...inBatch }),
  z.object({ type: z.literal('squeezed'), ...inBatch }),
  z.object({ type: z.literal('part_filled'), ...inBatch }),
  z.object({ type: z.literal('thickened'), ...inBatch }),
  z.object({ type: z.literal('reinforced'), ...inBatch }),
  z.object({ type: z.literal('built'), ...inBatch }),
  z.object({ type: z.literal('turned'), ...inBatch }),
  z.object({ type: z.literal('roughened'), ...inBatch }),
  z.object({ type: z.literal('vibrated') }),
  z.object({ type: z.literal('levelled'), ...inBatch }),
  z.object({ type: z.literal('own_done'), own: id, ...inBatch }),
  z.object({ type: z.literal('air_freed'), how: z.enum(AIR_TACTICS) }),
  z.object({
    type: z.literal('leaked'),
    plug: z.enum(LEAK_PLUGS),
    lostMl: z.number().min(0).max(MOST_VOLUME_ML),
    ...inBatch,
  }),
  z.object({
    type: z.literal('leftover_poured'),
    mouldId: id,
    fillMl: z.number().gt(0).max(MOST_VOLUME_ML),
  }),
  z.object({ type: z.literal('left_over'), volumeMl: z.number().min(0).max(MOST_VOLUME_ML) }),
  z.object({ type: z.literal('worked_soft'), work: z.enum(SOFT_WORKS) }),
  z.object({ type: z.literal('cleaned_up'), what: z.enum(CLEAN_UPS) }),
  z.object({ type: z.literal('poured'), ...inBatch }),
  z.object({ type: z.literal('ran_short'), missingMl: z.number().min(1).max(MOST_VOLUME_ML), ...inBatch }),
  z.object({ type: z.literal('tapped'), ...inBatch }),
  z.object({
    type: z.literal('touch'),
    cue: z.enum(TOUCH_CUES),
    seen: z.boolean(),
    already: z.boolean().optional(),
  }),
  z.object({
    type: z.literal('temperature'),
    place: z.enum(['slurry', 'surface', 'room']),
    tempC: temp,
    ...inBatch,
    ...fromReading,
  }),
  z.object({
    type: z.literal('demoulded'),
    outcome: z.enum(DEMOULD_OUTCOMES),
    gripped: z.boolean().optional(),
    ...ofPieces,
  }),
  z.object({
    type: z.literal('mould_damage'),
    mouldId: id.nullable(),
    kind: z.enum(MOULD_DAMAGES),
  }),
  z.object({ type: z.literal('weighing'), massG: positive(MOST_WEIGHED_G), ...ofPieces, ...fromReading }),
  z.object({ type: z.literal('dries_at'), spot: placeSpotSchema, lies: z.enum(EXPOSURES) }),
  z.object({ type: z.literal('felt_dry'), clammy: z.boolean() }),
  z.object({ type: z.literal('finish_done'), task: z.enum(FINISH_TASKS) }),
  z.object({ type: z.literal('kept_up'), what: z.enum(UPKEEPS) }),
  z.object({
    type: z.literal('defect'),
    kind: z.enum(FAULT_KINDS),
    place: z.enum(FAULT_PLACES).optional(),
    sizeMm: positive(5000).optional(),
    spot: z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }).optional(),
    photoId: id.optional(),
    ...ofPieces,
  }),
  z.object({ type: z.literal('cause_kept'), cause: z.enum(CAUSES) }),
  z.object({ type: z.literal('cause_mended'), cause: z.enum(CAUSES), subject: heedSubjectSchema }),
  z.object({ type: z.literal('photographed'), photoId: id, caption: text(200), ...ofPieces }),
  z.object({
    type: z.literal('finished'),
    verdict: z.enum(VERDICTS),
    reason: text(500),
    ...ofPieces,
  }),
  z.object({ type: z.literal('note'), text: text(2000).min(1) }),
  z.object({ type: z.literal('plan_holds'), revision }),
  z.object({ type: z.literal('void'), targetId: id }),
]) satisfies z.ZodType<EventBody>
// An event that the wire forgets would be refused: this does not compile then.
null as unknown as EventBody['type'] satisfies z.infer<typeof eventBodySchema>['type']

/** An event as a client makes it. */
export const newEventSchema = z.object({
  id,
  occurredAtMs: instantMs,
  who: text(60),
  planRevision: revision.optional(),
  body: eventBodySchema,
}) satisfies z.ZodType<Omit<PourEvent, 'receivedAtMs'>>
export type NewEvent = z.infer<typeof newEventSchema>

/** As it is sent: with what the clock it was timed by was off, as the device has learnt since. */
export const postedEventSchema = newEventSchema.extend({
  shiftMs: z.int().min(-MAX_SHIFT_MS).max(MAX_SHIFT_MS).optional(),
})
export type PostedEvent = z.infer<typeof postedEventSchema>

export const newPourSchema = z.object({ id, plan: benchPlanSchema })
export const planChangeSchema = z.object({ revision, plan: benchPlanSchema })

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
  scaleCapacityG: z.number().min(10).max(MOST_STOCKED_G).nullable(),
  /** What prices are in. */
  currency: text(6).min(1),
  /** The sign before decimals; null: ask where it matters. */
  decimalSign: z.enum(['point', 'comma']).nullable(),
  /** Whose cups and pints, in a metric workshop; null: ask. */
  kitchen: z.enum(['us', 'imperial']).nullable(),
})
export type Settings = z.infer<typeof settingsSchema>
export const settingsPutSchema = z.object({ revision, settings: settingsSchema })
/** Settings with the number that a change of them must name. */
export type SettingsRecord = Settings & { revision: number }

const limit = z.coerce.number().int().min(1).max(100).default(50)

/** Cards come a page at a time: `after` is the last page's `next`. */
export const pageQuerySchema = z.object({ after: text(300).default(''), limit })
export type PageQuery = z.output<typeof pageQuerySchema>

const TAGS: readonly string[] = TAG_KINDS
const asTags = (list: string) => list.split(',').filter((t) => t !== '')
const tagSchema = z
  .string()
  .refine(
    (t): t is PourTag => TAGS.includes(t.split(':')[0]!) && /^[a-z]+:[\w-]+$/.test(t),
    'is no such thing',
  )

/** The log, newest first; `after` as above. */
export const listQuerySchema = z.object({
  state: z.enum(['open', 'closed', 'all']).default('all'),
  verdict: z.enum(VERDICTS).optional(),
  q: text(100).default(''),
  /** Of these moulds, bags, places, plasters, recipes, with these faults or causes: `kind:id`, several with commas. */
  tags: text(600).default('').transform(asTags).pipe(z.array(tagSchema).max(8)),
  after: text(300).default(''),
  limit,
})
export type ListQuery = z.input<typeof listQuerySchema>

/** Which mould and which plaster: when were they last mixed, and how? */
export const jobQuerySchema = z.object({ mouldId: id, plasterId: id })
