import { inScoops, type Batch } from '#core/mix'
import { weighAdditions } from '#core/plaster'
import { classValuesOf, type PlanOutcome, type PourPlan } from '#core/pour'
import { roundToDivision } from '#core/units'
import { ADDITION_WORDS } from '~/parts/words/mix'
import { scoopsText } from './scoop'

/** One thing to weigh. */
export interface Ingredient {
  id: string
  what: string
  massG: number
  into: 'water' | 'powder'
}

type Masses = Pick<Batch, 'waterG' | 'powderG' | 'fillerG'>

/** Everything that is weighed for a bowl, in the order it is weighed: water first, always. */
export function ingredientsOf(plan: PourPlan, { waterG, powderG, fillerG }: Masses): Ingredient[] {
  const round = (massG: number) => Math.max(plan.scaleDivisionG, roundToDivision(massG, plan.scaleDivisionG))
  const added = weighAdditions(plan.plaster.additions ?? [], powderG, waterG)
  const silicaRatio = classValuesOf(plan).fillerRatio
  const dry = [
    ...(silicaRatio > 0
      ? [{ id: 'class-silica', what: ADDITION_WORDS.silica.name, massG: powderG * silicaRatio }]
      : []),
    ...added.filter((a) => a.into === 'powder').map((a) => ({ ...a, what: ADDITION_WORDS[a.id].name })),
  ]
  return [
    { id: 'water', what: 'Water', massG: waterG, into: 'water' },
    ...added
      .filter((a) => a.into === 'water')
      .map((a): Ingredient => ({ ...a, what: ADDITION_WORDS[a.id].name, massG: round(a.massG) })),
    { id: 'powder', what: 'Plaster', massG: powderG, into: 'powder' },
    ...dry.map(({ id, what, massG }): Ingredient => {
      // Where one thing alone goes in dry, the batch's own rounding stands: shares add up to it.
      return { id, what, massG: dry.length === 1 ? fillerG : round(massG), into: 'powder' }
    }),
  ]
}

/** What goes into the water besides, all together, g. */
export function admixG(plan: PourPlan, masses: Masses): number {
  return ingredientsOf(plan, masses)
    .filter((i) => i.into === 'water' && i.id !== 'water')
    .reduce((sum, i) => sum + i.massG, 0)
}

/** A scale is good to a step or so: what weighs fewer than ten of them is not weighed but guessed. */
const LEAST_STEPS = 10

/** Whether bowls are alike to the eye of the scale, so that one weigh-out says all. */
function allAlike(batches: readonly Batch[], divisionG: number): boolean {
  const [first] = batches
  return (
    first !== undefined &&
    batches.every(
      (b) =>
        Math.abs(b.waterG - first.waterG) <= divisionG * 1.001 &&
        Math.abs(b.powderG - first.powderG) <= divisionG * 1.001 &&
        b.start !== 'when_it_thickens',
    )
  )
}

/** A weigh-out, ready to be written: bowl by bowl, or one bowl that stands for all. */
export interface WeighOutView {
  /** The bowl whose figures stand large: the only one, or one like all others. */
  shown: Batch | undefined
  rows: { name: string; batch: Batch; ingredients: Ingredient[]; scoops: string }[]
  total: Ingredient[]
  largest: Batch
  bowlMl: number
  /** Untared, what the scale shows; where the bowl's weight is known and one bowl stands for all. */
  tare: { bowlG: number; withWaterG: number } | undefined
  /** The scale takes less than a bowl's worth: how often each goes on it. */
  turns: Batch['weighings'] | undefined
  /** What is too little for this scale, each once. */
  crumbs: Ingredient[]
  /** Of one bowl, or of all where they differ; the share that is hot, 0–1, holds for each. */
  taps: { hotG: number; coldG: number; hotShare: number; waterTempC: number } | undefined
  /** Powder, and water in the same scoop. */
  scoops: { text: string; waterText: string; coarse: boolean } | undefined
}

function inBoth(
  { waterG }: Batch,
  powder: ReturnType<typeof scoopsText>,
  measureMl: number,
): WeighOutView['scoops'] {
  const water = scoopsText(waterG / measureMl)
  return { text: powder.text, waterText: water.text, coarse: powder.coarse || water.coarse }
}

export function weighOutView(plan: PourPlan, outcome: PlanOutcome): WeighOutView {
  const { batches } = outcome.batching
  const bowl = plan.batching?.bowl ?? null
  const shown = allAlike(batches, plan.scaleDivisionG) ? batches[0] : undefined
  const scoopsOf = ({ powderG }: Batch) =>
    plan.scoop && scoopsText(inScoops(powderG, classValuesOf(plan).bulkKgM3, plan.scoop.measureMl))
  const rows = batches.map((batch, i) => ({
    name: batch.name || `Bowl ${i + 1}`,
    batch,
    ingredients: ingredientsOf(plan, batch),
    scoops: scoopsOf(batch)?.text ?? '',
  }))
  const largest = batches.reduce((a, b) => (b.slurryMl > a.slurryMl ? b : a))
  const { water, powder } = batches.reduce(
    (most, { weighings: w }) => ({
      water: Math.max(most.water, w.water),
      powder: Math.max(most.powder, w.powder),
    }),
    { water: 1, powder: 1 },
  )
  const crumbs = rows
    .flatMap((r) => r.ingredients)
    .filter((x) => x.massG < LEAST_STEPS * plan.scaleDivisionG)
    .filter((x, i, all) => all.findIndex((y) => y.id === x.id) === i)
  const blend = outcome.waterBlend
  const wholeG = outcome.weighOut.waterG
  const part = (shown?.waterG ?? wholeG) / wholeG
  return {
    shown,
    rows,
    total: ingredientsOf(plan, outcome.weighOut),
    largest,
    bowlMl: bowl?.volumeMl ?? Math.max(...batches.map((b) => b.bowlMl)),
    tare:
      bowl && bowl.tareG > 0 && shown
        ? { bowlG: bowl.tareG, withWaterG: bowl.tareG + shown.waterG }
        : undefined,
    turns: water > 1 || powder > 1 ? { water, powder } : undefined,
    crumbs,
    taps: blend && {
      hotG: blend.hotG * part,
      coldG: blend.coldG * part,
      hotShare: blend.hotG / wholeG,
      waterTempC: blend.waterTempC,
    },
    scoops: shown && plan.scoop && inBoth(shown, scoopsOf(shown)!, plan.scoop.measureMl),
  }
}
