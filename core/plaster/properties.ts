import { plasterClass, type PlasterClass, type PlasterClassId } from './classes'

/**
 * The plain numbers a plan carries away from a plaster card: a snapshot, so that editing the card later never
 * changes an old pour. Names and units as in PlasterClass.
 */
export interface PlasterProperties {
  classId: PlasterClassId
  useConsistency: number
  consistencyLow: number
  consistencyHigh: number
  referenceConsistency: number
  particleDensityKgM3: number
  hemihydrateFraction: number
  expansionPct: number
  halfHydrationMin: number
  strengthFactor: number
  fillerRatio: number
  fillerDensityKgM3: number
}

/** The class's own values, with whatever a bag's label says laid over them. */
export function plasterProperties(
  classId: PlasterClassId,
  label: Partial<Pick<PlasterProperties, 'useConsistency' | 'expansionPct'>> = {},
): PlasterProperties {
  const c: PlasterClass = plasterClass(classId)
  return {
    classId,
    useConsistency: label.useConsistency ?? c.consistency.value,
    consistencyLow: c.consistency.low,
    consistencyHigh: c.consistency.high,
    referenceConsistency: c.referenceConsistency,
    particleDensityKgM3: c.particleDensityKgM3.value,
    hemihydrateFraction: c.hemihydrateFraction.value,
    expansionPct: label.expansionPct ?? c.expansionPct.value,
    halfHydrationMin: c.halfHydrationMin.value,
    strengthFactor: c.strengthFactor.value,
    fillerRatio: c.fillerRatio,
    fillerDensityKgM3: c.fillerDensityKgM3,
  }
}
