import {
  bulkDensityFromScoop,
  bulkDensityOf,
  consistencyFromPartsByVolume,
  powderPartsByVolume,
  type Scoop,
} from '#core/mix'
import type { PlasterClassId } from '#core/plaster'

/** Powder to water, counted in scoops. */
export function scoopParts(consistency: number, classId: PlasterClassId, scoop: Scoop): number {
  return powderPartsByVolume(consistency, bulkDensityOf(classId, scoop).value)
}

export function consistencyOfScoops(parts: number, classId: PlasterClassId, scoop: Scoop): number {
  return consistencyFromPartsByVolume(parts, bulkDensityOf(classId, scoop).value)
}

/**
 * Another way of scooping with the same count of scoops: the mix moves, as it would in the bowl.
 * @returns the new scoop and the consistency it gives.
 */
export function changeScoop(
  consistency: number,
  classId: PlasterClassId,
  scoop: Scoop,
  change: Partial<Scoop>,
): { scoop: Scoop; consistency: number } {
  const next = { ...scoop, ...change }
  return {
    scoop: next,
    consistency: consistencyOfScoops(scoopParts(consistency, classId, scoop), classId, next),
  }
}

/** What one scoop was weighed at, g; undefined while nobody has. */
export function scoopWeighsG({ weighedKgM3, measureMl }: Scoop): number | undefined {
  return weighedKgM3 === null ? undefined : (weighedKgM3 * measureMl) / 1000
}

export function weighedScoop(massG: number, scoop: Scoop): Partial<Scoop> {
  return { weighedKgM3: bulkDensityFromScoop(massG, scoop.measureMl) }
}

/** No powder packs looser or tighter than 400–2000 kg/m³: past that the scoop or the scale was misread. */
export function scoopBoundsG({ measureMl }: Scoop): { min: number; max: number } {
  return { min: (400 * measureMl) / 1000, max: (2000 * measureMl) / 1000 }
}

/** Something to be measured out by scoops, to a quarter of one. */
export interface InScoops {
  measureMl: number
  /** As many as are wanted, to a quarter; and what each then stands for, g. */
  count: number
  gPerScoop: number
  coarse: boolean
}

/** The same mass in scoops: water in the same one as the powder. @param gPerMl of it, in the scoop. */
export function inScoopsOf(massG: number, gPerMl: number, measureMl: number): InScoops {
  const exact = massG / (gPerMl * measureMl)
  const count = Math.max(1, Math.round(exact * 4)) / 4
  return { measureMl, count, gPerScoop: massG / count, coarse: Math.abs(count / exact - 1) > COARSE }
}

/** Further off than this a smaller scoop comes closer. */
const COARSE = 0.05
const QUARTERS = ['', '¼', '½', '¾']

/** Scoops to a quarter, since nobody fills one better; `coarse` where that is more than 5 % off. */
export function scoopsText(scoops: number): { text: string; coarse: boolean } {
  const quarters = Math.max(1, Math.round(scoops * 4))
  return {
    text: `${quarters >= 4 ? Math.floor(quarters / 4) : ''}${QUARTERS[quarters % 4]}`,
    coarse: Math.abs(quarters / 4 / scoops - 1) > COARSE,
  }
}
