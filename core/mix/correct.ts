import { bowlVolumeMl } from './batch'
import { mixProperties, type MixInput } from './properties'

/**
 * Putting a mix right. Everything is worked out from what is really in the bowl; nothing here is possible once the mix
 * has begun to set, and the advice says so.
 */

/** What is in the bowl, g. Water of additions not counted: it follows the plaster. */
export interface InBowl {
  waterG: number
  powderG: number
}

export interface Correction {
  /** What to do, g; exactly one of them is more than zero unless nothing is to be done. */
  addWaterG: number
  addPowderG: number
  takeWaterG: number
  /** The bowl's contents afterwards. */
  after: InBowl & { slurryMl: number; bowlMl: number; consistency: number }
}

type Target = MixInput

function corrected(target: Target, before: InBowl, change: Partial<Correction>): Correction {
  const { addWaterG = 0, addPowderG = 0, takeWaterG = 0 } = change
  const waterG = before.waterG + addWaterG - takeWaterG
  const powderG = before.powderG + addPowderG
  const consistency = consistencyInBowl(target, { waterG, powderG })
  const slurryMl = powderG * mixProperties({ ...target, consistency }).slurryMlPerG
  return {
    addWaterG,
    addPowderG,
    takeWaterG,
    after: { waterG, powderG, slurryMl, bowlMl: bowlVolumeMl(waterG, slurryMl), consistency },
  }
}

/** Consistency of what is in the bowl, the water of additions included. */
export function consistencyInBowl(target: Target, { waterG, powderG }: InBowl): number {
  return 100 * (waterG / powderG + (target.plaster.admixWaterRatio ?? 0))
}

/** Water weighed for each g of plaster at the planned consistency. */
function waterPerPowder(target: Target): number {
  return target.consistency / 100 - (target.plaster.admixWaterRatio ?? 0)
}

/** Water wanted for this much plaster, g. */
export function waterForPowderG(target: Target, powderG: number): number {
  return powderG * waterPerPowder(target)
}

/** Plaster wanted for this much water, g. */
export function powderForWaterG(target: Target, waterG: number): number {
  return waterG / waterPerPowder(target)
}

/** Too much water in the bowl: sponge the rest out, so that the planned plaster goes with it. */
export function takeWaterOut(target: Target, before: InBowl): Correction {
  const wantedG = waterForPowderG(target, before.powderG)
  return corrected(target, before, { takeWaterG: Math.max(0, before.waterG - wantedG) })
}

/** Too thin, or too much water: how much more plaster brings it to the planned consistency. */
export function addPowder(target: Target, before: InBowl): Correction {
  return corrected(target, before, {
    addPowderG: Math.max(0, powderForWaterG(target, before.waterG) - before.powderG),
  })
}

/** Too stiff, or powder overshot: how much more water brings it to the planned consistency. */
export function addWater(target: Target, before: InBowl): Correction {
  return corrected(target, before, {
    addWaterG: Math.max(0, waterForPowderG(target, before.powderG) - before.waterG),
  })
}

/** How far a mix is on: what may still be done to it. */
export type MixState = 'dry_powder_apart' | 'not_stirred' | 'stirred_fresh' | 'thickening' | 'setting'

/**
 * Whether anything may still be added. Until stirring, freely; just after, with care and a second soak; once it
 * thickens, never: it breaks what has begun to grow (Phillips, from memory; common practice).
 */
export function mayAdd(state: MixState): 'freely' | 'with_care' | 'never' {
  if (state === 'dry_powder_apart' || state === 'not_stirred') return 'freely'
  return state === 'stirred_fresh' ? 'with_care' : 'never'
}
