import { bulkDensityOf, type Scoop } from '../../../mix'
import { plasterClass } from '../../../plaster'
import type { PourPlan } from '../plan'

/** Values of the plaster's class that the plan's figures hang on, as they were. */
export interface ClassValues {
  /** Filler that belongs to the class itself, for each of its plaster. */
  fillerRatio: number
  /** Bulk density of the powder in the scoop, kg/m³. */
  bulkKgM3: number
}

/** A cup, dug into the bag. */
export const FIRST_SCOOP: Scoop = { measureMl: 250, packing: 'scooped', weighedKgM3: null }

/** As they were kept with the plan, else as the class has them today. */
export function classValuesOf(plan: PourPlan & { kept?: { classValues: ClassValues } }): ClassValues {
  if (plan.kept) return plan.kept.classValues
  const { classId } = plan.plaster.properties
  return {
    fillerRatio: plasterClass(classId).fillerRatio,
    bulkKgM3: bulkDensityOf(classId, plan.scoop ?? FIRST_SCOOP).value,
  }
}
