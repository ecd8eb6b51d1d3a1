import { z } from 'zod'
import { LEAST_BOWL_ML, MOST_PRICE, MOST_STOCKED_G, MOST_VOLUME_ML } from '../core/bounds'
import { chemicalMinimumConsistency } from '../core/mix'
import { PACKINGS, PLASTER_CLASS_IDS, plasterClass } from '../core/plaster'
import { BAG_KEEPINGS, SETTLING_ACTS, SET_TESTS, type CardLabel, type SpoonTest } from '../core/stock'
import { additionsSchema, planSchema } from './plans'
import { id, instantMs, name, revision, text } from './text'

/** Plaster cards, bags, bowls and recipes, as they cross the wire. */

const labelSchema = z
  .object({
    classId: z.enum(PLASTER_CLASS_IDS),
    consistency: z.number().min(15).max(200).nullable(),
    range: z.object({ low: z.number().min(15).max(200), high: z.number().min(15).max(200) }).nullable(),
    setMin: z.number().min(1).max(240).nullable(),
    setTest: z.enum(SET_TESTS),
    expansionPct: z.number().min(-1).max(3).nullable(),
    dryStrengthMPa: z.number().min(0.5).max(200).nullable(),
  })
  .refine(
    ({ classId, consistency }) =>
      consistency === null ||
      consistency > chemicalMinimumConsistency(plasterClass(classId).hemihydrateFraction.value),
    { path: ['consistency'], message: 'is too little water to harden' },
  )
  .refine(
    ({ consistency: c, range }) => range === null || (c !== null && range.low <= c && c <= range.high),
    { path: ['range'], message: 'does not hold the consistency' },
  ) satisfies z.ZodType<CardLabel>

/** A plaster as the caster's bag describes it, starting from the nearest class. */
export const plasterInputSchema = z.object({
  name,
  label: labelSchema,
  /** The ratio as printed, word for word. */
  printedRatio: text(80),
  /** What always goes in with it: a blend. */
  additions: additionsSchema,
  note: text(2000),
})
export type PlasterInput = z.infer<typeof plasterInputSchema>
/** `revision` is what the caller saw; null puts a new one in. */
export const plasterPutSchema = z.object({ revision: revision.nullable(), plaster: plasterInputSchema })
export interface PlasterCard extends PlasterInput {
  id: string
  revision: number
}

const massG = z.number().gt(0).max(MOST_STOCKED_G)

export const bagInputSchema = z
  .object({
    plasterId: id,
    name,
    boughtG: massG,
    /** In the workshop's own currency. */
    price: z.number().min(0).max(MOST_PRICE).nullable(),
    openedOn: z.iso.date().nullable(),
    keeping: z.enum(BAG_KEEPINGS),
    /** One weighed scoop out of it. */
    scoop: z
      .object({
        measureMl: z.number().min(1).max(50_000),
        packing: z.enum(PACKINGS),
        weighedKgM3: z.number().min(300).max(2500),
      })
      .nullable(),
    /** What the bag itself weighed at some moment; pours count down from there. */
    counted: z.object({ leftG: z.number().min(0).max(MOST_STOCKED_G), atMs: instantMs }).nullable(),
    usedUp: z.boolean(),
    note: text(2000),
  })
  .refine((b) => b.counted === null || b.counted.leftG <= b.boughtG, {
    path: ['counted', 'leftG'],
    message: 'is more than was bought',
  })
export type BagInput = z.infer<typeof bagInputSchema>
export const bagPutSchema = z.object({ revision: revision.nullable(), bag: bagInputSchema })

export const spoonTestSchema = z.object({
  id,
  atMs: instantMs,
  consistency: z.number().min(15).max(200),
  waterTempC: z.number().min(1).max(45),
  stirS: z.number().min(10).max(600),
  tookS: z.number().min(30).max(14_400),
}) satisfies z.ZodType<SpoonTest>
export type SpoonTestRecord = z.infer<typeof spoonTestSchema>

/** A bag with what follows from the pours out of it. */
export interface BagCard extends BagInput {
  id: string
  revision: number
  leftG: number
  /** Pours that took plaster out of it. */
  pours: number
  spoonTests: SpoonTestRecord[]
}

/** Something done with the settling bucket. */
export const settlingEntrySchema = z.object({
  id,
  what: z.enum(SETTLING_ACTS),
  atMs: instantMs,
  who: text(60),
})
export type SettlingEntry = z.infer<typeof settlingEntrySchema>

export const bowlInputSchema = z.object({
  name,
  volumeMl: z.number().min(LEAST_BOWL_ML).max(MOST_VOLUME_ML),
  tareG: z.number().min(0).max(100_000),
})
export type BowlInput = z.infer<typeof bowlInputSchema>
export const bowlPutSchema = z.object({ revision: revision.nullable(), bowl: bowlInputSchema })
export interface BowlCard extends BowlInput {
  id: string
  revision: number
}

export const recipeInputSchema = z.object({ name, plan: planSchema })
export type RecipeInput = z.infer<typeof recipeInputSchema>
export const recipePutSchema = z.object({ revision: revision.nullable(), recipe: recipeInputSchema })
export interface Recipe extends RecipeInput {
  id: string
  revision: number
}

/** The file that a recipe is shared as. Its JSON Schema: docs/schemas/recipe.v1.schema.json. */
export const recipeFileSchema = z.object({
  format: z.literal('nine-ripples.recipe'),
  version: z.literal(1),
  name,
  plan: planSchema,
})
export type RecipeFile = z.infer<typeof recipeFileSchema>
