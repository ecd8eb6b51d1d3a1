import type { Issue } from '../errors'
import type { PlasterProperties } from '../plaster'
import { BOUND_WATER_RATIO } from './properties'
import { waterDensityKgM3 } from '../water'

export type ConsistencyIssueCode =
  | 'consistency_below_chemical_minimum'
  | 'consistency_below_class_range'
  | 'consistency_above_class_range'
  | 'consistency_outside_tested'

/** Shares of the class's own range past which the models are carried on, not tested. */
export const TESTED_SPAN = { low: 0.85, high: 1.2 } as const

/** Parts of water to 100 of plaster up to which not all of it turns to gypsum: at the limit nothing is left to flow. */
export function chemicalMinimumConsistency(hemihydrateFraction: number): number {
  return 100 * BOUND_WATER_RATIO * hemihydrateFraction
}

/** Whether this much water suits this plaster. An error is refused, a warning is computed all the same. */
export function checkConsistency(
  consistency: number,
  plaster: Pick<PlasterProperties, 'hemihydrateFraction' | 'consistencyLow' | 'consistencyHigh'>,
): Issue<ConsistencyIssueCode>[] {
  const issue = (
    code: ConsistencyIssueCode,
    severity: Issue['severity'],
    limit: number,
  ): Issue<ConsistencyIssueCode> => ({
    code,
    severity,
    path: 'consistency',
    actual: consistency,
    limit,
    unit: 'parts of water to 100 of plaster',
  })
  const minimum = chemicalMinimumConsistency(plaster.hemihydrateFraction)
  if (consistency <= minimum) return [issue('consistency_below_chemical_minimum', 'error', minimum)]
  const { consistencyLow, consistencyHigh } = plaster
  for (const limit of [TESTED_SPAN.low * consistencyLow, TESTED_SPAN.high * consistencyHigh])
    if (limit < consistencyLow ? consistency < limit : consistency > limit)
      return [issue('consistency_outside_tested', 'warning', limit)]
  if (consistency < plaster.consistencyLow)
    return [issue('consistency_below_class_range', 'warning', plaster.consistencyLow)]
  if (consistency > plaster.consistencyHigh)
    return [issue('consistency_above_class_range', 'warning', plaster.consistencyHigh)]
  return []
}

/** Powder : water by weight, e.g. 70 → 1.43. */
export function powderPartsByWeight(consistency: number): number {
  return 100 / consistency
}

export function consistencyFromPartsByWeight(powderParts: number): number {
  return 100 / powderParts
}

/** Powder : water by volume for a scoop of the given bulk density; water at 20 °C. */
export function powderPartsByVolume(consistency: number, bulkDensityKgM3: number): number {
  return (100 * waterDensityKgM3(20)) / (consistency * bulkDensityKgM3)
}

export function consistencyFromPartsByVolume(powderParts: number, bulkDensityKgM3: number): number {
  return (100 * waterDensityKgM3(20)) / (powderParts * bulkDensityKgM3)
}

/** Water as a fraction of mould volume for which the slurry exactly fills it (no air, no filler), water at 20 °C. */
export function waterFractionOfMould(consistency: number, particleDensityKgM3: number): number {
  return 1 / (1 + (100 * waterDensityKgM3(20)) / (consistency * particleDensityKgM3))
}
