import { plasterClass, type Packing, type PlasterClassId } from '../plaster'
import { logNormalRange, type Provenance, type Range } from '../provenance'
import { consistencyFromPartsByVolume } from './consistency'
import { waterDensityKgM3 } from '../water'

/** How the ratio is met: three schools, one number. */
export type RatioMethod = 'weighed' | 'by_volume' | 'by_eye'

/** How far powder is sifted into still water before one stops: to islands, to a dry lake bed, to a mountain. */
export const SIFT_STAGES = ['islands', 'lake_bed', 'mountain'] as const
export type SiftStage = (typeof SIFT_STAGES)[number]

/** Powder taken up by the time each look is reached, against a bed whose pores just fill (estimates). */
const STAGE_FACTOR: Record<SiftStage, number> = { islands: 0.88, lake_bed: 1, mountain: 1.15 }

/** σ of ln(consistency): what each way of measuring leaves to chance (estimates; scoops of a weighed scoop, .05). */
const SIGMA_LN = { weighed: 0.02, by_volume: 0.13, by_eye: 0.12, weighed_scoop: 0.05 } as const

/** A scoop or cup, and what is known of the powder in it. */
export interface Scoop {
  measureMl: number
  packing: Packing
  /** Bulk density of one weighed scoop of this bag, kg/m³; null while nobody has weighed one. */
  weighedKgM3: number | null
  /** What weighed slurries have said of scoops out of this bag, against the class's own density. */
  learnt?: LearntShare
}

/** A factor as a plan keeps it: how far from the model, how surely, and by how many pours. */
export interface LearntShare {
  factor: number
  /** σ of its logarithm for the next pour. */
  sigmaLn: number
  pours: number
}

export function bulkDensityOf(
  classId: PlasterClassId,
  scoop: Scoop,
): { value: number; low: number; high: number; provenance: Provenance } {
  const { weighedKgM3, learnt } = scoop
  const usual = plasterClass(classId).bulkDensityKgM3[scoop.packing]
  if (weighedKgM3 === null) {
    if (!learnt) return usual
    const { low, mid, high } = logNormalRange(usual.value * learnt.factor, learnt.sigmaLn)
    return { value: mid, low, high, provenance: { kind: 'calibrated', pours: learnt.pours } }
  }
  const { low, high } = logNormalRange(weighedKgM3, SIGMA_LN.weighed_scoop)
  return { value: weighedKgM3, low, high, provenance: { kind: 'measured' } }
}

/** Bulk density from one weighed scoop, kg/m³. */
export function bulkDensityFromScoop(massG: number, measureMl: number): number {
  return (1000 * massG) / measureMl
}

/**
 * Consistency that sifting to a look gives: the bed settles at its own density and its pores fill with water.
 * For plain plaster: a filled mix is not sifted to a look. Middle and range from the settled density.
 * @param hands what is known of whoever sifts.
 */
export function consistencyBySifting(classId: PlasterClassId, stage: SiftStage, hands?: LearntShare): Range {
  const { settledDensityKgM3: settled, particleDensityKgM3 } = plasterClass(classId)
  const at = (bedKgM3: number) =>
    (100 * waterDensityKgM3(20) * (1 / bedKgM3 - 1 / particleDensityKgM3.value)) / STAGE_FACTOR[stage]
  if (hands) return logNormalRange(at(settled.value) * hands.factor, hands.sigmaLn)
  return { low: at(settled.high), mid: at(settled.value), high: at(settled.low) }
}

/** The look that comes nearest to a consistency, and how much thinner or stiffer than asked it is (ratio − 1). */
export function nearestStage(
  classId: PlasterClassId,
  consistency: number,
  hands?: LearntShare,
): { stage: SiftStage; off: number } {
  const all = SIFT_STAGES.map((stage) => ({
    stage,
    off: consistencyBySifting(classId, stage, hands).mid / consistency - 1,
  }))
  return all.reduce((a, b) => (Math.abs(b.off) < Math.abs(a.off) ? b : a))
}

/** How a ratio is met, and what is known of whoever meets it. */
export interface RatioWay {
  ratioMethod: RatioMethod
  scoop?: Scoop
  learnt?: { sprinkled?: LearntShare }
}

/** σ of ln(consistency) for the way the ratio is met. */
export function ratioSigmaLn({ ratioMethod, scoop, learnt }: RatioWay): number {
  if (ratioMethod === 'by_volume' && scoop) {
    if (scoop.weighedKgM3 !== null) return SIGMA_LN.weighed_scoop
    if (scoop.learnt) return scoop.learnt.sigmaLn
  }
  if (ratioMethod === 'by_eye' && learnt?.sprinkled) return learnt.sprinkled.sigmaLn
  return SIGMA_LN[ratioMethod]
}

/** What a mix planned at `consistency` will really be, four times in five, when its ratio is met this way. */
export function ratioRange(of: RatioWay, consistency: number): Range {
  return logNormalRange(consistency, ratioSigmaLn(of))
}

/** Rules that go by the mould: so much of it in water. */
export const MOULD_RULES = { third: 1 / 3, half: 1 / 2, two_thirds: 2 / 3 } as const
export type MouldRule = keyof typeof MOULD_RULES

/** Consistency of powder : water by volume with its range, from how the powder was scooped. */
export function consistencyRangeByVolume(powderParts: number, classId: PlasterClassId, scoop: Scoop): Range {
  const bulk = bulkDensityOf(classId, scoop)
  return {
    low: consistencyFromPartsByVolume(powderParts, bulk.high),
    mid: consistencyFromPartsByVolume(powderParts, bulk.value),
    high: consistencyFromPartsByVolume(powderParts, bulk.low),
  }
}

/** How many scoops a mass of powder is. @param bulkKgM3 of the powder in the scoop. */
export function inScoops(powderG: number, bulkKgM3: number, measureMl: number): number {
  return powderG / (bulkKgM3 / 1000) / measureMl
}
