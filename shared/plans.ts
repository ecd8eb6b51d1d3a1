import { z } from 'zod'
import { MOST_PRICE, MOST_STOCKED_G } from '../core/bounds'
import { DRY_TARGETS, type DryingSpot, EXPOSURES } from '../core/drying'
import { CAUSES } from '../core/finish'
import { type CavityDescription, MOULD_KINDS, PURPOSES } from '../core/mould'
import { type Batch, type BatchLimits, type LearntShare, MAX_BATCHES, SIFT_STAGES } from '../core/mix'
import {
  ADDITIONS,
  ADDITION_IDS,
  LEAST_ADDITION_PCT,
  PACKINGS,
  PLASTER_CLASS_IDS,
  type PlasterProperties,
  WATER_KINDS,
} from '../core/plaster'
import {
  ADDING_WAYS,
  DEADLINE_WHYS,
  FILLING_WAYS,
  KNOWN_STEPS,
  type KeptPlan,
  OWN_STAGES,
  type OwnStep,
  type PlanKept,
  type PlanStep,
  type PlanV1,
  type PourPlan,
  STEP_IDS,
  SUNS,
  batchesOf,
  currentPlan,
  decisionsOf,
  refusalsOf,
} from '../core/pour'
import { BAG_KEEPINGS } from '../core/stock'
import { type Provenance } from '../core/provenance'
import { cavityDescriptionSchema, mouldFactsSchema, storedCavitySchema } from './moulds'
import { id, instantMs, name, text } from './text'

/** A plan as it crosses the wire, and as the database has it. Past these it is trusted. */

export const positive = (max: number) => z.number().gt(0).max(max)
export const temp = z.number().min(-20).max(95)

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

export const dryingSpotSchema = z.object({
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
    z.object({ by: z.literal('need'), toTheRim: z.boolean().optional() }),
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

/** A plan's plaster, as the mix feels it. */
export const planPlasterSchema = z.object({
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
}) satisfies z.ZodType<PourPlan['plaster']>

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
  plaster: planPlasterSchema,
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
    deadline: z
      .object({ leaveAtMs: instantMs, why: z.enum(DEADLINE_WHYS), withGround: z.boolean() })
      .optional(),
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
  promised: z
    .object({ siftS: z.number().min(0), workEndS: z.number().min(0), outS: z.number().min(0) })
    .optional(),
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
