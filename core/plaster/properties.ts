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
  /** Water that additions bring with them, g for each g of plaster; none where it is not given. */
  admixWaterRatio?: number
  /** What is weighed dry to the plaster, g for each g of it; the filler where it is not given. */
  dryAddRatio?: number
  /** What is dissolved in its water and stays behind: g and ml for each g of plaster, and for each g of water. */
  dissolved?: { gPerPowder: number; mlPerPowder: number; gPerWater: number; mlPerWater: number }
  /** Spread of this powder's setting time, σ of its logarithm; an unseen bag's where it is not given. */
  timeSigmaLn?: number
}

/** What a bag's label may say, in the terms the models use. */
export type LabelValues = Partial<
  Pick<PlasterProperties, 'useConsistency' | 'expansionPct' | 'halfHydrationMin' | 'strengthFactor'>
>

/** Spread of the setting time of a bag not tried here: the class default is good to about ±30 % (estimate). */
export const UNSEEN_BAG_SIGMA_LN = 0.3

/** The class's own values, with whatever a bag's label says laid over them. */
export function plasterProperties(classId: PlasterClassId, label: LabelValues = {}): PlasterProperties {
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
    halfHydrationMin: label.halfHydrationMin ?? c.halfHydrationMin.value,
    strengthFactor: label.strengthFactor ?? c.strengthFactor.value,
    fillerRatio: c.fillerRatio,
    fillerDensityKgM3: c.fillerDensityKgM3,
  }
}
