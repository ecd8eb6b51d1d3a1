import type { Batch } from '#core/mix'
import { plasterClass, weighAdditions } from '#core/plaster'
import type { PourPlan } from '#core/pour'
import { roundToDivision } from '#core/units'
import { ADDITION_WORDS } from './mixWords'

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
  const silicaRatio = plasterClass(plan.plaster.properties.classId).fillerRatio
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
export function tooLittleFor(divisionG: number, ingredients: readonly Ingredient[]): Ingredient[] {
  return ingredients.filter((i) => i.massG < 10 * divisionG)
}

/** Whether bowls are alike to the eye of the scale, so that one weigh-out says all. */
export function allAlike(batches: readonly Batch[], divisionG: number): boolean {
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
